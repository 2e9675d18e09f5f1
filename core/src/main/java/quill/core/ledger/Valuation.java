package quill.core.ledger;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.money.Amounts;

/**
 * What the postings of an entry are in the business's own currency. A posting that lowers what stands on a receivable, on
 * client credit or on deposits takes it off at the value at which it stands there, so that a debt that is settled is
 * settled in both currencies; every other posting has the value of the entry's rate. What the two rates differ by is an
 * exchange difference.
 *
 * @param sides one for each posting, in the own currency
 * @param difference to be posted beside them, so that all of it sums to zero: a debit (a loss) above zero, a credit (a
 *     gain) below it; mostly zero
 */
public record Valuation(List<Money> sides, Money difference) {
    /**
     * What stands where a posting goes, before it.
     *
     * @param amount in the posting's currency
     * @param own the same as it was booked in the own currency
     */
    public record Carried(Money amount, Money own) {}

    /**
     * Values an entry.
     *
     * @param usual the value of each posting at the entry's rate
     * @param carried what stands where each posting goes; null where postings are not held against each other
     */
    public static Valuation of(List<Posting> postings, List<Money> usual, List<Carried> carried) {
        List<Money> sides = new ArrayList<>();
        int largest = -1;
        for (int i = 0; i < postings.size(); i++) {
            Money lowered = lowered(postings.get(i).amount(), usual.get(i), carried.get(i));
            sides.add(lowered == null ? usual.get(i) : lowered);
            boolean larger = lowered == null
                    && (largest < 0
                            || usual.get(i)
                                    .abs()
                                    .isGreaterThan(sides.get(largest).abs()));
            largest = larger ? i : largest;
        }
        Money over = Amounts.sum(usual.get(0).getCurrencyUnit(), sides);
        // Each side is rounded once, by half a minor unit at most; so much is rounding, and no gain or loss.
        boolean rounding = 2 * over.abs().getAmountMinorLong() <= postings.size();
        if (over.isZero() || !rounding || largest < 0) {
            return new Valuation(List.copyOf(sides), over.negated());
        }
        sides.set(largest, sides.get(largest).minus(over));
        return new Valuation(List.copyOf(sides), over.minus(over));
    }

    /** The value of a posting that lowers what is carried; null for one that does not. */
    private static Money lowered(Money amount, Money usual, Carried carried) {
        if (carried == null
                || carried.amount().isZero()
                || carried.amount().isPositive() == amount.isPositive()
                || carried.own().isPositive() == amount.isPositive()) {
            return null;
        }
        if (amount.abs().isLessThan(carried.amount().abs())) {
            return Amounts.share(
                            carried.own(),
                            amount.abs().getAmount(),
                            carried.amount().abs().getAmount())
                    .negated();
        }
        // All that is carried goes; what lies beyond it has the entry's rate.
        Money beyond = amount.plus(carried.amount());
        Money rest = Amounts.share(usual, beyond.abs().getAmount(), amount.abs().getAmount());
        return rest.minus(carried.own());
    }
}
