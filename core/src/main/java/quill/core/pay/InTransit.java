package quill.core.pay;

import java.time.Duration;
import java.time.Instant;

/**
 * Whether an order at a processor that is not known to be over may be bringing money at this moment: what it is for is
 * neither reminded, nor fined, nor settled then.
 */
public final class InTransit {
    /** As at processors: an order that nobody finishes ends after half an hour. */
    private static final Duration TO_PAY = Duration.ofMinutes(30);
    /** For so long what the processor said last is believed. */
    private static final Duration BELIEVED = Duration.ofMinutes(60);

    private InTransit() {}

    /**
     * Whether it may: the payer was sent to the pay page a moment ago, or the processor has not told lately that nothing
     * was paid.
     *
     * @param openedAt when it was opened; null before that
     * @param toldAt when the processor told last how it stands; null where it never did
     */
    public static boolean mayBring(Instant openedAt, Instant toldAt, Instant now) {
        return (openedAt != null && openedAt.isAfter(now.minus(TO_PAY)))
                || toldAt == null
                || toldAt.isBefore(now.minus(BELIEVED));
    }
}
