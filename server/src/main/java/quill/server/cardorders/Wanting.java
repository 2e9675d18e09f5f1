package quill.server.cardorders;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.joda.money.Money;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.pay.WayToPay;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.invoices.Plans;
import quill.server.processor.CardProcessor;
import quill.server.processor.ProcessorMode;
import quill.server.processor.Processors;
import quill.server.requests.Requests;
import quill.server.savedmethods.SavedMethod;
import quill.server.ways.WaysService;

/** Orders as payers want them, and as long as what they are for is open. */
@Component
class Wanting {
    private static final int MOST_LIVE = 5;
    private static final int MOST_UNENDED = 15;

    private final OrderRepository repository;
    private final ClientsService clients;
    private final Debts debts;
    private final WaysService ways;
    private final Requests requests;
    private final Plans plans;
    private final Documents documents;
    private final BusinessClock clock;

    Wanting(
            OrderRepository repository,
            ClientsService clients,
            Debts debts,
            WaysService ways,
            Requests requests,
            Plans plans,
            Documents documents,
            BusinessClock clock) {
        this.repository = repository;
        this.clients = clients;
        this.debts = debts;
        this.ways = ways;
        this.requests = requests;
        this.plans = plans;
        this.documents = documents;
        this.clock = clock;
    }

    /** An order for these installments of an invoice, within the caller's transaction. @param shown what the payer saw */
    Order order(Document invoice, Set<Long> installments, Money shown, HowPaid how) {
        clients.lock(invoice.clientId());
        if (invoice.kind() == DocumentKind.QUOTE) {
            return deposit(invoice, shown, how);
        }
        plans.checkAccepted(invoice);
        if (installments.isEmpty()) {
            return other(invoice, shown, how);
        }
        List<StoredInstallment> asked = debts.of(invoice.id()).stream()
                .filter(i -> installments.contains(i.id()) && i.open().isPositive())
                .toList();
        if (asked.isEmpty()) {
            throw new ConflictException("That is paid already. Nothing more was taken.");
        }
        Money open = Amounts.sum(
                shown.getCurrencyUnit(),
                asked.stream().map(StoredInstallment::open).toList());
        if (!open.isEqual(shown)) {
            throw new ConflictException("What is open has changed: it is " + Amounts.grouped(open) + " now, not "
                    + Amounts.grouped(shown) + ". Nothing was taken. Look again before you pay.");
        }
        return order(
                invoice,
                asked.stream().collect(Collectors.toMap(StoredInstallment::id, StoredInstallment::open)),
                open,
                how);
    }

    /** Another amount than the installments that are open, where that is allowed; or all at once, with the discount off. */
    private Order other(Document invoice, Money shown, HowPaid how) {
        boolean early =
                !how.hold() && plans.early(invoice).filter(shown::isEqual).isPresent();
        if (!early && !plans.otherAmounts()) {
            throw new RefusedException(
                    "installments", "", "name what is to be paid; another amount is not taken on this page");
        }
        Map<Long, Money> parts = new LinkedHashMap<>();
        Money left = shown;
        Money open = Money.zero(shown.getCurrencyUnit());
        for (StoredInstallment i : debts.of(invoice.id())) {
            Money part = Amounts.min(left, i.open());
            open = open.plus(i.open());
            if (part.isPositive()) {
                if (i.deposit() && part.isLessThan(i.open())) {
                    throw new RefusedException(
                            "amount",
                            Amounts.plain(shown),
                            "the deposit is paid whole: at least " + Amounts.grouped(i.open()));
                }
                parts.put(i.id(), part);
                left = left.minus(part);
            }
        }
        if (left.isPositive() || parts.isEmpty()) {
            throw new RefusedException(
                    "amount",
                    Amounts.plain(shown),
                    open.isPositive()
                            ? "must be above zero and at most " + Amounts.grouped(open) + ", what is open"
                            : "nothing is open any more");
        }
        return order(invoice, parts, shown, how);
    }

