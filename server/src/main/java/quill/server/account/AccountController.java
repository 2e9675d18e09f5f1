package quill.server.account;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.ledger.Account;
import quill.core.ledger.Aging;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.core.tax.TaxCategory;
import quill.server.books.BooksService;
import quill.server.books.IncomeByCategory;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.invoices.InvoiceIndex;
import quill.server.payments.PaymentsService;

/** Clients with what they owe, the account of one, and the journal. */
@RestController
@RequestMapping("/api")
class AccountController {
    private static final int PAGE = 60;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final OpenSums sums;
    private final PaymentsService payments;
    private final InvoiceIndex index;
    private final IncomeByCategory income;
    private final BusinessService business;
    private final BusinessClock clock;

    AccountController(
            ClientsService clients,
            BooksService books,
            Debts debts,
            OpenSums sums,
            PaymentsService payments,
            InvoiceIndex index,
            IncomeByCategory income,
            BusinessService business,
            BusinessClock clock) {
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.sums = sums;
        this.payments = payments;
        this.index = index;
        this.income = income;
        this.business = business;
        this.clock = clock;
    }

    record AccountRow(long entry, LocalDate on, String what, Amount charged, Amount received, Amount balance) {}

    /** @param waiting what of the credit waits for a draft that replaces an invoice */
    record AccountView(
            Client client,
            boolean archived,
            Amount owes,
            Amount late,
            Amount credit,
            Amount waiting,
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

    /** Income by the business's own categories. @param category empty for what has none @param years by {@code years} */
    record IncomeRow(String category, List<Amount> years) {}

    record Books(
            List<BalanceView> balances,
            List<BalanceView> inOthers,
            List<Integer> years,
            List<IncomeRow> income,
            Amount sum,
            int clients,
            List<String> disagreeing,
            List<EntryView> entries,
            @Schema(nullable = true) Long more) {}

    /** @param in ISO 4217 code; without it the account in the business's own currency */
    @GetMapping("/clients/{id}")
    @OneSnapshot
    AccountView account(@PathVariable("id") long asked, @RequestParam(required = false) String in) {
        // One that was merged into another leads on to it.
        Client client = clients.client(asked);
        long id = client.id();
        CurrencyUnit currency = in == null ? usual(id) : currency(in);
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
        Collections.reverse(rows);
        return new AccountView(
                client,
                clients.isArchived(id),
                Amount.of(books.balanceOf(id, currency)),
                Amount.of(
                        Amounts.sum(currency, late.stream().map(OpenDebt::open).toList())),
                Amount.of(books.creditOf(id, currency)),
                Amount.of(debts.waitingCreditOf(id, currency)),
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
        BooksService.Balances balances = books.balances();
        IncomeByCategory.Report report = income.report();
        Map<String, String> taxes = business.taxNames();
        List<BooksService.Booked> entries = books.journal(before == null ? Long.MAX_VALUE : before, PAGE);
        return new Books(
                balances(balances.own(), taxes),
                balances(balances.inOthers(), taxes),
                report.years(),
                report.rows().stream()
                        .map(r -> new IncomeRow(
                                r.category(), r.years().stream().map(Amount::of).toList()))
                        .toList(),
                Amount.of(Amounts.sum(
                        currency,
                        balances.own().stream()
                                .map(BooksService.Balance::amount)
                                .toList())),
                clients.count(),
                sums.disagreeing(),
                entries.stream().map(e -> view(e, taxes)).toList(),
                entries.size() == PAGE ? entries.get(PAGE - 1).id() : null);
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

    static CurrencyUnit currency(String code) {
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
                                p.account().words(),
                                Stream.of(detail(p.account(), p.detail(), taxes), p.category())
                                        .filter(t -> !t.isEmpty())
                                        .collect(Collectors.joining(" · ")),
                                Amount.of(p.amount())))
                        .toList());
    }
}
