package quill.server.documents;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.document.TypedDraft;
import quill.core.money.DecimalMark;
import quill.core.schedule.ScheduleEditing;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;
import quill.server.common.BusinessClock;

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

    /** A change. @param place from 0 @param share for several @param thousandths where the division stands */
    record Edit(TypedDraft draft, Kind kind, int place, String share, int thousandths) {}

    /** What it becomes. @param installments none where they cannot be reckoned */
    record Edited(List<TypedTerm> schedule, List<Reckoning.ReckonedInstallment> installments) {}

    Edited edit(Edit edit) {
        LocalDate today = clock.today();
        DraftReckoner.Reckoned now = reckoner.reckon(edit.draft(), today);
        Money due = now.totals() == null || !now.totals().due().isPositive()
                ? Money.ofMajor(now.read().currency(), DRAWN_OF)
                : now.totals().due();
        List<TypedTerm> typed = edit.draft().plain().schedule();
        ScheduleEditing editing = new ScheduleEditing(typed.isEmpty() ? List.of(TypedTerm.WHOLE) : typed, due, today);
        List<TypedTerm> then = switch (edit.kind()) {
            case ADD -> editing.add();
            case EQUAL -> editing.equal();
            case SEVERAL -> editing.several(edit.place(), edit.share());
            case DIVIDE -> editing.divide(edit.place(), edit.thousandths());
        };
        DecimalMark mark = DecimalMark.of(edit.draft().mark());
        return new Edited(
                then.stream()
                        .map(t -> new TypedTerm(t.deposit(), mark.typed(t.share()), t.days()))
                        .toList(),
                now.totals() == null ? List.of() : made(then, due, today));
    }

    private static List<Reckoning.ReckonedInstallment> made(List<TypedTerm> typed, Money due, LocalDate today) {
        List<Problem> problems = new ArrayList<>();
        List<Term> terms = Term.readAll(typed, due.getCurrencyUnit(), today, problems);
        return problems.isEmpty()
                ? ScheduleMaking.make(due, today, terms).stream()
                        .map(i -> DraftReckoner.Reckoned.installment(i, due))
                        .toList()
                : List.of();
    }
}