    /** What is asked for on an accepted quote is paid whole; of what came in part, the rest. */
    private Order deposit(Document quote, Money shown, HowPaid how) {
        Money missing = requests.missing(documents.find(quote.id()).orElseThrow());
        if (!missing.isPositive()) {
            throw new ConflictException("Nothing is asked for on this quote any more. Nothing was taken.");
        }
        if (!missing.isEqual(shown)) {
            throw new ConflictException("A deposit is paid whole: it is " + Amounts.grouped(missing) + " now, not "
                    + Amounts.grouped(shown) + ". Nothing was taken. Look again before you pay.");
        }
        return order(quote, Map.of(), missing, how);
    }

    private Order order(Document invoice, Map<Long, Money> parts, Money open, HowPaid how) {
        WaysService.Taking taking = how.from() == null ? byPage(invoice, open, how) : from(invoice, open, how.from());
        Money sum = open.plus(how.onTop(open.getCurrencyUnit()).sum());
        OrderRepository.At at =
                new OrderRepository.At(taking.by().id(), taking.by().isTest());
        checkNothingUnderway(invoice, parts.keySet());
        // What was begun elsewhere, or on trial, is not paid beside it.
        List<Order> live = new ArrayList<>();
        for (Order one : repository.liveOf(invoice.id())) {
            if (one.at().equals(at)) {
                live.add(one);
            } else {
                repository.move(one.id(), OrderState.WITHDRAWING, OrderState.LIVE);
            }
        }
        for (Order one : live) {
            if (one.parts().equals(parts) && isFor(one, at, sum, taking.ways(), how)) {
                return one;
            }
        }
        makeRoom(invoice.id(), live);
        long id = repository.insert(
                "quill-" + UUID.randomUUID(),
                at,
                new OrderRepository.Whose(invoice.id(), invoice.clientId(), null, null),
                parts,
                sum,
                taking.ways(),
                how,
                clock.instant());
        return repository.find(id).orElseThrow();
    }

    /** How its own page takes it: at once, or held until the work is done. */
    HowPaid asItsPage(Document document) {
        return HowPaid.held(ways.holds(document.id()));
    }

    private WaysService.Taking byPage(Document invoice, Money open, HowPaid how) {
        return ways.taking(open, invoice.clientId(), invoice.id(), how.hold())
                .flatMap(t -> t.only(how.only()))
                .orElseThrow(() -> new RefusedException(
                        "way",
                        "card",
                        "a card is not taken for " + Shown.money(open) + "; the page names the other ways"));
    }

    /** From what is kept, as long as its processor takes money in that way. */
    private WaysService.Taking from(Document invoice, Money open, SavedMethod method) {
        WayToPay way = method.with().way();
        return ways.taking(open, invoice.clientId(), invoice.id())
                .filter(t -> t.by().id() == method.processor() && !t.by().isTest())
                .flatMap(t -> t.only(way))
                .orElseThrow(() -> new RefusedException(
                        "method",
                        method.with().words(),
                        Shown.money(open) + " is not taken " + way.words() + " just now; pay in another way"));
    }

    /** Whether an order is what somebody wants to pay now. */
    static boolean isFor(Order order, OrderRepository.At at, Money sum, Set<WayToPay> takes, HowPaid how) {
        return order.at().equals(at)
                && order.amount().isEqual(sum)
                && order.means().takes().equals(takes)
                && how.isOf(order);
    }

