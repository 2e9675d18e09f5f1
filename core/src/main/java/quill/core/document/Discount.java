package quill.core.document;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

/** What lowers a line. */
public sealed interface Discount {
    /** Nothing off. */
    record None() implements Discount {}

    /** A percentage of the gross. */
    record OfPercent(Percent percent) implements Discount {}

    /** A sum off. */
    record OfAmount(Money amount) implements Discount {}

    /** Reads {@code ""}, {@code 10%} or {@code 25.00}; null where a problem was added. */
    static Discount read(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        if (text == null || text.isBlank()) {
            return new None();
        }
        if (text.strip().endsWith("%")) {
            Percent percent = TypedNumber.percent(field, text, problems);
            return percent == null ? null : new OfPercent(percent);
        }
        Money amount = TypedNumber.amount(field, text, currency, problems);
        return amount == null ? null : new OfAmount(amount);
    }
}
