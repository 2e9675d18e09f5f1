package quill.server.clearing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Rows;
import quill.server.common.StoredWord;
import quill.server.payments.Payment;
import quill.server.processor.CardProcessor;

/** Table DISPUTE. Holds no rules; the caller opens the transaction. */
@Repository
class DisputeRepository {
    private static final String SELECT = """
            SELECT id, at_processor, contest, payment_id, movement_id, client_id, document_id, currency, amount_minor,
                   cost_minor, reason, state, opened_on, answer_by, evidence, answered_on, decided_on
              FROM dispute\s""";

    private final JdbcClient jdbc;

    DisputeRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long processor, CardProcessor.Entry e, Payment payment, long movementId, DocumentId about) {
        jdbc.sql("""
                INSERT INTO dispute (at_processor, contest, payment_id, movement_id, client_id, document_id, currency,
                  amount_minor, cost_minor, reason, state, opened_on, answer_by)
                VALUES (:processor, :contest, :payment, :movement, :client, :document, :currency, :amount, :cost, :reason,
                  :state, :on, :answerBy)
                """)
                .param("processor", processor)
                .param("contest", e.subject())
                .param("payment", payment.id())
                .param("movement", movementId)
                .param("client", payment.clientId())
                .param("document", about)
                .param("currency", e.amount().getCurrencyUnit().getCode())
                .param("amount", e.amount().negated())
                .param("cost", e.cost())
                .param("reason", e.reason())
                .param("state", Dispute.State.OPEN.word())
                .param("on", e.on())
                .param("answerBy", e.answerBy())
                .update();
    }

    Optional<Dispute> find(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id")
                .param("id", id)
                .query(DisputeRepository::dispute)
                .optional();
    }

    Optional<Dispute> byContest(long processor, String contest) {
        return jdbc.sql(SELECT + "WHERE at_processor = :processor AND contest = :contest")
                .param("processor", processor)
                .param("contest", contest)
                .query(DisputeRepository::dispute)
                .optional();
    }

    Optional<Dispute> ofPayment(long paymentId) {
        return jdbc.sql(SELECT + "WHERE payment_id = :payment ORDER BY id DESC LIMIT 1")
                .param("payment", paymentId)
                .query(DisputeRepository::dispute)
                .optional();
    }

    /** Those in a state, whoever must be answered first at the top. */
    List<Dispute> in(Dispute.State state) {
        return jdbc.sql(SELECT + "WHERE state = :state ORDER BY answer_by, id LIMIT 200")
                .param("state", state.word())
                .query(DisputeRepository::dispute)
                .list();
    }

    /** Those that nobody has decided yet. */
    List<Dispute> undecided() {
        return jdbc.sql(SELECT + "WHERE state IN ('open', 'sending', 'answered') ORDER BY id")
                .query(DisputeRepository::dispute)
                .list();
    }

    /** @return rows changed: none where it is decided, on its way already, or answered otherwise than before */
    int sending(long id, String before, String evidence, LocalDate on) {
        return jdbc.sql("""
                UPDATE dispute SET state = 'sending', evidence = :evidence, answered_on = :on
                 WHERE id = :id AND state IN ('open', 'answered')
                   AND evidence IS NOT DISTINCT FROM CAST(:before AS VARCHAR)
                """)
                .param("before", before)
                .param("evidence", evidence)
                .param("on", on)
                .param("id", id)
                .update();
    }

    /** @param state what becomes of one that was on its way */
    void sent(long id, Dispute.State state) {
        jdbc.sql("UPDATE dispute SET state = :state WHERE id = :id AND state = 'sending'")
                .param("state", state.word())
                .param("id", id)
                .update();
    }

    void decided(long id, boolean won, LocalDate on) {
        jdbc.sql("UPDATE dispute SET state = :state, decided_on = :on WHERE id = :id")
                .param("state", (won ? Dispute.State.WON : Dispute.State.LOST).word())
                .param("on", on)
                .param("id", id)
                .update();
    }

    private static Dispute dispute(ResultSet rs, int row) throws SQLException {
        String currency = rs.getString("currency");
        return new Dispute(
                rs.getLong("id"),
                rs.getLong("payment_id"),
                rs.getLong("movement_id"),
                new ClientId(rs.getLong("client_id")),
                Ids.document(rs, "document_id"),
                Amount.ofMinor(currency, rs.getLong("amount_minor")),
                Amount.ofMinor(currency, rs.getLong("cost_minor")),
                rs.getString("reason"),
                StoredWord.of(Dispute.State.class, rs.getString("state")),
                new Dispute.Days(
                        Rows.date(rs, "opened_on"),
                        Rows.date(rs, "answer_by"),
                        Rows.date(rs, "answered_on"),
                        Rows.date(rs, "decided_on")),
                rs.getString("evidence"),
                new Dispute.AtProcessor(rs.getLong("at_processor"), rs.getString("contest")));
    }

    @Bean
    ClientRows disputesOfClients() {
        return ClientRows.of(jdbc, "dispute");
    }
}