    /** Nobody pays a second time what a bank debit is bringing, or what is held. */
    private void checkNothingUnderway(Document document, Set<Long> debts) {
        Stream.of(OrderState.UNDERWAY, OrderState.HELD, OrderState.TAKING)
                .flatMap(state -> repository.in(state, document.id()).stream())
                .filter(o -> document.kind() == DocumentKind.QUOTE
                        || o.parts().keySet().stream().anyMatch(debts::contains))
                .findFirst()
                .ifPresent(o -> {
                    throw new ConflictException(
                            o.state() == OrderState.UNDERWAY
                                    ? "A bank debit of " + Shown.money(o.amount())
                                            + " is on its way for this already; it is certain on "
                                            + Texts.day(o.means().expectedOn()) + ". Nothing more was taken."
                                    : Shown.money(o.amount()) + " is held on a card for this already, until "
                                            + Texts.day(o.means().expectedOn()) + ". Nothing more was taken.");
                });
    }

    /** What the pay page shows, with whoever pays for the client. */
    CardProcessor.About about(Document invoice, String returnTo) {
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        return new CardProcessor.About(
                invoice.kind() == DocumentKind.QUOTE
                        ? "Deposit on quote " + invoice.number()
                        : "Invoice " + invoice.number(),
                returnTo,
                payer.name().isEmpty() ? client.name() : payer.name(),
                payer.email());
    }

    /** At most five can be paid at once through one link: the oldest makes room, unless too many are on their way out. */
    private void makeRoom(DocumentId invoiceId, List<Order> latestFirst) {
        if (repository.countUnended(invoiceId) >= MOST_UNENDED) {
            throw new ConflictException(
                    "Too many payments were begun on this page. Nothing was taken; try again in some minutes.");
        }
        for (int i = MOST_LIVE - 1; i < latestFirst.size(); i++) {
            repository.move(latestFirst.get(i).id(), OrderState.WITHDRAWING, OrderState.LIVE);
        }
    }

    /** A processor is switched off, or between trial and money: what was begun there the other way must not be paid. */
    @EventListener
    void switched(Processors.Switched to) {
        for (Order live : repository.liveAt(to.processor())) {
            if (to.mode() == ProcessorMode.OFF || live.at().test() != (to.mode() == ProcessorMode.TEST)) {
                repository.move(live.id(), OrderState.WITHDRAWING, OrderState.LIVE);
            }
        }
    }

    /** What was begun to be paid must not be taken any more where it is only to be held, nor the other way about. */
    @EventListener
    void holdChanged(WaysService.HoldChanged change) {
        repository
                .liveOf(change.document())
                .forEach(o -> repository.move(o.id(), OrderState.WITHDRAWING, OrderState.LIVE));
    }

    /** What is asked for on a quote changed, or came: an order for another sum must not be paid any more. */
    @EventListener
    void askedChanged(Requests.Changed change) {
        List<Order> live = repository.liveOf(change.quoteId());
        if (!live.isEmpty()) {
            Money missing = requests.missing(documents.find(change.quoteId()).orElseThrow());
            live.stream()
                    .filter(o -> !o.owed().isEqual(missing))
                    .forEach(o -> repository.move(o.id(), OrderState.WITHDRAWING, OrderState.LIVE));
        }
    }

    /** What is open on an invoice changed: an order for another sum must not be paid any more, and what is held for it is let go. */
    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        for (Order held : repository.in(OrderState.HELD, change.invoiceId())) {
            if (isTooMuch(held, change.invoiceId())) {
                repository.move(held.id(), OrderState.RELEASING, Set.of(OrderState.HELD));
            }
        }
        for (Order live : repository.liveOf(change.invoiceId())) {
            if (isTooMuch(live, change.invoiceId())) {
                repository.move(live.id(), OrderState.WITHDRAWING, OrderState.LIVE);
            }
        }
    }

    /** Whether an order would bring more for a debt than is open of it. */
    private boolean isTooMuch(Order order, DocumentId invoiceId) {
        Map<Long, Money> open =
                debts.of(invoiceId).stream().collect(Collectors.toMap(StoredInstallment::id, StoredInstallment::open));
        return order.parts().entrySet().stream()
                .anyMatch(p ->
                        !open.containsKey(p.getKey()) || open.get(p.getKey()).isLessThan(p.getValue()));
    }
}
