package quill.core.money;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.joda.money.Money;
import quill.core.RefusedException;

/**
 * Splits an amount by weights into parts that add up to it exactly, by the method of largest remainders: every
 * share of the absolute value is floored, the spare minor units go one by one to the largest remainders, ties to the
 * earliest, and the sign is restored.
 */
public final class Split {
    private Split() {}

    /** Equal weights: 100.00 in 3 is 33.34, 33.33, 33.33. */
    public static List<Money> equally(Money whole, int parts) {
        if (parts < 1) {
            throw new RefusedException("parts", parts, "must be 1 or more");
        }
        return byWeights(whole, Collections.nCopies(parts, BigDecimal.ONE));
    }

    /**
     * Splits by weights. Nothing is rounded; each part is less than one minor unit from its exact share.
     *
     * @param weights none negative, not all zero
     * @throws RefusedException if there is no weight, one is negative or all are zero
     */
    public static List<Money> byWeights(Money whole, List<BigDecimal> weights) {
        BigInteger[] scaled = integers(weights);
        BigInteger sum = BigInteger.ZERO;
        for (BigInteger weight : scaled) {
            if (weight.signum() < 0) {
                throw new RefusedException("weights", weights, "none may be negative");
            }
            sum = sum.add(weight);
        }
        if (sum.signum() == 0) {
            throw new RefusedException("weights", weights, "at least one must be above zero");
        }
        BigInteger units = BigInteger.valueOf(Math.abs(whole.getAmountMinorLong()));
        long[] shares = new long[scaled.length];
        BigInteger[] remainders = new BigInteger[scaled.length];
        long spare = units.longValueExact();
        for (int i = 0; i < scaled.length; i++) {
            BigInteger[] share = units.multiply(scaled[i]).divideAndRemainder(sum);
            shares[i] = share[0].longValueExact();
            remainders[i] = share[1];
            spare -= shares[i];
        }
        IntStream.range(0, scaled.length)
                .boxed()
                .sorted(Comparator.comparing((Integer i) -> remainders[i]).reversed())
                .limit(spare)
                .forEach(i -> shares[i]++);
        int sign = whole.isNegative() ? -1 : 1;
        List<Money> parts = new ArrayList<>(shares.length);
        for (long share : shares) {
            parts.add(Money.ofMinor(whole.getCurrencyUnit(), sign * share));
        }
        return List.copyOf(parts);
    }

    /**
     * Scales amounts, which may have both signs, so that they sum to another amount: each is rounded half up, and what
     * is left over goes to the largest, the earliest of equal ones.
     *
     * @param sum what they are to sum to; where they sum to zero themselves, all of it goes to the largest
     */
    public static List<Money> scaled(List<Money> amounts, Money sum) {
        Money before = Amounts.sum(sum.getCurrencyUnit(), amounts);
        List<Money> parts = new ArrayList<>();
        Money left = sum;
        int largest = 0;
        for (int i = 0; i < amounts.size(); i++) {
            Money part = before.isZero()
                    ? amounts.get(i)
                    : Amounts.round(
                            sum.getCurrencyUnit(),
                            amounts.get(i)
                                    .getAmount()
                                    .multiply(sum.getAmount())
                                    .divide(before.getAmount(), MathContext.DECIMAL128));
            parts.add(part);
            left = left.minus(part);
            if (amounts.get(i).abs().isGreaterThan(amounts.get(largest).abs())) {
                largest = i;
            }
        }
        parts.set(largest, parts.get(largest).plus(left));
        return List.copyOf(parts);
    }

    private static BigInteger[] integers(List<BigDecimal> weights) {
        int scale = weights.stream().mapToInt(w -> Math.max(0, w.scale())).max().orElse(0);
        return weights.stream()
                .map(w -> w.movePointRight(scale).toBigIntegerExact())
                .toArray(BigInteger[]::new);
    }
}
