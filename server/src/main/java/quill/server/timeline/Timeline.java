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
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.audit.Happenings.About.Kind;
import quill.server.audit.Happenings.Happening;
import quill.server.chasing.ActView;
import quill.server.chasing.Chasing;
import quill.server.chasing.FeeView;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.dailyrun.ActViews;
import quill.server.debts.Debts;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Message;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.latefees.LateFees;
import quill.server.payments.Payment;
import quill.server.payments.PaymentsService;

/** An issued invoice in one line of time: what will happen, soonest first, then what has happened, newest first. */
@Service
public class Timeline {
    private static final int DAYS_AHEAD = 60;
    private static final int MOST_ACTS = 3;
    private static final int MOST_DUES = 12;
    private final InvoicesService invoices;
    private final Debts debts;
    private final ActViews acts;
    private final Chasing chasing;
    private final DispatchService dispatch;
    private final PaymentsService payments;
    private final LateFees fees;
    private final Happenings happenings;
    private final BusinessClock clock;

    Timeline(
            InvoicesService invoices,
            Debts debts,
            ActViews acts,
            Chasing chasing,
            DispatchService dispatch,
            PaymentsService payments,
            LateFees fees,
            Happenings happenings,
            BusinessClock clock) {
        this.invoices = invoices;
        this.debts = debts;
        this.acts = acts;
        this.chasing = chasing;
        this.dispatch = dispatch;
        this.payments = payments;
        this.fees = fees;
        this.happenings = happenings;
        this.clock = clock;
    }

    /** Something to come. @param act what is done by itself; null where an installment falls due */
    public record ToCome(
            LocalDate on,
            String what,
            Amount amount,
            @Schema(nullable = true) ActView act) {}

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
            List<ToCome> toCome,
            @Schema(nullable = true) LocalDate mutedUntil,
            boolean neverSent,
            List<TimelineEntry> past) {}

    /** Of one invoice. @throws quill.server.common.NotFoundException if there is none of that id */
    public TimelineView of(long invoiceId) {
        Invoice invoice = invoices.invoice(invoiceId);
        List<Message> letters = dispatch.ofInvoice(invoiceId);
        boolean sent = letters.stream().anyMatch(m -> "invoice".equals(m.kind()) && !m.calledBack());
        return new TimelineView(
                invoice.isDraft() ? List.of() : toCome(invoice),
                chasing.mutedUntil(invoiceId).orElse(null),
                !sent,
                past(invoiceId, letters));
    }

    private List<ToCome> toCome(Invoice invoice) {
        LocalDate today = clock.today();
        Stream<ToCome> byItself = acts.ofInvoice(invoice.clientId(), invoice.id(), today.plusDays(DAYS_AHEAD)).stream()
                .limit(MOST_ACTS)
                .map(a -> new ToCome(a.on(), a.what(), a.amount(), a));
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), today);
        boolean one = parts.stream().filter(p -> !p.fee()).count() == 1;
        Stream<ToCome> dues = parts.stream()
                .filter(p -> p.open().money().isPositive() && !p.dueOn().isBefore(today))
                .limit(MOST_DUES)
                .map(p -> new ToCome(p.dueOn(), name(p, one) + " falls due", p.open(), null));
        return Stream.concat(byItself, dues)
                .sorted(Comparator.comparing(ToCome::on))
                .toList();
    }

    private static String name(Measure.Part part, boolean one) {
        if (part.fee()) {
            return "The late fee";
        }
        return part.deposit() ? "The deposit" : one ? "It" : "Installment " + part.position();
    }

    /** What was noted, with what it tells of; and letters, payments and fees of which nothing is noted. */
    private List<TimelineEntry> past(long invoiceId, List<Message> letters) {
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
                    Happenings.BY_ITSELF.equals(h.who()) ? "" : h.who(),
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
