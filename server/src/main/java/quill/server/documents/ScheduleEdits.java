package quill.server.documents;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;
import quill.core.schedule.ScheduleEditing;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.TypedMark;

/** What becomes of a schedule that is being written, shown before it is taken. Stores nothing. */
@Component
class ScheduleEdits {
    /** What a schedule is drawn of while the draft cannot be reckoned. */
    private static final int DRAWN_OF = 1000;

    private final DraftReckoner reckoner;
    private final BusinessClock clock;

    ScheduleEdits(DraftReckoner reckoner, BusinessClock clock) {
        this.reckoner = reckoner;
        this.clock = clock;
    }

    /** What is done to it. */
    enum Kind {
        /** One more. */
        ADD,
        /** All equal but a deposit. */
        EQUAL,
        /** {@code 12x} or {@code 30/40/30} in the place of one. */
        SEVERAL,
        /** The division after one is moved. */
        DIVIDE
    }

    /**
     * A change.
     *
     * @param draft whose schedule it is; null where a sum is split that is no draft's
     * @param of that sum
     * @param schedule of that sum
     * @param place from 0
     * @param share for several
     * @param thousandths where the division stands
     */
    record Edit(
            @Schema(nullable = true) TypedDraft draft,
            @Schema(nullable = true) Amount of,
            @Schema(nullable = true) List<TypedTerm> schedule,
            Kind kind,
            int place,
            String share,
            int thousandths) {}

    /** What it becomes. @param installments none where they cannot be reckoned */
    record Edited(List<TypedTerm> schedule, List<Reckoning.ReckonedInstallment> installments) {}

    /** What is split, and how it is so far. @param real whether it is what the draft comes to */
    private record Split(Money due, List<TypedTerm> schedule, boolean real) {}

    Edited edit(Edit edit) {
        LocalDate today = clock.today();
        DecimalMark mark = edit.draft() == null
                ? TypedMark.current()
                : DecimalMark.of(edit.draft().mark());
        Split now = edit.draft() == null ? ofSum(edit, mark) : ofDraft(edit.draft(), today);
        ScheduleEditing editing = new ScheduleEditing(
                now.schedule().isEmpty() ? List.of(TypedTerm.WHOLE) : now.schedule(), now.due(), today);
        List<TypedTerm> then = switch (edit.kind()) {
            case ADD -> editing.add();
            case EQUAL -> editing.equal();
            case SEVERAL -> editing.several(edit.place(), edit.share());
            case DIVIDE -> editing.divide(edit.place(), edit.thousandths());
        };
        return new Edited(
                then.stream().map(t -> t.typed(mark)).toList(), now.real() ? made(then, now.due(), today) : List.of());
    }

    private static Split ofSum(Edit edit, DecimalMark mark) {
        if (edit.schedule().stream().anyMatch(Objects::isNull)) {
            throw new RefusedException("schedule", "", "has an installment that is nothing");
        }
        List<TypedTerm> plain = edit.schedule().stream().map(t -> t.plain(mark)).toList();
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = TypedNumber.currency("of.currency", edit.of().currency(), problems);
        Money due = currency == null
                ? null
                : TypedNumber.amount("of.amount", edit.of().amount(), currency, problems);
        if (due == null || !due.isPositive()) {
            problems.add(new Problem("of.amount", edit.of().amount(), "must be above zero"));
            throw new RefusedException(problems);
        }
        return new Split(due, plain, true);
    }

    private Split ofDraft(TypedDraft draft, LocalDate today) {
        DraftReckoner.Reckoned now = reckoner.reckon(draft, today);
        boolean real = now.totals() != null && now.totals().due().isPositive();
        Money due = real ? now.totals().due() : Money.ofMajor(now.read().currency(), DRAWN_OF);
        return new Split(due, draft.plain().schedule(), real);
    }

    private static List<Reckoning.ReckonedInstallment> made(List<TypedTerm> typed, Money due, LocalDate today) {
        List<Problem> problems = new ArrayList<>();
        List<Term> terms = Term.readAll(typed, due.getCurrencyUnit(), today, problems);
        if (!problems.isEmpty()) {
            return List.of();
        }
        try {
            return ScheduleMaking.make(due, today, terms).stream()
                    .map(i -> DraftReckoner.Reckoned.installment(i, due))
                    .toList();
        } catch (RefusedException e) {
            // What is wrong with it is told beside its fields once it stands on the sheet.
            return List.of();
        }
    }
}
