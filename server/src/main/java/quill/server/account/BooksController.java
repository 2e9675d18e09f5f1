package quill.server.account;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.ledger.Account;
import quill.core.ledger.Entry;
import quill.core.money.Amounts;
import quill.core.tax.TaxCategory;
import quill.server.books.BooksService;
import quill.server.books.IncomeByCategory;
import quill.server.business.BusinessService;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.OneSnapshot;
import quill.server.debts.OpenSums;

/** The books as a whole, over HTTP. */
@RestController
@RequestMapping("/api")
class BooksController {
    private static final int PAGE = 60;

    private final BooksService books;
    private final ClientsService clients;
    private final OpenSums sums;
    private final IncomeByCategory income;
    private final BusinessService business;

    BooksController(
            BooksService books,
            ClientsService clients,
            OpenSums sums,
            IncomeByCategory income,
            BusinessService business) {
        this.books = books;
        this.clients = clients;
        this.sums = sums;
        this.income = income;
        this.business = business;
    }

    record PostingView(String account, String detail, Amount amount) {}

    record EntryView(
            long id,
            LocalDate on,
            String event,
            String text,
            @Schema(nullable = true) ClientId clientId,
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
