package quill.core.schedule;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.RefusedException;
import quill.core.money.Amounts;

/**
 * Rearranges what is still to come of an issued document. What was paid, credited or written off never moves: an
 * installment is what was done on it already and its new part of what is open. Installments are taken in their order, so
 * that a late fee's cap goes on; what is left over of them asks for nothing any more.
 */
public final class Rearranging {
    private Rearranging() {}

    /**
     * An installment as it stands.
     *
     * @param amount with what was done on it
     * @param open above zero
     * @param dueOn null where it has none
     * @param waits for what it waits then; null where it has a day
     */
    public record Standing(long debt, Money amount, Money open, LocalDate dueOn, Due waits) {
        /** One that has a day. */
        public Standing(long debt, Money amount, Money open, LocalDate dueOn) {
            this(debt, amount, open, dueOn, null);
        }

        /** What is open of it as it is agreed now, to begin from; a day that has passed is left to be typed. */
        public TypedTerm typed(LocalDate today) {
            String when = dueOn == null ? waits.typed() : dueOn.isBefore(today) ? "" : dueOn.toString();
            return new TypedTerm(false, Amounts.plain(open), when);
        }

        private Money done() {
            return amount.minus(open);
        }
    }

    /** What becomes of the installments. */
    public sealed interface Change {
        /** One has another amount or day. @param amount with what was done on it */
        record Kept(long debt, Money amount, Installment then) implements Change {}

        /** One more. */
        record Added(Installment then) implements Change {}

        /** One asks for no more than was done on it. @param amount zero where nothing was: it is replaced whole */
        record Ended(long debt, Money amount) implements Change {}
    }

    /**
     * The changes; an installment that stays as it is has none.
     *
     * @param open installments with anything open, in their order; a deposit is not among them
     * @param terms how their open sum is to be paid
     * @param today no part is due before it
     * @throws RefusedException naming {@code schedule}, where nothing is open, nothing changes, or the terms do not hold
     */
    public static List<Change> of(List<Standing> open, List<Term> terms, LocalDate today) {
        if (open.isEmpty()) {
            throw new RefusedException("schedule", "", "no installment is open, so there is nothing to rearrange");
        }
        if (terms.stream().anyMatch(Term::deposit)) {
            throw new RefusedException("schedule[0].deposit", "true", "what is still to come has no deposit");
        }
        Money sum = sum(open);
        List<Installment> then = ScheduleMaking.make(sum, today, terms);
        List<Change> changes = new ArrayList<>();
        for (int i = 0; i < Math.max(open.size(), then.size()); i++) {
            if (i >= open.size()) {
                changes.add(new Change.Added(then.get(i)));
            } else if (i >= then.size()) {
                changes.add(new Change.Ended(open.get(i).debt(), open.get(i).done()));
            } else if (!isSame(open.get(i), then.get(i))) {
                Money amount = open.get(i).done().plus(then.get(i).amount());
                changes.add(new Change.Kept(open.get(i).debt(), amount, then.get(i)));
            }
        }
        if (changes.isEmpty()) {
            throw new RefusedException("schedule", "", "is what is agreed already; nothing would change");
        }
        return changes;
    }

    /** What is open of them in all. */
    public static Money sum(List<Standing> open) {
        return Amounts.sum(
                open.get(0).open().getCurrencyUnit(),
                open.stream().map(Standing::open).toList());
    }

    private static boolean isSame(Standing now, Installment then) {
        boolean sameDay = now.dueOn() == null
                ? then.dueOn() == null && now.waits().equals(then.due())
                : now.dueOn().equals(then.dueOn());
        return sameDay && now.open().isEqual(then.amount());
    }
}
