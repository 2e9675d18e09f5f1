package quill.server.chasing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.acts.ActsToCome;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderStep;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;

/** When each step of the plan that holds for a document goes: of one that is issued, and of a draft as if it were today. */
@Service
public class PlanPictures {
    private final NamedPlans named;
    private final OwedByClients owing;
    private final InvoicesService invoices;
    private final Documents documents;
    private final BusinessClock clock;

    PlanPictures(
            NamedPlans named, OwedByClients owing, InvoicesService invoices, Documents documents, BusinessClock clock) {
        this.named = named;
        this.owing = owing;
        this.invoices = invoices;
        this.documents = documents;
        this.clock = clock;
    }

    /** A step on its day. @param words such as 3 days after, firm */
    public record PlannedStep(
            LocalDate on,
            ReminderStep.Tone tone,
            Channel way,
            boolean copy,
            ReminderPlan.StepState state,
            String words) {}

    /** An installment with its steps. @param open what is open of it; of a draft all */
    public record PlannedInstallment(
            @Schema(nullable = true) LocalDate dueOn, Amount open, List<PlannedStep> steps) {}

    /**
     * The plan of a document, drawn on its own days.
     *
     * @param choice the document's own
     * @param called the plan that holds, whoever chose it
     * @param on whether reminders go by themselves at all
     */
    public record PlanPicture(
            PlanChoice choice,
            String called,
            boolean on,
            @Schema(nullable = true) LocalDate mutedUntil,
            List<PlannedInstallment> installments) {}

    /** Draws it. */
    @Transactional(readOnly = true, isolation = Isolation.SERIALIZABLE)
    public PlanPicture of(DocumentId id) {
        Document document = invoices.invoice(id);
        ReminderPlan plan = named.holdingFor(document);
        List<ActsToCome.Debt> debts = document.isDraft()
                ? List.of()
                : owing.of(List.of(document.clientId())).getOrDefault(document.clientId(), List.of()).stream()
                        .filter(d -> d.open().document().equals(id) && d.feeOf() == 0)
                        .toList();
        return new PlanPicture(
                named.ofDocument(id),
                named.calledFor(document),
                plan.on(),
                debts.stream()
                        .map(ActsToCome.Debt::mutedUntil)
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null),
                document.isDraft()
                        ? draft(document, plan)
                        : debts.stream()
                                .filter(d -> d.open().open().isPositive())
                                .map(d -> new PlannedInstallment(
                                        d.open().dueOn(),
                                        Amount.of(d.open().open()),
                                        d.open().dueOn() == null
                                                ? List.of()
                                                : steps(plan, d.open().dueOn(), d.issuedOn(), d.usedThrough())))
                                .toList());
    }

    private List<PlannedInstallment> draft(Document document, ReminderPlan plan) {
        return documents.reckon(documents.typed(document)).installments().stream()
                .map(i -> new PlannedInstallment(
                        i.dueOn(),
                        i.amount(),
                        i.dueOn() == null ? List.of() : steps(plan, i.dueOn(), clock.today(), null)))
                .toList();
    }

    private static List<PlannedStep> steps(ReminderPlan plan, LocalDate dueOn, LocalDate issuedOn, Integer used) {
        return plan.days(dueOn, issuedOn, used).stream()
                .map(s -> new PlannedStep(
                        s.on(),
                        s.step().tone(),
                        s.step().way(),
                        s.step().copy(),
                        s.state(),
                        (s.step().words() + ", " + s.step().tone().words()
                                        + (s.step().way() == Channel.MAIL
                                                ? ""
                                                : ", by " + s.step().way().words()))
                                .toLowerCase(Locale.UK)))
                .toList();
    }
}
