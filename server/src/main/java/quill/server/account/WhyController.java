package quill.server.account;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Aging;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.OpenReasons;
import quill.core.ledger.OpenReasons.Item;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.NotFoundException;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.debts.StoredInstallment;

/** Why a figure is what it is, asked for where it stands; the answers are of one moment. */
@RestController
@RequestMapping("/api")
class WhyController {
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final OpenSums sums;
    private final BusinessClock clock;

    WhyController(ClientsService clients, BooksService books, Debts debts, OpenSums sums, BusinessClock clock) {
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.sums = sums;
        this.clock = clock;
    }

    /** What is open of an invoice. @param debt one installment or late fee of it; without it all together */
    @GetMapping("/invoices/{id}/why-open")
    @OneSnapshot
    Why open(@PathVariable DocumentId id, @RequestParam(required = false) Long debt) {
        List<StoredInstallment> all = debts.of(id);
        if (debt != null) {
            StoredInstallment one = all.stream()
                    .filter(i -> i.id() == debt)
                    .findFirst()
                    .orElseThrow(() -> new NotFoundException("This invoice has no debt " + debt + "."));
            return OpenReasons.debt(one.amount(), one.credited(), one.settled(), one.open());
        }
        if (all.isEmpty()) {
            throw new NotFoundException("Nothing was ever to be paid for this invoice.");
        }
        CurrencyUnit currency = all.get(0).amount().getCurrencyUnit();
        return OpenReasons.open(
                all.stream()
                        .map(i -> new Item(i.fee() ? "late fee" : "installment " + i.position(), i.amount()))
                        .toList(),
                total(all, StoredInstallment::credited, currency),
                total(all, StoredInstallment::settled, currency),
                total(all, StoredInstallment::open, currency));
    }

    private static Money total(
            List<StoredInstallment> all,
            java.util.function.Function<StoredInstallment, Money> figure,
            CurrencyUnit currency) {
        return Amounts.sum(currency, all.stream().map(figure).toList());
    }

    /** A figure of an account. @param figure owes, open, late, or a band of the aging, such as DAYS_1_30 */
    @GetMapping("/clients/{id}/why")
    @OneSnapshot
    Why ofClient(@PathVariable ClientId id, @RequestParam String figure, @RequestParam String in) {
        clients.client(id);
        CurrencyUnit currency = AccountController.currency(in);
        LocalDate today = clock.today();
        List<OpenDebt> open = debts.open(id, currency);
        if ("owes".equals(figure)) {
            Money openInAll =
                    Amounts.sum(currency, open.stream().map(OpenDebt::open).toList());
            return OpenReasons.sum(
                    "what is open, less the client’s credit and deposits",
                    List.of(
                            new Item("open installments and late fees", openInAll),
                            new Item(
                                    "client credit",
                                    books.creditOf(id, currency).negated()),
                            new Item(
                                    "deposits held",
                                    books.depositsOf(id, currency).negated())),
                    books.balanceOf(id, currency));
        }
        if ("open".equals(figure)) {
            return listed("what is open", open, currency);
        }
        if ("late".equals(figure)) {
            return listed(
                    "what is past its due date",
                    open.stream().filter(d -> Standing.isLate(d.dueOn(), today)).toList(),
                    currency);
        }
        Aging.Band band = band("figure", figure);
        return listed(
                "what is open and " + band.words() + ", each by its own due date",
                open.stream()
                        .filter(d -> Aging.Band.of(Standing.daysLate(d.dueOn(), today)) == band)
                        .toList(),
                currency);
    }

    private Why listed(String rule, List<OpenDebt> some, CurrencyUnit currency) {
        return OpenReasons.debts(
                rule,
                some,
                clock.today(),
                Amounts.sum(currency, some.stream().map(OpenDebt::open).toList()));
    }

    private static Aging.Band band(String field, String name) {
        return Arrays.stream(Aging.Band.values())
                .filter(b -> b.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new RefusedException(
                        field,
                        name,
                        ("figure".equals(field) ? "must be owes, open, late or one of " : "must be one of ")
                                + Arrays.stream(Aging.Band.values())
                                        .map(Enum::name)
                                        .collect(Collectors.joining(", "))));
    }

    /** A sum of the aging over all clients. @param band as above, or nothing for all bands together */
    @GetMapping("/aging/why")
    @OneSnapshot
    Why ofAll(@RequestParam String in, @RequestParam(required = false) String band) {
        CurrencyUnit currency = AccountController.currency(in);
        LocalDate today = clock.today();
        Aging.Band only = band == null ? null : band("band", band);
        List<OpenSums.Owed> some = sums.all().stream()
                .filter(o -> o.currency().equals(currency))
                .filter(o -> only == null || Aging.Band.of(Standing.daysLate(o.dueOn(), today)) == only)
                .toList();
        List<Item> items = sums.byClient(some, today, today).stream()
                .sorted(Comparator.comparing((OpenSums.ClientSum s) -> s.open().getAmount())
                        .reversed()
                        .thenComparing(OpenSums.ClientSum::client))
                .map(s -> new Item(s.client(), s.open()))
                .toList();
        return OpenReasons.sum(
                only == null ? "what is open, of all clients" : "what is open and " + only.words() + ", of all clients",
                items,
                Amounts.sum(currency, items.stream().map(Item::amount).toList()));
    }
}
