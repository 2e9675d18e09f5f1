package quill.server.account;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.ledger.Account;
import quill.core.ledger.Aging;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.core.tax.TaxCategory;
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

    /** A client in the index. @param late what of it is past its due date */
    record ClientRow(
            long id,
            String name,
            String email,
            Amount owes,
            Amount late,
            List<Amount> inOthers,
            @Schema(nullable = true) LocalDate nextDueOn,
            long daysLate) {}

    record AccountRow(long entry, LocalDate on, String what, Amount charged, Amount received, Amount balance) {}

    record AccountView(
            Client client,
            Amount owes,
            Amount late,
            Amount credit,
            Amount deposits,
            List<Amount> inOthers,
            Amount byInstallments,
            Amount byPostings,
            boolean agrees,
            List<Band> aging,
            List<AccountRow> rows,
            List<InvoiceIndex.Row> invoices) {}

    /** What is open in a band of days past due. */
    record Band(String band, String words, Amount amount) {}

    record PostingView(String account, String detail, Amount amount) {}

    record EntryView(
            long id,
            LocalDate on,
            String event,
            String text,
            @Schema(nullable = true) Long clientId,
            @Schema(nullable = true) Long reverses,
            String who,
            List<PostingView> postings) {}

    /** @param detail of income its category, of tax its name; else empty */
    record BalanceView(String account, String detail, Amount amount) {}

    record Books(
            List<BalanceView> balances,
            List<BalanceView> inOthers,
            Amount sum,
            int clients,
            List<String> disagreeing,
            List<EntryView> entries,
            @Schema(nullable = true) Long more) {}

    @GetMapping("/clients")
    @OneSnapshot
    List<ClientRow> list() {
        CurrencyUnit currency = business.business().currencyUnit();
        LocalDate today = clock.today();
        Map<Long, Money> balances = books.balancesByClient(currency);
        Map<Long, List<OpenDebt>> open = debts.openByClient(currency);
        Map<Long, List<Money>> others = books.balancesInOthersByClient();
        List<ClientRow> rows = new ArrayList<>();
        for (Client c : clients.all()) {
            List<OpenDebt> own = open.getOrDefault(c.id(), List.of());
            List<OpenDebt> late =
                    own.stream().filter(d -> d.dueOn().isBefore(today)).toList();
            LocalDate next =
                    own.stream().map(OpenDebt::dueOn).min(LocalDate::compareTo).orElse(null);
            rows.add(new ClientRow(
                    c.id(),
                    c.name(),
                    c.email(),
                    Amount.of(balances.getOrDefault(c.id(), Money.zero(currency))),
                    Amount.of(Amounts.sum(
                            currency, late.stream().map(OpenDebt::open).toList())),
                    others.getOrDefault(c.id(), List.of()).stream()
                            .map(Amount::of)
                            .toList(),
                    next,
                    late.isEmpty() ? 0 : Standing.daysLate(next, today)));
        }
        rows.sort(Comparator.comparing((ClientRow r) -> r.late().money().getAmount())
                .reversed()
                .thenComparing(r -> r.owes().money().getAmount(), Comparator.reverseOrder())
                .thenComparing(ClientRow::name));
        return rows;
    }

    @PostMapping("/clients")
    Client make(@RequestBody Client client) {
        return clients.make(client);
    }

    @PutMapping("/clients/{id}")
    Client change(@PathVariable long id, @RequestBody Client c) {
        return clients.change(new Client(
                id,
                c.name(),
                c.contact(),
                c.email(),
                c.address(),
                c.country(),
                c.taxNumber(),
                c.certificate(),
                c.exemptUntil(),
                c.version()));
    }

    /** @param in ISO 4217 code; without it the account in the business's own currency */
    @GetMapping("/clients/{id}")
    @OneSnapshot
    AccountView account(@PathVariable long id, @RequestParam(required = false) String in) {
        CurrencyUnit currency = in == null ? usual(id) : currency(in);
        Client client = clients.client(id);
        Debts.Agreement agreement = debts.agreement(id, currency);
        List<OpenDebt> late = debts.open(id, currency).stream()
                .filter(d -> d.dueOn().isBefore(clock.today()))
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
        java.util.Collections.reverse(rows);
        return new AccountView(
                client,
                Amount.of(books.balanceOf(id, currency)),
                Amount.of(
                        Amounts.sum(currency, late.stream().map(OpenDebt::open).toList())),
                Amount.of(books.creditOf(id, currency)),
                Amount.of(books.depositsOf(id, currency)),
                books.otherCurrenciesOf(id).stream()
                        .map(c -> Amount.of(books.balanceOf(id, c)))
                        .toList(),
                Amount.of(agreement.byInstallments()),
                Amount.of(agreement.byPostings()),
                agreement.holds(),
                Aged.bands(Aging.of(currency, debts.open(id, currency), clock.today())),
                rows,
                index.ofClient(id));
    }

    @GetMapping("/books")
    @OneSnapshot
    Books books(@RequestParam(required = false) Long before) {
        CurrencyUnit currency = business.business().currencyUnit();
        List<BooksService.Balance> balances = books.balances();
        List<Client> all = clients.all();
        List<String> disagreeing = books.currencies().stream()
                .flatMap(c -> disagreeing(all, c).stream())
                .distinct()
                .toList();
        Map<String, String> taxes = business.taxNames();
        List<BooksService.Booked> entries = books.journal(before == null ? Long.MAX_VALUE : before, PAGE);
        return new Books(
                balances(balances, taxes),
                balances(books.balancesInOthers(), taxes),
                Amount.of(Amounts.sum(
                        currency,
                        balances.stream().map(BooksService.Balance::amount).toList())),
                all.size(),
                disagreeing,
                entries.stream().map(e -> view(e, taxes)).toList(),
                entries.size() == PAGE ? entries.get(PAGE - 1).id() : null);
    }

    /** The clients of whom installments, credit and deposits say something else than the postings do. */
    private List<String> disagreeing(List<Client> all, CurrencyUnit currency) {
        Money zero = Money.zero(currency);
        Map<Long, Money> byPostings = books.balancesByClient(currency);
        Map<Long, Money> credits = books.creditsOf(all.stream().map(Client::id).toList(), currency);
        Map<Long, Money> deposits = books.depositsByClient(currency);
        Map<Long, List<OpenDebt>> open = debts.openByClient(currency);
        return all.stream()
                .filter(c -> !Amounts.sum(
                                currency,
                                open.getOrDefault(c.id(), List.of()).stream()
                                        .map(OpenDebt::open)
                                        .toList())
                        .minus(credits.getOrDefault(c.id(), zero))
                        .minus(deposits.getOrDefault(c.id(), zero))
                        .isEqual(byPostings.getOrDefault(c.id(), zero)))
                .map(Client::name)
                .toList();
    }

    /** The business's own currency, unless all that was ever booked for a client is in another. */
    private CurrencyUnit usual(long clientId) {
        CurrencyUnit own = business.business().currencyUnit();
        List<CurrencyUnit> others = books.otherCurrenciesOf(clientId);
        return !others.isEmpty() && books.accountOf(clientId, own).isEmpty() ? others.get(0) : own;
    }

    private static List<BalanceView> balances(List<BooksService.Balance> balances, Map<String, String> taxes) {
        return balances.stream()
                .filter(b -> !b.amount().isZero())
                .map(b -> new BalanceView(
                        b.account().words(), detail(b.account(), b.detail(), taxes), Amount.of(b.amount())))
                .sorted(Comparator.comparing((BalanceView b) -> b.amount().currency())
                        .thenComparing(BalanceView::account)
                        .thenComparing(BalanceView::detail))
                .toList();
    }

    private static String detail(Account account, String detail, Map<String, String> taxes) {
        return switch (account) {
            case INCOME -> TaxCategory.valueOf(detail).words();
            case TAX -> taxes.getOrDefault(detail, detail);
            default -> detail;
        };
    }

    private static CurrencyUnit currency(String code) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = TypedNumber.currency("in", code, problems);
        if (currency == null) {
            throw new RefusedException(problems);
        }
        return currency;
    }

    private static EntryView view(BooksService.Booked e, Map<String, String> taxes) {
        Entry.Event event = e.event();
        return new EntryView(
                e.id(),
                e.on(),
                event.words(),
                e.text(),
                e.clientId(),
                e.reverses(),
                e.who(),
                e.postings().stream()
                        .map(p -> new PostingView(
                                p.account().words(), detail(p.account(), p.detail(), taxes), Amount.of(p.amount())))
                        .toList());
    }
}
