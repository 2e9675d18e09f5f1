package quill.server.common;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.transaction.TransactionExecution;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.testng.annotations.Test;

public class HeldTest {
    private record Asked(String what) {}

    private record Tx(boolean readOnly) implements TransactionExecution {
        @Override
        public boolean isReadOnly() {
            return readOnly;
        }
    }

    private final Held held = new Held();
    private final AtomicInteger readings = new AtomicInteger();

    private int of(String what) {
        return held.of(new Asked(what), readings::incrementAndGet);
    }

    @Test
    public void anAnswerIsHeldUntilSomethingIsCommittedAndNotOnlyRead() {
        int first = of("list");
        assertThat(of("list")).isEqualTo(first);
        assertThat(of("another")).isNotEqualTo(first);
        held.afterCommit(new Tx(true), null);
        assertThat(of("list")).isEqualTo(first);
        held.afterCommit(new Tx(false), null);
        assertThat(of("list")).isNotEqualTo(first);
    }

    @Test
    public void aCommitOfWhichNobodyKnowsCountsAsOne() {
        int first = of("unsure");
        held.afterCommit(new Tx(false), new IllegalStateException("the connection broke"));
        assertThat(of("unsure")).isNotEqualTo(first);
    }

    /** What was being read while another commits is given to whoever asked, and to nobody after it. */
    @Test
    public void anAnswerThatACommitOvertookIsNotHeld() throws Exception {
        CountDownLatch reading = new CountDownLatch(1);
        CountDownLatch committed = new CountDownLatch(1);
        var threads = Executors.newSingleThreadExecutor();
        var old = threads.submit(() -> held.of(new Asked("slow"), () -> {
            reading.countDown();
            try {
                committed.await();
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
            return "before";
        }));
        reading.await();
        held.afterCommit(new Tx(false), null);
        committed.countDown();
        assertThat(old.get()).isEqualTo("before");
        assertThat(held.<String>of(new Asked("slow"), () -> "after")).isEqualTo("after");
        threads.shutdown();
    }

    @Test
    public void nothingIsHeldFromWithinATransaction() {
        TransactionSynchronizationManager.setActualTransactionActive(true);
        try {
            assertThatThrownBy(() -> of("inside")).isInstanceOf(IllegalStateException.class);
        } finally {
            TransactionSynchronizationManager.setActualTransactionActive(false);
        }
    }
}
