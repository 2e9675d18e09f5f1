package quill.core.issued;

import java.math.BigDecimal;
import java.util.Objects;
import java.util.stream.Stream;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.document.Extent;
import quill.core.document.LineTotal;

/**
 * A line of an issued document.
 *
 * @param unitCode of UN/ECE Recommendation 20, as on the day of issue; empty for a unit that has none
 * @param sums what it comes to
 * @param group its set of taxes, from 0
 * @param why how its net was reached
 * @param note printed under it; may be empty
 * @param item the catalogue's item of which it was made; null for a line of its own
 * @param category of income, of the business's own; empty for none, never printed
 */
public record IssuedLine(
        String description,
        BigDecimal quantity,
        String unit,
        String unitCode,
        BigDecimal unitPrice,
        Extent discount,
        Sums sums,
        int group,
        Why why,
        String note,
        Long item,
        String category) {
    /**
     * What a line comes to.
     *
     * @param gross before the discount
     * @param off what the discount comes to, any tax not charged to an exempt client included
     */
    public record Sums(Money gross, Money off, Money net) {
        /** @throws IllegalArgumentException where the net is not what is left of the gross */
        public Sums {
            if (!gross.minus(off).isEqual(net)) {
                throw new IllegalArgumentException(gross + " less " + off + " is not " + net);
            }
        }

        /** Of a line without a discount. */
        public static Sums plain(Money net) {
            return new Sums(net, Money.zero(net.getCurrencyUnit()), net);
        }
    }

    /** A line as it was reckoned. */
    static IssuedLine of(LineTotal l, String unitCode) {
        return new IssuedLine(
                l.line().description(),
                l.line().quantity(),
                l.line().unit(),
                unitCode,
                l.line().unitPrice(),
                l.line().discount(),
                new Sums(l.gross(), l.discount().plus(l.relief()), l.net()),
                l.group(),
                l.why(),
                l.line().note(),
                l.line().item(),
                l.line().category());
    }

    /** Whole, or not at all. */
    public IssuedLine {
        Stream.of(description, quantity, unit, unitCode, unitPrice, discount, sums, why, note, category)
                .forEach(Objects::requireNonNull);
    }

    /** What is printed beside it. */
    public Money net() {
        return sums.net();
    }
}
