package quill.server.dailyrun;

import java.util.List;
import java.util.Queue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import java.util.function.Predicate;
import quill.server.audit.Actor;
import quill.server.audit.Happenings;

/**
 * Does pieces of work of which none waits for another, two at a time: while one waits for the disk, the other reckons.
 * A single piece, as on most days of a small business, is done by whoever asks.
 */
final class SideBySide {
    private SideBySide() {}

    /**
     * Does them all, in the name of whoever asks, and returns when both are done.
     *
     * @param work one piece, within transactions of its own; whether to go on with the next
     * @return whether all was done
     */
    static <T> boolean all(List<T> pieces, Predicate<T> work) {
        if (pieces.size() < 2) {
            return pieces.stream().allMatch(work);
        }
        Queue<T> left = new ConcurrentLinkedQueue<>(pieces);
        Actor actor = Happenings.actor();
        CompletableFuture<Boolean> second = CompletableFuture.supplyAsync(
                () -> Happenings.as(actor, () -> allOf(left, work)), SideBySide::beginThread);
        boolean all;
        try {
            all = allOf(left, work);
        } finally {
            // What the first one failed with is told; the second one ends its piece all the same.
            left.clear();
            second.exceptionally(failure -> false).join();
        }
        try {
            return second.join() && all;
        } catch (CompletionException e) {
            // Whoever asks is told what went wrong as if it had gone wrong here.
            throw e.getCause() instanceof RuntimeException itself ? itself : e;
        }
    }

    /** Does them all, whatever each comes to. */
    static <T> void each(List<T> pieces, Consumer<T> work) {
        all(pieces, piece -> {
            work.accept(piece);
            return true;
        });
    }

    private static <T> boolean allOf(Queue<T> left, Predicate<T> work) {
        for (T piece = left.poll(); piece != null; piece = left.poll()) {
            if (!work.test(piece)) {
                return false;
            }
        }
        return true;
    }

    private static void beginThread(Runnable work) {
        Thread thread = new Thread(work, "daily run, beside");
        thread.setDaemon(true);
        thread.start();
    }
}
