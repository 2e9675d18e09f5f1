package quill.server.timeline;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.audit.Happenings.About.Kind;
import quill.server.audit.Happenings.Happening;
import quill.server.chasing.Chasing;
import quill.server.chasing.FeeView;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Message;
import quill.server.dispatch.MessageKind;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.LateFees;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** An issued invoice in one line of time: what will happen, soonest first, then what has happened, newest first. */
@Service
public class Timeline {
    private final InvoicesService invoices;
    private final Chasing chasing;
    private final Correspondence correspondence;
    private final Payments payments;
    private final LateFees fees;
    private final Happenings happenings;
    private final Coming coming;

    Timeline(
            InvoicesService invoices,
            Chasing chasing,
            Correspondence correspondence,
            Payments payments,
            LateFees fees,
            Happenings happenings,
            Coming coming) {
        this.invoices = invoices;
        this.chasing = chasing;
        this.correspondence = correspondence;
        this.payments = payments;
        this.fees = fees;
        this.happenings = happenings;
        this.coming = coming;
    }

    /**
     * Something that has happened.
     *
     * @param who who did it; empty where nobody did
     * @param letter that it tells of, with its act; null where it tells of none, as with the two that follow
     */
    public record TimelineEntry(
            String key,
            LocalDate on,
            String what,
            String who,
            @Schema(nullable = true) Message letter,
            @Schema(nullable = true) Payment payment,
            @Schema(nullable = true) FeeView fee) {}

    /** @param neverSent whether no letter has it, or had it and was not called back */
    public record TimelineView(
            List<Coming.ToCome> toCome,
            @Schema(nullable = true) LocalDate mutedUntil,
            boolean neverSent,
            List<TimelineEntry> past) {}

    /** Of one invoice. @throws quill.server.common.NotFoundException if there is none of that id */
    public TimelineView of(DocumentId invoiceId) {
        Document invoice = invoices.invoice(invoiceId);
        List<Message> letters = correspondence.ofInvoice(invoiceId);
        boolean sent = letters.stream().anyMatch(m -> m.kind() == MessageKind.INVOICE && !m.calledBack());
        return new TimelineView(
                invoice.isDraft() ? List.of() : coming.of(invoice),
                chasing.mutedUntil(invoiceId).orElse(null),
                !sent,
                past(invoiceId, letters));
    }

    /** What was noted, with what it tells of; and letters, payments and fees of which nothing is noted. */
    private List<TimelineEntry> past(DocumentId invoiceId, List<Message> letters) {
        Map<Long, Message> letter = byId(letters, Message::id);
        Map<Long, Payment> payment = byId(payments.ofInvoice(invoiceId), Payment::id);
        Map<Long, FeeView> fee =
                byId(fees.ofInvoice(invoiceId).stream().map(FeeView::of).toList(), FeeView::id);
        Set<Happenings.About> told = new HashSet<>();
        List<TimelineEntry> entries = new ArrayList<>();
        for (Happening h : happenings.ofInvoice(invoiceId)) {
            Happenings.About about = h.about();
            boolean again = about != null && !told.add(about);
            if (again && about.kind() == Kind.LETTER) {
                continue; // What became of a letter says that it was written.
            }
            entries.add(new TimelineEntry(
                    "h" + h.id(),
                    h.on(),
                    h.what(),
                    h.who().isProduct() ? "" : h.who().words(),
                    about(about, Kind.LETTER, letter),
                    about(about, Kind.PAYMENT, payment),
                    about(about, Kind.FEE, fee)));
        }
        letter.values().stream()
                .filter(m -> told.add(Happenings.About.letter(m.id())))
                .forEach(m -> entries.add(new TimelineEntry("l" + m.id(), m.madeOn(), m.subject(), "", m, null, null)));
        payment.values().stream()
                .filter(p -> told.add(Happenings.About.payment(p.id())))
                .forEach(p ->
                        entries.add(new TimelineEntry("p" + p.id(), p.bookedOn(), received(p), "", null, p, null)));
        fee.values().stream()
                .filter(f -> told.add(Happenings.About.fee(f.id())))
                .forEach(f ->
                        entries.add(new TimelineEntry("f" + f.id(), f.chargedOn(), "Late fee", "", null, null, f)));
        entries.sort(Comparator.comparing(TimelineEntry::on).reversed());
        return entries;
    }

    private static String received(Payment p) {
        return Amounts.grouped(p.amount().money()) + " received " + p.words();
    }

    private static <T> T about(Happenings.About about, Kind kind, Map<Long, T> some) {
        return about == null || about.kind() != kind ? null : some.get(about.id());
    }

    private static <T> Map<Long, T> byId(List<T> some, Function<T, Long> id) {
        return some.stream().collect(Collectors.toMap(id, Function.identity()));
    }
}
