package quill.core;

import java.math.BigDecimal;
import java.math.BigInteger;

/** Exact fractions, for a reckoning that shares no line with the product's: no BigDecimal rounding, no joda-money. */
record Fraction(BigInteger over, BigInteger under) {
    static Fraction of(BigDecimal decimal) {
        return decimal.scale() <= 0
                ? new Fraction(decimal.toBigIntegerExact(), BigInteger.ONE)
                : new Fraction(decimal.unscaledValue(), BigInteger.TEN.pow(decimal.scale()));
    }

    static Fraction of(long whole) {
        return new Fraction(BigInteger.valueOf(whole), BigInteger.ONE);
    }

    Fraction times(Fraction other) {
        return new Fraction(over.multiply(other.over), under.multiply(other.under));
    }

    Fraction by(Fraction other) {
        return new Fraction(over.multiply(other.under), under.multiply(other.over));
    }

    Fraction plus(Fraction other) {
        return new Fraction(over.multiply(other.under).add(other.over.multiply(under)), under.multiply(other.under));
    }

    /** Half up on the absolute value, to a whole number: floor((2|a| + b) / 2b) with the sign restored. */
    long rounded() {
        BigInteger two = BigInteger.TWO;
        BigInteger units = over.abs().multiply(two).add(under).divide(under.multiply(two));
        return units.longValueExact() * over.signum() * under.signum();
    }
}
