package quill.server.payments;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.PaymentWay;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Rows;

/** Table MOVEMENT. Holds no rules; the caller opens the transaction. */
@Repository
class PaymentRepository {
    private static final String SELECT = """
            SELECT id, client_id, invoice_id, way, currency, amount_minor, cost_minor, value_on, booked_on, reference,
                   card, undone_on, undone_why, unexpected, held, payer_name, payer_email
              FROM movement
            """;

    private final JdbcClient jdbc;

    PaymentRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    record New(
            String requestKey,
            ClientId clientId,
            DocumentId invoiceId,
            PaymentWay way,
            Money amount,
            Money fee,
            LocalDate valueOn,
            LocalDate bookedOn,
            String reference,
            String card,
            String processorPayment,
            boolean held) {
        /** The same for another document, or none; held as a deposit or not. */
        New becomes(DocumentId document, boolean heldNow) {
            return new New(
                    requestKey,
                    clientId,
                    document,
                    way,
                    amount,
                    fee,
                    valueOn,
                    bookedOn,
                    reference,
                    card,
                    processorPayment,
                    heldNow);
        }
    }

    long insert(New p, PaymentNames.Names names, Instant now) {
        return insert("RECEIPT", p, names, now);
    }

    /** Money that went back. */
    long insertRefund(New p, PaymentNames.Names names, Instant now) {
        return insert("REFUND", p, names, now);
    }

    /** What went back of deposits that were held for a quote. */
    Money refundedFor(DocumentId quoteId, CurrencyUnit currency) {
        return Money.ofMinor(
                currency,
                jdbc.sql("""
                        SELECT COALESCE(SUM(amount_minor), 0) FROM movement
                         WHERE invoice_id = :quote AND kind = 'REFUND' AND held
                        """).param("quote", quoteId).query(Long.class).single());
    }

    private long insert(String kind, New p, PaymentNames.Names names, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO movement (kind, request_key, client_id, client_name, invoice_id, number, way, currency, amount_minor,
                  cost_minor, value_on, booked_on, booked_at, reference, card, processor_payment, held)
                VALUES (:kind, :key, :client, :clientName, :invoice, :number, :way, :currency, :amount, :fee, :valueOn, :bookedOn,
                  :bookedAt, :reference, :card, :processorPayment, :held)
                """)
                .param("kind", kind)
                .param("key", p.requestKey())
                .param("client", p.clientId())
                .param("clientName", names.client())
                .param("invoice", p.invoiceId())
                .param("number", names.number())
                .param("way", p.way())
                .param("currency", p.amount().getCurrencyUnit().getCode())
                .param("amount", p.amount())
                .param("fee", p.fee())
                .param("valueOn", p.valueOn())
                .param("bookedOn", p.bookedOn())
                .param("bookedAt", now)
                .param("reference", p.reference())
                .param("card", p.card())
                .param("processorPayment", p.processorPayment())
                .param("held", p.held())
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** @return rows changed: none where it was undone already */
    int undo(long id, LocalDate on, String why) {
        return jdbc.sql("""
                UPDATE movement SET undone_on = :on, undone_why = :why, unexpected = FALSE
                 WHERE id = :id AND undone_on IS NULL
                """).param("on", on).param("why", why).param("id", id).update();
    }

    void unexpected(long id) {
        jdbc.sql("UPDATE movement SET unexpected = TRUE WHERE id = :id")
                .param("id", id)
                .update();
    }

    int noted(long id) {
        return jdbc.sql("UPDATE movement SET unexpected = FALSE WHERE id = :id AND unexpected")
                .param("id", id)
                .update();
    }

    Optional<Payment> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id")
                .param("id", id)
                .query(PaymentRepository::payment)
                .optional();
    }

    Optional<Payment> byKey(String key) {
        return jdbc.sql(SELECT + " WHERE request_key = :key")
                .param("key", key)
                .query(PaymentRepository::payment)
                .optional();
    }

    /** Clients of whom money came with a reference that has this text, in small letters. */
    Set<ClientId> clientsOfReference(String text) {
        return Set.copyOf(jdbc.sql("""
                SELECT DISTINCT client_id FROM movement
                 WHERE reference <> '' AND LOCATE(:text, LOWER(reference)) > 0
                """)
                .param("text", text)
                .query((rs, n) -> new ClientId(rs.getLong(1)))
                .list());
    }

    List<Payment> ofClient(ClientId clientId) {
        return jdbc.sql(SELECT + " WHERE client_id = :client AND kind = 'RECEIPT' ORDER BY id DESC LIMIT 500")
                .param("client", clientId)
                .query(PaymentRepository::payment)
                .list();
    }

    /** The latest, newest first. @param clientId of one client, or null for all */
    List<Payment> latest(ClientId clientId, int most) {
        return jdbc.sql(SELECT + " WHERE kind = 'RECEIPT'" + (clientId == null ? "" : " AND client_id = :client")
                        + " ORDER BY id DESC LIMIT :most")
                .params(clientId == null ? Map.of("most", most) : Map.of("most", most, "client", clientId))
                .query(PaymentRepository::payment)
                .list();
    }

    /** @param payers payments that settled any of it */
    List<Payment> ofInvoice(DocumentId invoiceId, List<Long> payers) {
        return jdbc.sql(SELECT
                        + " WHERE (invoice_id = :invoice OR id IN (:payers)) AND kind = 'RECEIPT' ORDER BY id DESC")
                .param("invoice", invoiceId)
                .param("payers", payers.isEmpty() ? List.of(0L) : payers)
                .query(PaymentRepository::payment)
                .list();
    }

    List<Payment> unexpected() {
        return jdbc.sql(SELECT + " WHERE unexpected ORDER BY id")
                .query(PaymentRepository::payment)
                .list();
    }

    private static Payment payment(ResultSet rs, int row) throws SQLException {
        String currency = rs.getString("currency");
        LocalDate undoneOn = Rows.date(rs, "undone_on");
        return new Payment(
                rs.getLong("id"),
                new ClientId(rs.getLong("client_id")),
                Ids.document(rs, "invoice_id"),
                new Payment.Means(
                        PaymentWay.valueOf(rs.getString("way")), rs.getString("reference"), rs.getString("card")),
                Amount.ofMinor(currency, rs.getLong("amount_minor")),
                Amount.ofMinor(currency, rs.getLong("cost_minor")),
                rs.getDate("value_on").toLocalDate(),
                rs.getDate("booked_on").toLocalDate(),
                undoneOn == null ? null : new Payment.Undone(undoneOn, rs.getString("undone_why")),
                rs.getBoolean("unexpected"),
                rs.getBoolean("held"),
                payer(rs));
    }

    private static Payer payer(ResultSet rs) throws SQLException {
        Payer payer = new Payer(rs.getString("payer_name"), rs.getString("payer_email"));
        return payer.isNobody() ? null : payer;
    }

    void payer(long id, Payer payer) {
        jdbc.sql("UPDATE movement SET payer_name = :name, payer_email = :email WHERE id = :id")
                .param("name", payer.name())
                .param("email", payer.email())
                .param("id", id)
                .update();
    }

    @EventListener
    void renamed(ClientsService.ClientRenamed client) {
        ClientRows.rename(jdbc, "movement", client.id(), client.name());
    }

    @Bean
    ClientRows paymentsOfClients() {
        return ClientRows.named(jdbc, "movement");
    }
}
