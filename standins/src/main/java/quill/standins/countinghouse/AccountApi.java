package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.server.ResponseStatusException;
import quill.standins.StandinsSettings;

/** The account that is kept for a business, what goes back to payers, and what they contest. */
@RestController
@RequestMapping("/api")
class AccountApi {
    private static final int MOST_ENTRIES = 200;
    private static final int LONGEST_EVIDENCE = 20_000;
    private final Account account;
    private final OrderBook orders;
    private final Refunds refunds;
    private final Contests contests;
    private final StandinsSettings settings;

    AccountApi(Account account, OrderBook orders, Refunds refunds, Contests contests, StandinsSettings settings) {
        this.account = account;
        this.orders = orders;
        this.refunds = refunds;
        this.contests = contests;
        this.settings = settings;
    }

    /**
     * An entry: what it changes of what is held is amount less cost.
     *
     * @param number without a gap from 1
     * @param answerBy of what is contested; null for others
     * @param key the caller's own, of the order or the refund; null for a payout
     * @param entries of a payout, which it was made of; empty for others
     */
    record Entry(
            long number,
            String kind,
            String subject,
            String order,
            String currency,
            String amount,
            String cost,
            LocalDate on,
            String reason,
            LocalDate answerBy,
            String key,
            List<Long> entries) {}

    record GiveBack(String order, BigDecimal amount) {}

    record Refund(String id, String order, String amount, String state, String reason) {}

    record Evidence(String text) {}

    record Contest(String id, String order, String state, LocalDate answerBy) {}

    /** Entries after a number, at most 200. */
    @GetMapping("/account/entries")
    List<Entry> entries(
            @RequestHeader("Authorization") String authorization, @RequestParam(defaultValue = "0") long after) {
        settings.check(authorization);
        return account.after(after, MOST_ENTRIES).stream().map(this::entry).toList();
    }

    private Entry entry(Account.Entry e) {
        boolean payout = "paid-out".equals(e.kind());
        return new Entry(
                e.number(),
                e.kind(),
                e.subject(),
                e.orderId(),
                e.currency(),
                Sums.plain(e.amount(), e.currency()),
                Sums.plain(e.cost(), e.currency()),
                e.on(),
                e.reason(),
                "contested".equals(e.kind())
                        ? contests.find(e.subject()).orElseThrow().answerBy()
                        : null,
                key(e),
                payout
                        ? account.of(e.subject()).stream()
                                .map(Account.Entry::number)
                                .toList()
                        : List.of());
    }

    private String key(Account.Entry e) {
        if (e.kind().startsWith("refund")) {
            return refunds.find(e.subject()).orElseThrow().key();
        }
        return e.orderId() == null
                ? null
                : orders.find(e.orderId()).orElseThrow().ourKey();
    }

    /** What is held, by currency. */
    @GetMapping("/account/held")
    Map<String, String> held(@RequestHeader("Authorization") String authorization) {
        settings.check(authorization);
        Map<String, String> held = new TreeMap<>();
        account.held().forEach(h -> held.put(h.currency(), Sums.plain(h.sum(), h.currency())));
        return held;
    }

    /** Gives back a payment, or a part of it; the same key finds the first. */
    @PostMapping("/refunds")
    Refund giveBack(
            @RequestHeader("Authorization") String authorization,
            @RequestHeader("Idempotency-Key") String key,
            @RequestBody GiveBack asked) {
        settings.check(authorization);
        CardOrder order = orders.find(asked.order() == null ? "" : asked.order())
                .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        Calls.check(asked.amount(), order.currency());
        Refunds.Refund made = refunds.give(key, order.id(), asked.amount());
        return new Refund(
                made.id(), made.orderId(), Sums.plain(made.amount(), order.currency()), made.state(), made.reason());
    }

    /** Answers a contest: with everything that speaks for the business. */
    @PostMapping("/contests/{id}/answer")
    Contest answer(
            @RequestHeader("Authorization") String authorization,
            @PathVariable String id,
            @RequestBody Evidence evidence) {
        settings.check(authorization);
        if (evidence.text() == null
                || evidence.text().isBlank()
                || evidence.text().length() > LONGEST_EVIDENCE) {
            throw Calls.refused("text must be given, with at most " + LONGEST_EVIDENCE + " characters");
        }
        Contests.Contest c = contests.answer(id, evidence.text());
        return new Contest(c.id(), c.orderId(), c.state(), c.answerBy());
    }
}
