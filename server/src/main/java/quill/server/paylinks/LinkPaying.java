package quill.server.paylinks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.cardorders.HowPaid;
import quill.server.cardorders.LinkOrders;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.RandomText;
import quill.server.common.Texts;
import quill.server.links.Links;
import quill.server.payments.Payer;
import quill.server.ways.OnTopService;

/** What a payer does on the page of a payment link. */
@Service
public class LinkPaying {
    private static final int BYTES = 24;
    private final LinkRepository links;
    private final LinkPaymentRepository begun;
    private final PaymentLinks all;
    private final LinkOrders orders;
    private final OnTopService onTop;
    private final TransactionTemplate transaction;
    private final BusinessClock clock;

    LinkPaying(
            LinkRepository links,
            LinkPaymentRepository begun,
            PaymentLinks all,
            LinkOrders orders,
            OnTopService onTop,
            TransactionTemplate transaction,
            BusinessClock clock) {
        this.onTop = onTop;
        this.links = links;
        this.begun = begun;
        this.all = all;
        this.orders = orders;
        this.transaction = transaction;
        this.clock = clock;
    }

    /**
     * What a payer is about to pay.
     *
     * @param key of the request, new for each payment
     * @param answers to the link's own fields, by their labels
     * @param agreed whether the conditions are accepted
     * @param chosen by which way, and what is on top; null for nothing
     */
    public record PayLink(
            String key,
            String amount,
            String currency,
            String name,
            String email,
            @Schema(nullable = true) Map<String, String> answers,
            boolean agreed,
            @Schema(nullable = true) OnTopService.Chosen chosen) {}

    /** @throws quill.server.common.NotFoundException for a link that there never was */
    PaymentLink byToken(String token) {
        return links.byToken(token).orElseThrow(Links::unknown);
    }

    /** What was begun on a link's page, by its payer's own token. */
    LinkPaymentRepository.Begun begunBy(PaymentLink link, String payer) {
        return begun.byToken(link.id(), payer).orElseThrow(Links::unknown);
    }

    /**
     * Begins a payment; the same key is the same payment.
     *
     * @return the address of the card company's page
     * @throws RefusedException naming what is wrong
     * @throws ConflictException where the link takes nothing any more, or somebody is paying what is paid once
     */
    public String begin(String token, PayLink typed) {
        Texts.key(typed.key(), "payment");
        PaymentLink link = byToken(token);
        LinkPaymentRepository.Begun mine = transaction.execute(s -> kept(link, typed));
        if (link.rules().once()) {
            List<Long> inTheWay = transaction.execute(s -> {
                links.lock(link.id()).orElseThrow();
                return orders.inTheWay(link.id(), mine.id());
            });
            orders.makeWay(inTheWay);
        }
        return payAt(link, mine, now -> how(now, mine, typed.chosen()));
    }

    /** The order of what was begun, opened at the processor. @param how by the link as it is once it is locked */
    private String payAt(PaymentLink link, LinkPaymentRepository.Begun mine, Function<PaymentLink, HowPaid> how) {
        long order = transaction.execute(s -> {
            PaymentLink now = links.lock(link.id()).orElseThrow();
            checkOpen(now);
            if (now.rules().once() && !orders.inTheWay(now.id(), mine.id()).isEmpty()) {
                throw new ConflictException("Somebody else began to pay this just now. Nothing was taken; try again.");
            }
            return orders.want(
                    now.id(),
                    new LinkOrders.ToPay(
                            mine.id(), mine.amount(), now.rules().clientId(), mine.payer(), how.apply(now)));
        });
        return orders.payAt(order, mine.title());
    }

    /** What is only held is taken later, or less of it: nothing is on top of that. */
    private HowPaid how(PaymentLink link, LinkPaymentRepository.Begun mine, OnTopService.Chosen chosen) {
        if (link.rules().hold()) {
            return HowPaid.held(true);
        }
        OnTopService.Paid paid = onTop.paid(mine.amount(), chosen == null ? OnTopService.Chosen.NOTHING : chosen);
        return HowPaid.PLAIN.with(paid.only(), paid.top());
    }

    private void checkOpen(PaymentLink link) {
        switch (all.state(link)) {
            case PAID -> throw new ConflictException("This has been paid already. Nothing more was taken.");
            case ENDED ->
                throw new ConflictException("This link could be paid until "
                        + Texts.day(link.rules().endsOn()) + ". Nothing was taken; ask whoever sent it.");
            case CLOSED ->
                throw new ConflictException(
                        "This link takes no payments any more. Nothing was taken; ask whoever sent it.");
            default -> {}
        }
    }

    private LinkPaymentRepository.Begun kept(PaymentLink seen, PayLink typed) {
        PaymentLink link = links.lock(seen.id()).orElseThrow();
        return kept(link, typed.key(), read(link, typed));
    }

    /**
     * Begins what its business takes itself, on a link that was made for it.
     *
     * @return the address of the card company's page
     */
    String begin(PaymentLink link, String key, HowPaid how, LinkPaymentRepository.Begun read) {
        return payAt(link, transaction.execute(s -> kept(links.lock(link.id()).orElseThrow(), key, read)), now -> how);
    }

    private LinkPaymentRepository.Begun kept(PaymentLink link, String key, LinkPaymentRepository.Begun read) {
        Optional<LinkPaymentRepository.Begun> before = begun.byKey(link.id(), key);
        if (before.isPresent()) {
            if (!before.get().isSame(read)) {
                throw new ConflictException(
                        "This request's key was used for another payment. Nothing was taken; use a new key.");
            }
            return before.get();
        }
        checkOpen(link);
        return begun.find(begun.insert(key, read)).orElseThrow();
    }

    private LinkPaymentRepository.Begun read(PaymentLink link, PayLink typed) {
        List<Problem> problems = new ArrayList<>();
        Money amount = link.asks().amount().paid(typed.amount(), typed.currency(), problems);
        String name = Texts.name("name", typed.name(), 120, true, problems);
        String email = Texts.email("email", typed.email(), true, problems);
        Map<String, String> filled = typed.answers() == null ? Map.of() : typed.answers();
        List<PaymentLink.FilledIn> answers = new ArrayList<>();
        for (PaymentLink.LinkField f : link.fields()) {
            String text = Texts.text("answers." + f.label(), filled.get(f.label()), 500, f.needed(), problems);
            if (!text.isEmpty()) {
                answers.add(new PaymentLink.FilledIn(f.label(), text));
            }
        }
        if (!link.rules().terms().isEmpty() && !typed.agreed()) {
            problems.add(new Problem("agreed", "false", "accept the conditions, or do not pay"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new LinkPaymentRepository.Begun(
                0,
                link.id(),
                RandomText.of(BYTES),
                link.rules().clientId(),
                new Payer(name, email),
                answers,
                link.rules().terms(),
                link.title(),
                amount,
                amount == null ? null : Money.zero(amount.getCurrencyUnit()),
                clock.today(),
                null);
    }
}
