package quill.core.schedule;

import org.joda.money.Money;
import quill.core.money.Percent;

/** How much of what is due one installment takes. */
public sealed interface Share {
    /** A percentage of what is due. */
    record OfPercent(Percent percent) implements Share {}

    /** A fixed sum. */
    record OfAmount(Money amount) implements Share {}

    /** What the others leave. */
    record Rest() implements Share {}

    /** One of several equal parts of what the others leave. */
    record Equal() implements Share {}
}
