package quill.server.cardorders;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.pay.WayToPay;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.payments.Payer;
import quill.server.ways.WaysService;

/** Orders of payment links: each for whoever pays, for no document and no debt. */
@Service
public class LinkOrders {
    private static final int MOST_UNENDED = 500;
    /** As long as a link that is paid once waits for whoever is paying it. */
    private static final int MINUTES_FOR_ONE = 10;

    private final OrderRepository repository;
    private final LinkOrderRepository linked;
    private final CardOrders orders;
    private final OrderViews views;
    private final WaysService ways;
    private final BusinessClock clock;

    LinkOrders(
            OrderRepository repository,
            LinkOrderRepository linked,
            CardOrders orders,
            OrderViews views,
            WaysService ways,
            BusinessClock clock) {
        this.repository = repository;
        this.linked = linked;
        this.orders = orders;
        this.views = views;
        this.ways = ways;
        this.clock = clock;
    }

    /**
     * What somebody is about to pay.
     *
     * @param client null where the link is for nobody named
     * @param how whether a card's money is only held; with a tip, and what is asked for paying by card
     */
    public record ToPay(long linkPayment, Money amount, ClientId client, Payer payer, HowPaid how) {}

    /** The ways in which a sum is taken on the card company's page now. @param test whether on trial */
    public record Taken(Set<WayToPay> ways, boolean test) {}

    /** How a sum is taken through a link; empty where it is not. */
    public Optional<Taken> takes(Money sum, ClientId client, boolean hold) {
        return taking(sum, client, hold).map(t -> new Taken(t.ways(), t.by().isTest()));
    }

    private Optional<WaysService.Taking> taking(Money sum, ClientId client, boolean hold) {
        return ways.taking(sum, client, null, hold);
    }

    /**
     * The order of what somebody is about to pay: the one that stands, or a new one. Within the caller's transaction.
     *
     * @return its id
     * @throws RefusedException naming {@code amount} where so much is not taken
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public long want(long link, ToPay p) {
        WaysService.Taking taking = taking(p.amount(), p.client(), p.how().hold())
                .flatMap(t -> t.only(p.how().only()))
                .orElseThrow(() -> new RefusedException(
                        "amount",
                        Shown.money(p.amount()),
                        "so much is not taken by card here; ask whoever sent the link"));
        OrderRepository.At at =
                new OrderRepository.At(taking.by().id(), taking.by().isTest());
        Money sum = p.amount().plus(p.how().onTop(p.amount().getCurrencyUnit()).sum());
        for (Order live : linked.of(List.of(p.linkPayment()))) {
            if (!OrderState.LIVE.contains(live.state())) {
                continue;
            }
            if (Wanting.isFor(live, at, sum, taking.ways(), p.how())) {
                return live.id();
            }
            repository.move(live.id(), OrderState.WITHDRAWING, OrderState.LIVE);
        }
        if (linked.countLive(link) >= MOST_UNENDED) {
            throw new ConflictException(
                    "Too many payments were begun on this page. Nothing was taken; try again in some minutes.");
        }
        long id = repository.insert(
                "quill-" + UUID.randomUUID(),
                at,
                new OrderRepository.Whose(null, p.client(), link, p.linkPayment()),
                Map.of(),
                sum,
                taking.ways(),
                p.how(),
                clock.instant());
        repository.payer(id, p.payer());
        return id;
    }

    /** @return the address of the processor's page for an order @param title what is paid */
    public String payAt(long orderId, String title) {
        return orders.payAt(repository.find(orderId).orElseThrow(), title);
    }

    /**
     * Of a link that is paid once: whoever else is about to pay it. Within the caller's transaction.
     *
     * @param besides what was begun by whoever asks
     * @return orders that have been left for so long that they make way
     * @throws ConflictException where it is paid, or where somebody is paying it just now
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public List<Long> inTheWay(long link, long besides) {
        if (linked.brings(link)) {
            throw new ConflictException("This has been paid already. Nothing more was taken.");
        }
        List<Order> others = linked.standingOf(link).stream()
                .filter(o -> !o.at().test() || OrderState.LIVE.contains(o.state()))
                .filter(o -> o.linkPayment() != besides)
                .toList();
        if (others.stream().anyMatch(o -> !repository.isOlder(o.id(), MINUTES_FOR_ONE))) {
            throw new ConflictException(
                    "Somebody else is paying this just now, and it can be paid once. If they do not,"
                            + " it can be paid again in " + MINUTES_FOR_ONE + " minutes. Nothing was taken.");
        }
        return others.stream().map(Order::id).toList();
    }

    /** Withdraws orders at the processor, now. @throws ConflictException where one of them cannot be: it is being paid, or nobody answers */
    public void makeWay(List<Long> orderIds) {
        orders.withdrawNow(orderIds);
    }

    /** Withdraws what can still be paid of a link, as its business no longer takes it. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void closed(long link) {
        linked.standingOf(link).forEach(o -> repository.move(o.id(), OrderState.WITHDRAWING, OrderState.LIVE));
    }

    /** Asks the processor about what was begun on a page, now. @return whether it answered */
    public boolean askNow(long linkPayment) {
        boolean answered = true;
        for (Order o : linked.of(List.of(linkPayment))) {
            if (OrderState.UNENDED.contains(o.state())) {
                answered &= orders.settleQuietly(o);
            }
        }
        return answered;
    }

    /** The orders of what was begun on pages of links, latest first. */
    @Transactional(readOnly = true)
    public List<OrderViews.Seen> of(Collection<Long> linkPayments) {
        return views.seen(linked.of(linkPayments));
    }

    /** How often a link was paid, and what came. */
    public record Came(int times, Money sum) {}

    /** Of every link that was paid, before anything went back. */
    @Transactional(readOnly = true)
    public Map<Long, Came> came() {
        return linked.came();
    }

    /** Whether a link that is paid once has been: something came, or comes. */
    @Transactional(readOnly = true)
    public boolean isPaid(long link) {
        return linked.brings(link);
    }
}
