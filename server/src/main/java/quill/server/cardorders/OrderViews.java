package quill.server.cardorders;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.common.BusinessClock;
import quill.server.common.NotFoundException;

/** Orders at processors, as whoever looks at what comes in sees them. */
@Service
@Transactional(readOnly = true)
public class OrderViews {
    private final OrderRepository repository;
    private final HeldRepository rows;
    private final BusinessClock clock;

    OrderViews(OrderRepository repository, HeldRepository rows, BusinessClock clock) {
        this.rows = rows;
        this.repository = repository;
        this.clock = clock;
    }

    /**
     * An order.
     *
     * @param declined the latest refusal, or empty
     * @param key under which its payment is booked
     * @param clientId null as long as nobody paid through a link
     * @param invoiceId null for a payment link
     * @param parts what it brings for which debt; none for a quote, or a payment link
     * @param linkPayment what was begun on the page of a payment link; null for a document
     */
    public record Seen(
            long id,
            String key,
            ClientId clientId,
            DocumentId invoiceId,
            Money amount,
            OrderState state,
            String declined,
            Brings brings,
            LocalDate begunOn,
            There there,
            Map<Long, Money> parts,
            Long linkPayment) {}

    /**
     * What brings its money.
     *
     * @param with a card or a bank account, in words; empty before anybody paid
     * @param until when a bank debit is certain, or the last day on which what is held can be taken; null for others
     * @param holds whether a card's money is only held
     */
    public record Brings(String with, LocalDate until, boolean holds) {}

    /** Where it is. @param payAt the processor's own page of it; null where it never answered @param number the processor's own */
    public record There(long processor, String payAt, String number, boolean test) {}

    /** @throws NotFoundException where there is none */
    public Seen of(long id) {
        return repository
                .find(id)
                .map(this::seen)
                .orElseThrow(() -> new NotFoundException("There is no order " + id + "."));
    }

    /** The one of a key, under which its payment is booked; empty for one that is not ours. */
    public Optional<Seen> ofKey(String key) {
        return repository.byKey(key).map(this::seen);
    }

    /** Bank debits that are on their way, of one document, or of all where it is null; the latest first. */
    public List<Seen> underway(DocumentId invoiceId) {
        return seen(repository.in(OrderState.UNDERWAY, invoiceId));
    }

    /** What is held on cards, of one document, or of all where it is null; the latest first. */
    public List<Seen> held(DocumentId invoiceId) {
        return seen(repository.in(OrderState.HELD, invoiceId));
    }

    /** What comes of one document by itself: bank debits that are on their way, then what is held on cards. */
    public List<Seen> coming(DocumentId documentId) {
        return Stream.concat(underway(documentId).stream(), held(documentId).stream())
                .toList();
    }

    /** Those that were begun on a day or later and brought nothing, newest first. */
    public List<Seen> unpaid(LocalDate since, int most) {
        return seen(rows.unpaid(since.atStartOfDay(clock.getZone()).toInstant(), most));
    }

    List<Seen> seen(List<Order> orders) {
        return orders.stream().map(this::seen).toList();
    }

    private Seen seen(Order o) {
        Instant begun = o.means().openedAt();
        return new Seen(
                o.id(),
                o.key(),
                o.clientId(),
                o.invoiceId(),
                o.amount(),
                o.state(),
                o.declined() == null ? "" : o.declined(),
                new Brings(o.means().with(), o.means().expectedOn(), o.means().holds()),
                begun == null ? clock.today() : begun.atZone(clock.getZone()).toLocalDate(),
                new There(o.at().processor(), o.payAt(), o.orderId() == null ? "" : o.orderId(), o.at().test()),
                o.parts(),
                o.linkPayment());
    }
}
