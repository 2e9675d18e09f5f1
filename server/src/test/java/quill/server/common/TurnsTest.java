package quill.server.common;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;

/** So many at once, so many waiting, so long. */
public class TurnsTest {
    @Test
    public void whoComesWhenAllPlacesAreTakenIsSentAwayAtOnceAndWhoWaitsGetsTheNextTurn() throws Exception {
        Turns turns = new Turns(1, 1, Duration.ofSeconds(30));
        ExecutorService other = Executors.newSingleThreadExecutor();
        assertThat(turns.take()).isTrue();
        CompletableFuture<Thread> begun = new CompletableFuture<>();
        Future<Boolean> waits = other.submit(() -> {
            begun.complete(Thread.currentThread());
            return turns.take();
        });
        Thread waiting = begun.get();
        while (waiting.getState() != Thread.State.TIMED_WAITING) {
            Thread.onSpinWait();
        }
        assertThat(turns.take()).isFalse();
        assertThat(waits.isDone()).isFalse();
        turns.giveBack();
        assertThat(waits.get()).isTrue();
        other.shutdown();
    }

    @Test
    public void nobodyWaitsForEver() {
        Turns turns = new Turns(1, 5, Duration.ofMillis(20));
        assertThat(turns.take()).isTrue();
        assertThat(turns.take()).isFalse();
        turns.giveBack();
        assertThat(turns.take()).isTrue();
    }
}
