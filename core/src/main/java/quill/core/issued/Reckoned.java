package quill.core.issued;

import java.util.Objects;
import org.joda.money.Money;
import quill.core.Why;

/** A figure of an issued document, and how it was reached on that day. */
public record Reckoned(Money amount, Why why) {
    /** Both, or nothing at all. */
    public Reckoned {
        Objects.requireNonNull(amount);
        Objects.requireNonNull(why);
    }
}
