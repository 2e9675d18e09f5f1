package quill.server.catalogue;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.catalogue.Item;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Ids;

/**
 * Table STOCK_MOVEMENT, and the sums of it that stand on ITEM: how many there are of what is counted. Items are always
 * locked in the order of their ids.
 */
@Service
public class Stock {
    /** Why a count changed. */
    enum Moved {
        COUNTED,
        ISSUED,
        TAKEN_BACK,
        CREDITED
    }

    private final JdbcClient jdbc;
    private final BusinessClock clock;

    Stock(JdbcClient jdbc, BusinessClock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    /** An invoice was issued: what it sells leaves the shelf. @param sold by item */
    @Transactional(propagation = Propagation.MANDATORY)
    public void issued(DocumentId invoiceId, Map<Long, BigDecimal> sold) {
        move(Moved.ISSUED, invoiceId, negated(sold));
    }

    /** An invoice was taken back or voided: what it had moved is moved back. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void takenBack(DocumentId invoiceId) {
        SortedMap<Long, BigDecimal> moved = new TreeMap<>();
        jdbc.sql("SELECT item_id, SUM(quantity) FROM stock_movement WHERE invoice_id = :invoice GROUP BY item_id")
                .param("invoice", invoiceId)
                .query(rs -> {
                    moved.put(rs.getLong(1), rs.getBigDecimal(2));
                });
        move(Moved.TAKEN_BACK, invoiceId, negated(moved));
    }

    /** A credit note takes pieces of an invoice back. @param returned by item */
    @Transactional(propagation = Propagation.MANDATORY)
    public void credited(DocumentId invoiceId, Map<Long, BigDecimal> returned) {
        move(Moved.CREDITED, invoiceId, new TreeMap<>(returned));
    }

    /** Somebody counted. @param count null where it is not to be counted any more */
    @Transactional(propagation = Propagation.MANDATORY)
    public void counted(long itemId, BigDecimal before, BigDecimal count) {
        if (Item.same(before, count)) {
            return;
        }
        jdbc.sql("UPDATE item SET stock = :count WHERE id = :id")
                .param("count", count)
                .param("id", itemId)
                .update();
        BigDecimal none = BigDecimal.ZERO;
        note(Moved.COUNTED, itemId, null, (count == null ? none : count).subtract(before == null ? none : before));
    }

    /**
     * What lines that want this much should be told: of what is counted, there is less.
     *
     * @param wanted by item
     */
    @Transactional(readOnly = true)
    public List<String> shortOf(Map<Long, BigDecimal> wanted) {
        if (wanted.isEmpty()) {
            return List.of();
        }
        List<String> said = new ArrayList<>();
        jdbc.sql("SELECT id, description, stock FROM item WHERE stock IS NOT NULL AND id IN (:ids) ORDER BY id")
                .param("ids", wanted.keySet())
                .query(rs -> {
                    BigDecimal stock = rs.getBigDecimal("stock");
                    BigDecimal want = wanted.get(rs.getLong("id"));
                    if (want.compareTo(stock) > 0) {
                        said.add(rs.getString("description") + ": " + words(want) + " wanted, "
                                + (stock.signum() > 0 ? "only " + words(stock) : "none") + " in stock.");
                    }
                });
        return said;
    }

    private static String words(BigDecimal count) {
        return count.stripTrailingZeros().toPlainString();
    }

    private static SortedMap<Long, BigDecimal> negated(Map<Long, BigDecimal> sums) {
        SortedMap<Long, BigDecimal> negated = new TreeMap<>();
        sums.forEach((item, sum) -> negated.put(item, sum.negate()));
        return negated;
    }

    private void move(Moved kind, DocumentId invoiceId, SortedMap<Long, BigDecimal> quantities) {
        quantities.forEach((item, quantity) -> {
            if (quantity.signum() == 0) {
                return;
            }
            // The version goes on: whoever has the count on screen counted before this.
            int counted =
                    jdbc.sql("""
                    UPDATE item SET stock = stock + :quantity, version = version + 1 WHERE id = :id AND stock IS NOT NULL
                    """).param("quantity", quantity).param("id", item).update();
            if (counted == 1) {
                note(kind, item, invoiceId, quantity);
            }
        });
    }

    private void note(Moved kind, long itemId, DocumentId invoiceId, BigDecimal quantity) {
        jdbc.sql("""
                INSERT INTO stock_movement (item_id, kind, quantity, invoice_id, moved_at, who)
                VALUES (:item, :kind, :quantity, :invoice, :at, :who)
                """)
                .param("item", itemId)
                .param("kind", kind)
                .param("quantity", quantity)
                .param("invoice", invoiceId)
                .param("at", clock.instant())
                .param("who", Happenings.who())
                .update();
    }

    /** A change of a count. @param invoiceId null where somebody counted */
    record Movement(Moved kind, BigDecimal quantity, DocumentId invoiceId, LocalDate on, String who) {}

    /** How an item's count came about, newest first. */
    List<Movement> of(long itemId, int most) {
        return jdbc.sql("""
                SELECT kind, quantity, invoice_id, moved_at, who FROM stock_movement
                 WHERE item_id = :item ORDER BY id DESC FETCH FIRST :most ROWS ONLY
                """)
                .param("item", itemId)
                .param("most", most)
                .query((rs, n) -> new Movement(
                        Moved.valueOf(rs.getString("kind")),
                        rs.getBigDecimal("quantity").stripTrailingZeros(),
                        Ids.document(rs, "invoice_id"),
                        rs.getObject("moved_at", Instant.class)
                                .atZone(clock.getZone())
                                .toLocalDate(),
                        rs.getString("who")))
                .list();
    }
}
