package quill.server.common;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionExecution;
import org.springframework.transaction.TransactionExecutionListener;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Answers that are sums over everything, held until anything at all is committed: a list that is looked at twice is
 * reckoned once. What is held is dropped by every commit that may have written, so nothing has to say what it touched;
 * this process is the only one that writes.
 */
@Component
public class Held implements TransactionExecutionListener {
    private static final int MOST = 32;
    private final AtomicLong commits = new AtomicLong();
    private final Cache<Key, Object> answers =
            Caffeine.newBuilder().maximumSize(MOST).build();

    private record Key(long commits, Object asked) {}

    /**
     * The answer to something, read now or since the last commit.
     *
     * @param asked all that the answer depends on beside the tables: a record with the day, not a text put together
     * @param reading opens its own transaction: one that began before would see an older moment than it is held for
     * @throws IllegalStateException within a transaction
     */
    @SuppressWarnings("unchecked")
    public <T> T of(Record asked, Supplier<T> reading) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("An answer is held from outside of transactions only");
        }
        return (T) answers.get(new Key(commits.get(), asked), k -> reading.get());
    }

    /** Before open pages are told to ask again, which is before Spring says that the transaction is over. */
    @Order(Ordered.HIGHEST_PRECEDENCE)
    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT, fallbackExecution = true)
    public void changed(Changes.Change change) {
        commits.incrementAndGet();
    }

    /** Whether it worked or not: where a commit fails, nobody knows what was written. */
    @Override
    public void afterCommit(TransactionExecution transaction, Throwable failure) {
        if (!transaction.isReadOnly()) {
            commits.incrementAndGet();
        }
    }
}
