package quill.server.paylinks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.cardorders.LinkOrders;
import quill.server.cardorders.OrderState;
import quill.server.cardorders.OrderViews;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** Payment links as their business sees them. */
@Service
@Transactional(readOnly = true)
public class LinkViews {
    private static final int MOST = 200;
    private final PaymentLinks links;
    private final LinkPaymentRepository begun;
    private final LinkOrders orders;
    private final Payments payments;
    private final Documents documents;
    private final ClientsService clients;

    LinkViews(
            PaymentLinks links,
            LinkPaymentRepository begun,
            LinkOrders orders,
            Payments payments,
            Documents documents,
            ClientsService clients) {
        this.links = links;
        this.begun = begun;
        this.orders = orders;
        this.payments = payments;
        this.documents = documents;
        this.clients = clients;
    }

    /** A row of the index. @param came in all, before anything went back */
    record LinkRow(
            long id,
            String title,
            PaymentLink.LinkAsks asks,
            PaymentLink.State state,
            String words,
            int times,
            Amount came) {}

    /** Links of one state. */
    record LinkGroup(PaymentLink.State state, String title, List<LinkRow> rows) {}

    /**
     * Something that was paid through a link, or is coming.
     *
     * @param key of its record in Money in
     * @param how it came, and what is special about it
     */
    record PaidByLink(
            String key,
            ClientId clientId,
            String name,
            Amount amount,
            LocalDate on,
            String how,
            List<PaymentLink.FilledIn> answers,
            @Schema(nullable = true) DocumentId invoiceId,
            String invoiceNumber) {}

    /**
     * A link, whole.
     *
     * @param page its address
     * @param code the same as a square code, an image
     * @param button to set into a page of one's own
     */
    record LinkRecord(
            PaymentLink link,
            PaymentLink.State state,
            String words,
            String clientName,
            String page,
            String code,
            String button,
            int times,
            Amount came,
            List<PaidByLink> paid) {}

    /** Where something that came through a link came from. @param shown whether it is one of the business's links; else a card was at hand */
    public record FromLink(
            long id,
            String title,
            List<PaymentLink.FilledIn> answers,
            String terms,
            boolean shown,
            @Schema(nullable = true) DocumentId invoiceId,
            String invoiceNumber) {}

    List<LinkGroup> groups() {
        Map<Long, LinkOrders.Came> came = orders.came();
        List<LinkRow> rows = links.all().stream().map(l -> row(l, came)).toList();
        List<LinkGroup> groups = new ArrayList<>();
        for (PaymentLink.State state : PaymentLink.State.values()) {
            List<LinkRow> of = rows.stream().filter(r -> r.state() == state).toList();
            if (!of.isEmpty()) {
                groups.add(new LinkGroup(state, state.words(), of));
            }
        }
        return groups;
    }

    private LinkRow row(PaymentLink l, Map<Long, LinkOrders.Came> came) {
        LinkOrders.Came of = of(l, came);
        PaymentLink.State state = links.state(l);
        return new LinkRow(l.id(), l.title(), l.asks(), state, words(l, of), of.times(), Amount.of(of.sum()));
    }

    private static LinkOrders.Came of(PaymentLink l, Map<Long, LinkOrders.Came> came) {
        CurrencyUnit currency = l.asks().least().money().getCurrencyUnit();
        LinkOrders.Came of = came.get(l.id());
        return of == null ? new LinkOrders.Came(0, Money.zero(currency)) : of;
    }

    private static String words(PaymentLink l, LinkOrders.Came came) {
        List<String> words = new ArrayList<>();
        words.add(
                switch (came.times()) {
                    case 0 -> "not paid yet";
                    case 1 -> "paid once, " + Shown.money(came.sum());
                    default -> "paid " + came.times() + " times, " + Shown.money(came.sum());
                });
        if (l.rules().endsOn() != null) {
            words.add("until " + Texts.day(l.rules().endsOn()));
        }
        return String.join(" · ", words);
    }

    LinkRecord record(long id) {
        PaymentLink l = links.find(id);
        LinkOrders.Came came = of(l, orders.came());
        String page = links.page(l);
        return new LinkRecord(
                l,
                links.state(l),
                words(l, came),
                l.rules().clientId() == null
                        ? ""
                        : clients.client(l.rules().clientId()).name(),
                page,
                LinkCodes.inline(page),
                LinkCodes.button(l, page),
                came.times(),
                Amount.of(came.sum()),
                paid(id));
    }

    private List<PaidByLink> paid(long id) {
        Map<Long, LinkPaymentRepository.Begun> all =
                begun.of(id).stream().collect(Collectors.toMap(LinkPaymentRepository.Begun::id, Function.identity()));
        return orders.of(all.keySet()).stream()
                .filter(o -> o.clientId() != null && o.state() != OrderState.WITHDRAWN)
                .limit(MOST)
                .map(o -> paid(o, all.get(o.linkPayment())))
                .toList();
    }

    private PaidByLink paid(OrderViews.Seen o, LinkPaymentRepository.Begun b) {
        Optional<Payment> p = o.state() == OrderState.PAID ? payments.byKey(o.key()) : Optional.empty();
        return new PaidByLink(
                p.map(x -> "payment-" + x.id()).orElse("order-" + o.id()),
                o.clientId(),
                b.payer().name(),
                p.map(Payment::amount).orElse(Amount.of(o.amount())),
                p.map(Payment::valueOn).orElse(o.begunOn()),
                p.map(LinkViews::how).orElse(coming(o)),
                b.answers(),
                b.invoiceId(),
                number(b.invoiceId()));
    }

    private static String how(Payment p) {
        Money back = p.back().amount().money();
        return p.words() + (back.isPositive() ? "; " + Shown.money(back) + " went back" : "");
    }

    private static String coming(OrderViews.Seen o) {
        return switch (o.state()) {
            case UNDERWAY -> "bank debit, certain on " + Texts.day(o.brings().until());
            case HELD -> "held until " + Texts.day(o.brings().until());
            default -> "the card company is asked";
        };
    }

    private String number(DocumentId id) {
        return id == null
                ? ""
                : documents
                        .find(id)
                        .map(d -> d.isDraft() ? "draft" : d.number())
                        .orElse("");
    }

    /** Where what was begun on a page came from. */
    public FromLink from(long linkPayment) {
        LinkPaymentRepository.Begun b = begun.find(linkPayment).orElseThrow();
        Optional<Document> invoice = b.invoiceId() == null ? Optional.empty() : documents.find(b.invoiceId());
        return new FromLink(
                b.linkId(),
                b.title(),
                b.answers(),
                b.terms(),
                links.find(b.linkId()).rules().shown(),
                invoice.map(Document::id).orElse(null),
                number(b.invoiceId()));
    }

    /** Who began something on a page, as typed. */
    public String payerOf(long linkPayment) {
        return begun.find(linkPayment).orElseThrow().payer().name();
    }
}
