package quill.server.timeline;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import quill.core.ledger.Standing;
import quill.server.chasing.ActView;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.dailyrun.ActViews;
import quill.server.debts.Debts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.MessageKind;
import quill.server.documents.Document;
import quill.server.invoices.Measure;

/** What is to come of an invoice: what is done by itself, and what falls due. */
@Component
class Coming {
    private static final int DAYS_AHEAD = 60;
    private static final int MOST_ACTS = 3;
    private static final int MOST_DUES = 12;

    private final ActViews acts;
    private final Debts debts;
    private final Correspondence correspondence;
    private final BusinessClock clock;

    Coming(ActViews acts, Debts debts, Correspondence correspondence, BusinessClock clock) {
        this.acts = acts;
        this.debts = debts;
        this.correspondence = correspondence;
        this.clock = clock;
    }

    /** Something to come. @param act what is done by itself; null where an installment falls due */
    public record ToCome(
            LocalDate on,
            String what,
            Amount amount,
            @Schema(nullable = true) ActView act) {}

    /** In the order of their days. */
    List<ToCome> of(Document invoice) {
        LocalDate today = clock.today();
        Stream<ToCome> byItself = acts.ofInvoice(invoice.clientId(), invoice.id(), today.plusDays(DAYS_AHEAD)).stream()
                .limit(MOST_ACTS)
                .map(a -> new ToCome(a.on(), a.about().what(), a.amount(), a));
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), today);
        boolean one = parts.stream().filter(p -> !p.fee()).count() == 1;
        Stream<ToCome> dues = parts.stream()
                .filter(p -> p.open().money().isPositive() && p.dueOn() != null && !Standing.isLate(p.dueOn(), today))
                .limit(MOST_DUES)
                .map(p -> new ToCome(p.dueOn(), name(p, one) + " falls due", p.open(), null));
        Stream<ToCome> letters = correspondence.ofInvoice(invoice.id()).stream()
                .filter(m -> m.leaves() != null && m.leaves().at() != null && m.kind() != MessageKind.COPY)
                .map(m -> new ToCome(
                        m.leaves().at().toLocalDate(),
                        "It goes to " + m.addresses().to() + " at "
                                + m.leaves().at().toLocalTime(),
                        Amount.ofMinor(invoice.currency(), invoice.openMinor()),
                        null));
        return Stream.concat(letters, Stream.concat(byItself, dues))
                .sorted(Comparator.comparing(ToCome::on))
                .toList();
    }

    private static String name(Measure.Part part, boolean one) {
        if (part.fee()) {
            return "The late fee";
        }
        return part.deposit() ? "The deposit" : one ? "It" : "Installment " + part.position();
    }
}
