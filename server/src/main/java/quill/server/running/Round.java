package quill.server.running;

import java.time.Duration;
import java.util.function.BooleanSupplier;

/**
 * Something that is done again and again, on a thread of its own.
 *
 * @param name of its thread
 * @param every pause between the end of one round and the start of the next
 * @param writes whether it writes, so that it rests while the disk is full
 * @param work one round; it ends soon after it is told that its time is over
 */
public record Round(String name, Duration every, boolean writes, Work work) {
    /** How long a round may go on before it leaves the rest to the next one. */
    public static final Duration LONGEST = Duration.ofSeconds(20);

    /** One round. */
    @FunctionalInterface
    public interface Work {
        /** Does it. @param over whether it has to leave the rest to the next round */
        void run(BooleanSupplier over);
    }

    /** A moment by the system's own steady clock. @param nanos as of {@link System#nanoTime} */
    public record Deadline(long nanos) {
        /** So long from now. */
        public static Deadline in(Duration duration) {
            return new Deadline(System.nanoTime() + duration.toNanos());
        }

        /** Whether it has passed. */
        public boolean hasPassed() {
            return System.nanoTime() - nanos > 0;
        }

        /** What is left until then, in nanoseconds; below zero once it has passed. */
        long left() {
            return nanos - System.nanoTime();
        }

        /** Whether it has passed, or there is another reason to stop. */
        public BooleanSupplier or(BooleanSupplier other) {
            return () -> other.getAsBoolean() || hasPassed();
        }
    }
}
