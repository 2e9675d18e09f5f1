package quill.server.account;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.ledger.Aging;
import quill.core.ledger.Agreement;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.invoices.InvoiceIndex;

/** Clients with what they owe, the account of one, and the journal. */
@RestController
@RequestMapping("/api")
class AccountController {
    private static final int PAGE = 60;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final InvoiceIndex index;
    private final BusinessService business;
    private final BusinessClock clock;

    AccountController(
            ClientsService clients,
            BooksService books,
            Debts debts,
            InvoiceIndex index,
            BusinessService business,
            BusinessClock clock) {
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.index = index;
        this.business = business;
        this.clock = clock;
    }

    record AccountRow(long entry, LocalDate on, String what, Amount charged, Amount received, Amount balance) {}

    record AccountView(
            Client client,
            boolean archived,
            AccountSums sums,
            Agreeing books,
            List<Band> aging,
            List<AccountRow> rows,
            List<InvoiceIndex.Row> invoices) {}

    /**
     * What a client owes and is owed.
     *
     * @param waiting what of the credit waits for a draft that replaces an invoice
     * @param inOthers what it owes in other currencies
     */
    record AccountSums(
            Amount owes, Amount late, Amount credit, Amount waiting, Amount deposits, List<Amount> inOthers) {}

    /** The same sum counted twice: from what is open, and from what is booked. */
    record Agreeing(Amount byDebts, Amount byPostings, boolean agrees) {}

    /** What is open in a band of days past due. */
    record Band(String band, String words, Amount amount) {}

    /** @param in ISO 4217 code; without it the account in the business's own currency */
    @GetMapping("/clients/{id}")
    @OneSnapshot
    AccountView account(@PathVariable("id") ClientId asked, @RequestParam(required = false) String in) {
        // One that was merged into another leads on to it.
        Client client = clients.client(asked);
        ClientId id = client.id();
        CurrencyUnit currency = in == null ? usual(id) : currency(in);
        Agreement agreement = debts.agreement(id, currency);
        List<OpenDebt> late = debts.open(id, currency).stream()
                .filter(d -> Standing.isLate(d.dueOn(), clock.today()))
                .toList();
        List<AccountRow> rows = new ArrayList<>(books.accountOf(id, currency).stream()
                .map(r -> new AccountRow(
                        r.movement().entry(),
                        r.movement().on(),
                        r.movement().what(),
                        Amount.of(r.charged()),
                        Amount.of(r.received()),
                        Amount.of(r.balance())))
                .toList());
        Collections.reverse(rows);
        return new AccountView(
                client,
                clients.isArchived(id),
                new AccountSums(
                        Amount.of(books.balanceOf(id, currency)),
                        Amount.of(Amounts.sum(
                                currency, late.stream().map(OpenDebt::open).toList())),
                        Amount.of(books.creditOf(id, currency)),
                        Amount.of(debts.waitingCreditOf(id, currency)),
                        Amount.of(books.depositsOf(id, currency)),
                        books.otherCurrenciesOf(id).stream()
                                .map(c -> Amount.of(books.balanceOf(id, c)))
                                .toList()),
                new Agreeing(Amount.of(agreement.byDebts()), Amount.of(agreement.byPostings()), agreement.holds()),
                Aged.bands(Aging.of(currency, debts.open(id, currency), clock.today())),
                rows,
                index.ofClient(id));
    }

    /** The business's own currency, unless all that was ever booked for a client is in another. */
    private CurrencyUnit usual(ClientId clientId) {
        CurrencyUnit own = business.business().currencyUnit();
        List<CurrencyUnit> others = books.otherCurrenciesOf(clientId);
        return !others.isEmpty() && books.accountOf(clientId, own).isEmpty() ? others.get(0) : own;
    }

    static CurrencyUnit currency(String code) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = TypedNumber.currency("in", code, problems);
        if (currency == null) {
            throw new RefusedException(problems);
        }
        return currency;
    }
}
