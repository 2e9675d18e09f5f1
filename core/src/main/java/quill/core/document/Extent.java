package quill.core.document;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

/** How far something lowers or raises a sum. */
public sealed interface Extent {
    /** Not at all. */
    record None() implements Extent {
        @Override
        public Money of(Money base) {
            return Money.zero(base.getCurrencyUnit());
        }
    }

    /** A percentage of the sum, rounded half up to the minor unit. */
    record OfPercent(Percent percent) implements Extent {
        @Override
        public Money of(Money base) {
            return percent.of(base);
        }
    }

    /** A fixed sum, whatever it lowers or raises. */
    record OfAmount(Money amount) implements Extent {
        @Override
        public Money of(Money base) {
            return amount;
        }
    }

    /** What it comes to on this base. */
    Money of(Money base);

    /** As it is printed, whatever it was typed like: empty, {@code 10%} or {@code 1,025.00}. */
    default String words() {
        return this instanceof OfPercent p
                ? p.percent().toString()
                : this instanceof OfAmount a ? Amounts.grouped(a.amount()) : "";
    }

    /** Reads {@code ""}, {@code 10%} or {@code 25.00}; null where a problem was added. */
    static Extent read(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        if (text == null || text.isBlank()) {
            return new None();
        }
        return TypedNumber.<Extent>percentOrAmount(field, text, currency, problems, OfPercent::new, OfAmount::new);
    }
}
