package quill.server.clearing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.common.Amount;
import quill.server.common.Rows;
import quill.server.processor.CardProcessor;

/** Table PROCESSOR_ENTRY. Holds no rules; the caller opens the transaction. */
@Repository
class EntryRepository {
    private static final String SELECT = """
            SELECT at_processor, number, kind, subject, order_key, currency, amount_minor, cost_minor, booked_on, reason,
                   answer_by, movement_id, payout_id, trouble
              FROM processor_entry\s""";

    private final JdbcClient jdbc;

    EntryRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** An entry as it is kept. @param trouble why it could not be booked; null where it is */
    record Kept(long processor, CardProcessor.Entry entry, Long movementId, Long payoutId, String trouble) {}

    /** The number of the last one that was read; 0 for none. */
    long last(long processor) {
        return jdbc.sql("SELECT COALESCE(MAX(number), 0) FROM processor_entry WHERE at_processor = :processor")
                .param("processor", processor)
                .query(Long.class)
                .single();
    }

    /** @param movementId the movement that it is; null for none, or for one that is not known yet */
    void insert(long processor, CardProcessor.Entry e, Long movementId, String trouble) {
        jdbc.sql("""
                INSERT INTO processor_entry (at_processor, number, kind, subject, order_key, currency, amount_minor, cost_minor,
                  booked_on, reason, answer_by, movement_id, trouble)
                VALUES (:processor, :number, :kind, :subject, :key, :currency, :amount, :cost, :on, :reason, :answerBy, :movement,
                  :trouble)
                """)
                .param("processor", processor)
                .param("number", e.number())
                .param("kind", e.kind() == null ? "" : e.kind().name())
                .param("subject", e.subject())
                .param("key", e.key())
                .param("currency", e.amount().getCurrencyUnit().getCode())
                .param("amount", e.amount())
                .param("cost", e.cost())
                .param("on", e.on())
                .param("reason", e.reason() == null ? "" : e.reason())
                .param("answerBy", e.answerBy())
                .param("movement", movementId)
                .param("trouble", trouble)
                .update();
    }

    void booked(long processor, long number, Long movementId) {
        jdbc.sql("""
                UPDATE processor_entry SET movement_id = :movement, trouble = NULL
                 WHERE at_processor = :processor AND number = :number
                """)
                .param("movement", movementId)
                .param("processor", processor)
                .param("number", number)
                .update();
    }

    /** These are what a payout is made of. */
    void paidOut(long processor, Collection<Long> numbers, long payoutId) {
        if (!numbers.isEmpty()) {
            jdbc.sql("""
                    UPDATE processor_entry SET payout_id = :payout WHERE at_processor = :processor AND number IN (:numbers)
                    """)
                    .param("payout", payoutId)
                    .param("processor", processor)
                    .param("numbers", numbers)
                    .update();
        }
    }

    /** The payments among some entries. */
    Set<Long> payments(long processor, Collection<Long> numbers) {
        return numbers.isEmpty()
                ? Set.of()
                : Set.copyOf(jdbc.sql("""
                        SELECT movement_id FROM processor_entry
                         WHERE at_processor = :processor AND number IN (:numbers) AND kind = 'TAKEN'
                           AND movement_id IS NOT NULL
                        """)
                        .param("processor", processor)
                        .param("numbers", numbers)
                        .query(Long.class)
                        .list());
    }

    /** Those that could not be booked. */
    List<Kept> troubled() {
        return jdbc.sql(SELECT + "WHERE trouble IS NOT NULL ORDER BY at_processor, number LIMIT 50")
                .query(EntryRepository::kept)
                .list();
    }

    /** What of a processor no payout has taken yet, or one payout has. @param payoutId null for none */
    List<Kept> of(Long payoutId) {
        return jdbc.sql(SELECT
                        + (payoutId == null
                                ? "WHERE payout_id IS NULL AND kind <> 'PAID_OUT' AND (amount_minor <> 0 OR cost_minor <> 0)"
                                : "WHERE payout_id = :payout AND kind <> 'PAID_OUT'")
                        + " ORDER BY at_processor, number LIMIT 2000")
                .params(payoutId == null ? java.util.Map.of() : java.util.Map.of("payout", payoutId))
                .query(EntryRepository::kept)
                .list();
    }

    /**
     * What came and went of one payout, or of what is held.
     *
     * @param payoutId null for what no payout has taken yet
     * @param came above zero, went below or zero
     */
    record Sums(Long payoutId, int count, Money came, Money went, Money cost) {}

    /** Of what no payout has taken yet, by currency. */
    List<Sums> heldSums() {
        return sums(
                "payout_id IS NULL AND kind <> 'PAID_OUT' AND (amount_minor <> 0 OR cost_minor <> 0)",
                java.util.Map.of());
    }

    /** Of payouts. */
    List<Sums> sumsOf(Collection<Long> payoutIds) {
        return payoutIds.isEmpty()
                ? List.of()
                : sums("payout_id IN (:ids) AND kind <> 'PAID_OUT'", java.util.Map.of("ids", payoutIds));
    }

    private List<Sums> sums(String which, java.util.Map<String, ?> params) {
        return jdbc.sql(
                        "SELECT payout_id, currency, COUNT(*), SUM(GREATEST(amount_minor, 0)), SUM(LEAST(amount_minor, 0)),"
                                + " SUM(cost_minor) FROM processor_entry WHERE " + which
                                + " GROUP BY payout_id, currency ORDER BY currency")
                .params(params)
                .query((rs, n) -> new Sums(
                        rs.getObject(1, Long.class),
                        rs.getInt(3),
                        Amount.ofMinor(rs.getString(2), rs.getLong(4)).money(),
                        Amount.ofMinor(rs.getString(2), rs.getLong(5)).money(),
                        Amount.ofMinor(rs.getString(2), rs.getLong(6)).money()))
                .list();
    }

    /** Payouts, the latest first. */
    List<Kept> payouts(int most) {
        return jdbc.sql(SELECT
                        + "WHERE kind = 'PAID_OUT' ORDER BY booked_on DESC, at_processor, number DESC LIMIT :most")
                .param("most", most)
                .query(EntryRepository::kept)
                .list();
    }

    /** All that was told of some movements. */
    List<Kept> ofMovements(Collection<Long> ids) {
        return ids.isEmpty()
                ? List.of()
                : jdbc.sql(SELECT + "WHERE movement_id IN (:ids) ORDER BY at_processor, number")
                        .param("ids", ids)
                        .query(EntryRepository::kept)
                        .list();
    }

    private static Kept kept(ResultSet rs, int row) throws SQLException {
        String currency = rs.getString("currency");
        Money amount = Amount.ofMinor(currency, rs.getLong("amount_minor")).money();
        Money cost = Amount.ofMinor(currency, rs.getLong("cost_minor")).money();
        String kind = rs.getString("kind");
        return new Kept(
                rs.getLong("at_processor"),
                new CardProcessor.Entry(
                        rs.getLong("number"),
                        kind.isEmpty() ? null : CardProcessor.Booked.valueOf(kind),
                        rs.getString("subject"),
                        null,
                        amount,
                        cost,
                        Rows.date(rs, "booked_on"),
                        rs.getString("reason"),
                        Rows.date(rs, "answer_by"),
                        rs.getString("order_key"),
                        List.of()),
                rs.getObject("movement_id", Long.class),
                rs.getObject("payout_id", Long.class),
                rs.getString("trouble"));
    }
}
