package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.testng.annotations.Test;
import quill.server.audit.Actor;
import quill.server.audit.Happenings;
import quill.server.common.ConflictException;

/** Pieces of work two at a time. */
public class SideBySideTest {
    @Test
    public void eachPieceIsDoneOnceAndTwoAtATime() {
        CyclicBarrier both = new CyclicBarrier(2);
        Queue<Integer> done = new ConcurrentLinkedQueue<>();
        boolean all = SideBySide.all(pieces(6), piece -> {
            meet(both); // Passed only where another piece is under way at the same time.
            return done.add(piece);
        });
        assertThat(all).isTrue();
        assertThat(done).containsExactlyInAnyOrderElementsOf(pieces(6));
    }

    @Test
    public void aSinglePieceIsDoneByWhoeverAsks() {
        Set<Thread> threads = ConcurrentHashMap.newKeySet();
        assertThat(SideBySide.all(pieces(1), piece -> threads.add(Thread.currentThread())))
                .isTrue();
        assertThat(threads).containsExactly(Thread.currentThread());
        assertThat(SideBySide.all(List.of(), piece -> false)).isTrue();
    }

    @Test
    public void bothActInTheNameOfWhoeverAsks() {
        Set<Actor> actors = ConcurrentHashMap.newKeySet();
        CyclicBarrier both = new CyclicBarrier(2);
        Happenings.as(
                new Actor.Person("odile@larkmoor.example"),
                () -> SideBySide.all(pieces(2), piece -> {
                    meet(both);
                    return actors.add(Happenings.actor()) || true;
                }));
        assertThat(actors).containsExactly(new Actor.Person("odile@larkmoor.example"));
    }

    @Test
    public void whoeverIsToldToStopLeavesTheRest() {
        AtomicInteger begun = new AtomicInteger();
        assertThat(SideBySide.all(pieces(50), piece -> begun.incrementAndGet() < 5))
                .isFalse();
        assertThat(begun.get()).isBetween(5, 6);
    }

    @Test
    public void aFailureIsToldOnceBothHaveEnded() {
        AtomicInteger under = new AtomicInteger();
        CyclicBarrier both = new CyclicBarrier(2);
        assertThatThrownBy(() -> SideBySide.all(pieces(2), piece -> {
                    under.incrementAndGet();
                    meet(both);
                    if (piece == 0) {
                        throw new IllegalStateException("the disk is full");
                    }
                    under.decrementAndGet();
                    return true;
                }))
                .hasStackTraceContaining("the disk is full");
        assertThat(under.get()).isEqualTo(1);
    }

    @Test
    public void whatGoesWrongBesideIsToldAsItIs() {
        Thread here = Thread.currentThread();
        CyclicBarrier both = new CyclicBarrier(2);
        assertThatThrownBy(() -> SideBySide.each(pieces(2), piece -> {
                    meet(both);
                    if (Thread.currentThread() != here) {
                        throw new ConflictException("changed meanwhile");
                    }
                }))
                .isInstanceOf(ConflictException.class);
    }

    private static List<Integer> pieces(int count) {
        return IntStream.range(0, count).boxed().toList();
    }

    private static void meet(CyclicBarrier barrier) {
        try {
            barrier.await(20, TimeUnit.SECONDS);
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }
}
