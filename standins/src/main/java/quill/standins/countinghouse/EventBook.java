package quill.standins.countinghouse;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import quill.standins.Dials;

/** Events to send, and the dials that lose, double, delay and reorder them. */
@Repository
@Transactional
class EventBook {
    private final JdbcClient jdbc;
    private final Dials dials;
    private final AtomicInteger made = new AtomicInteger();

    EventBook(JdbcClient jdbc) {
        this.jdbc = jdbc;
        this.dials = new Dials(jdbc, "dial");
    }

    /** An event, waiting or gone. @param orderId null for what is about no order */
    record Event(String id, String orderId, String kind, int copies, int tries, String state) {}

    Dials dials() {
        return dials;
    }

    /** @param orderId null for what is about no order */
    void add(String orderId, String kind) {
        Map<String, Integer> turned = dials.all();
        int number = made.incrementAndGet();
        int shuffle = turned.get("shuffle");
        int delay =
                turned.get("delay") + (shuffle > 0 ? ThreadLocalRandom.current().nextInt(shuffle + 1) : 0);
        jdbc.sql("""
                INSERT INTO event (id, order_id, kind, due_at, copies, state)
                VALUES (:id, :order, :kind, DATEADD('SECOND', :delay, LOCALTIMESTAMP), :copies, :state)
                """)
                .param("id", "event-" + UUID.randomUUID())
                .param("order", orderId)
                .param("kind", kind)
                .param("delay", delay)
                .param("copies", isEach(number, turned.get("double")) ? 2 : 1)
                .param("state", isEach(number, turned.get("lose")) ? "lost" : "waiting")
                .update();
    }

    /** Whether it is one of each so many. @param each 1 for all, 0 for none */
    private static boolean isEach(int number, int each) {
        return each > 0 && number % each == 0;
    }

    List<Event> due() {
        return events("WHERE state = 'waiting' AND due_at <= LOCALTIMESTAMP ORDER BY due_at, id LIMIT 50");
    }

    List<Event> latest() {
        return events("ORDER BY due_at DESC, id LIMIT 40");
    }

    private List<Event> events(String which) {
        return jdbc.sql("SELECT id, order_id, kind, copies, tries, state FROM event " + which)
                .query((rs, n) -> new Event(
                        rs.getString(1), rs.getString(2), rs.getString(3), rs.getInt(4), rs.getInt(5), rs.getString(6)))
                .list();
    }

    void delivered(String id) {
        jdbc.sql("UPDATE event SET state = 'delivered', tries = tries + 1 WHERE id = :id")
                .param("id", id)
                .update();
    }

    /** Tries again after 1, 2, 4 … seconds, ten times in all. */
    void notDelivered(Event event) {
        jdbc.sql("""
                UPDATE event
                   SET tries = tries + 1, due_at = DATEADD('SECOND', :wait, LOCALTIMESTAMP),
                       state = CASE WHEN tries >= 9 THEN 'given up' ELSE 'waiting' END
                 WHERE id = :id
                """)
                .param("wait", 1 << Math.min(event.tries(), 9))
                .param("id", event.id())
                .update();
    }
}
