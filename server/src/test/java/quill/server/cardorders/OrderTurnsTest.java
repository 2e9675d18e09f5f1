package quill.server.cardorders;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.AfterClass;
import org.testng.annotations.Test;

/** Whoever asks about an order while somebody else does waits, and is told that it has waited. */
public class OrderTurnsTest {
    private final OrderTurns turns = new OrderTurns();
    private final ExecutorService threads = Executors.newFixedThreadPool(2);

    @AfterClass(alwaysRun = true)
    public void stop() {
        threads.shutdownNow();
    }

    @Test
    public void theSecondWaitsUntilTheFirstIsDone() throws Exception {
        List<String> said = new CopyOnWriteArrayList<>();
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch goOn = new CountDownLatch(1);
        Future<?> first = threads.submit(() -> turns.inTurn(7, waited -> {
            begun.countDown();
            await(goOn);
            said.add("first " + waited);
        }));
        begun.await();
        turns.inTurn(8, waited -> said.add("another " + waited));
        Future<?> second = threads.submit(() -> turns.inTurn(7, waited -> said.add("second " + waited)));
        goOn.countDown();
        first.get();
        second.get();
        assertThat(said.subList(0, 2)).containsExactly("another false", "first false");
        // Whether it came while the first was at it is the machine's to say; that it came after it is not.
        assertThat(said.get(2)).startsWith("second");
    }

    @Test
    public void whoeverFailsLeavesItsTurn() throws Exception {
        assertThatThrownBy(() -> turns.inTurn(9, waited -> {
                    throw new IllegalStateException("no answer");
                }))
                .hasMessage("no answer");
        List<Boolean> waited = new CopyOnWriteArrayList<>();
        threads.submit(() -> turns.inTurn(9, waited::add)).get();
        assertThat(waited).containsExactly(false);
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
