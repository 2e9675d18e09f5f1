package quill.http;

import java.time.Duration;
import java.time.Instant;
import java.util.function.BooleanSupplier;

/** Waits for what happens by itself, with a limit that only a broken application reaches. */
public final class Waiting {
    private Waiting() {}

    public static void until(String what, BooleanSupplier done) {
        until(what, Duration.ofSeconds(30), done);
    }

    public static void until(String what, Duration most, BooleanSupplier done) {
        Instant end = Instant.now().plus(most);
        while (!done.getAsBoolean()) {
            if (Instant.now().isAfter(end)) {
                throw new AssertionError("waited " + most.toSeconds() + " s in vain for: " + what);
            }
            pause(100);
        }
    }

    public static void pause(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
