package quill.core.latefee;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import quill.core.TypedDate;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.tax.TaxTotal;

/**
 * A fee that is due to be charged on a day.
 *
 * @param sequence its number in the count of its due date; with the installment and the due date it is the fee's key
 * @param occasion the day it falls on by the policy; charged later where something stood in the way on that day
 * @param base what is overdue
 * @param fee what the policy comes to; counts towards the cap
 * @param amount what is asked for: the fee, and any tax that is added to it
 * @param taxes the taxes in the amount, none of them zero
 */
public record LateFee(
        int sequence, LocalDate occasion, Money base, Money fee, Money amount, List<TaxTotal> taxes, Why why) {
    /** Copies the list. */
    public LateFee {
        taxes = List.copyOf(taxes);
    }

    /**
     * An installment past its due date.
     *
     * @param first its first amount
     * @param base what is open of it, less what is in transit and covered by client credit
     * @param before fees charged on it so far
     */
    public record Overdue(Money first, LocalDate dueOn, boolean deposit, Money base, List<Charged> before) {}

    /**
     * A fee charged before.
     *
     * @param dueOn the due date whose count it belongs to
     * @param amount without tax that was added
     * @param waived waived ones use up their number and do not count towards the cap
     */
    public record Charged(LocalDate dueOn, int sequence, Money amount, boolean waived) {}

    /**
     * The fee to charge on a day, if any: of all that fell due and were not charged only the latest, since an
     * installment bears one fee a day at most. The last one is cut to the cap.
     */
    public static Optional<LateFee> on(LocalDate day, Overdue debt, LateFeePolicy policy) {
        int sequence = policy.latestOn(debt.dueOn(), day);
        if (policy.isNone()
                || sequence <= lastCharged(debt)
                || !debt.base().isPositive()
                || debt.base().isLessThan(policy.smallest())
                || (debt.deposit() && !policy.onDeposits())) {
            return Optional.empty();
        }
        List<String> steps = new ArrayList<>();
        Money amount = full(policy, debt.base(), steps);
        Money left = leftOfCap(debt, policy);
        if (left != null && left.isLessThan(amount)) {
            steps.add("cut to " + Amounts.grouped(left) + ", what the cap of "
                    + Amounts.grouped(policy.capOn(debt.first())) + " leaves");
            amount = left;
        }
        if (!amount.isPositive()) {
            return Optional.empty();
        }
        LocalDate occasion = policy.dayOf(debt.dueOn(), sequence);
        steps.add("due " + TypedDate.inWords(debt.dueOn())
                + (policy.grace() == 0 ? "" : ", " + policy.grace() + " days of grace")
                + (sequence == 1 ? ": first charged " : ": number " + sequence + " is charged ")
                + TypedDate.inWords(occasion));
        FeeTax.Taxed taxed = policy.tax().on(amount);
        taxed.taxes()
                .forEach(t -> steps.add((policy.tax().inside() ? "of which " : "plus ")
                        + t.tax().name() + ": " + String.join("; ", t.why().steps())));
        return Optional.of(new LateFee(
                sequence,
                occasion,
                debt.base(),
                amount,
                taxed.amount(),
                taxed.taxes(),
                new Why(policy.words(), steps)));
    }

    /** The next day on which a fee may fall due, whatever is open then; empty where none can follow. */
    public static Optional<LocalDate> nextDay(Overdue debt, LateFeePolicy policy) {
        int last = lastCharged(debt);
        Money left = leftOfCap(debt, policy);
        boolean over = policy.isNone()
                || (debt.deposit() && !policy.onDeposits())
                || (left != null && !left.isPositive())
                || (last > 0 && policy.repeat() instanceof LateFeePolicy.Repeat.Once);
        return over ? Optional.empty() : Optional.of(policy.dayOf(debt.dueOn(), last + 1));
    }

    private static int lastCharged(Overdue debt) {
        return debt.before().stream()
                .filter(c -> c.dueOn().equals(debt.dueOn()))
                .mapToInt(Charged::sequence)
                .max()
                .orElse(0);
    }

    private static Money full(LateFeePolicy policy, Money base, List<String> steps) {
        if (policy.charge() instanceof LateFeePolicy.Charge.OfOverdue part) {
            Money amount = part.percent().of(base);
            steps.add(part.percent() + " of " + Amounts.grouped(base) + " overdue = " + Amounts.grouped(amount));
            return amount;
        }
        Money amount = ((LateFeePolicy.Charge.Flat) policy.charge()).amount();
        steps.add("a flat sum of " + Amounts.grouped(amount));
        return amount;
    }

    /** What all fees so far leave of the cap, over every due date; null where there is no cap. */
    private static Money leftOfCap(Overdue debt, LateFeePolicy policy) {
        Money cap = policy.capOn(debt.first());
        if (cap == null) {
            return null;
        }
        Money charged = Amounts.sum(
                cap.getCurrencyUnit(),
                debt.before().stream()
                        .filter(c -> !c.waived())
                        .map(Charged::amount)
                        .toList());
        return cap.minus(Amounts.min(cap, charged));
    }
}
