package quill.server.payments;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
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
import quill.core.ledger.OnTop;
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
                   card, undone_on, undone_why, unexpected, held, payer_name, payer_email, back_minor, stands, payout_id,
                   (SELECT SUM(t.tip_minor) FROM on_top t WHERE t.movement_id = movement.id) AS tip,
                   (SELECT SUM(t.surcharge_minor) FROM on_top t WHERE t.movement_id = movement.id) AS surcharge,
                   (SELECT SUM(t.tax_minor) FROM on_top t WHERE t.movement_id = movement.id) AS surcharge_tax
              FROM movement
            """;

    private final JdbcClient jdbc;

    PaymentRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** What a processor says of it. @param number its own @param onTop what came with it beside the amount */
    record Online(String card, String number, OnTop onTop) {
        /** Of money that a person records. */
        static Online none(Money amount) {
            return new Online("", null, OnTop.nothing(amount.getCurrencyUnit()));
        }
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
            Online online,
            boolean held) {
        /** The same for another document, or none; held as a deposit or not. */
        New becomes(DocumentId document, boolean heldNow) {
            return new New(
                    requestKey, clientId, document, way, amount, fee, valueOn, bookedOn, reference, online, heldNow);
        }
    }

    long insert(New p, PaymentNames.Names names, Instant now) {
        return insert("RECEIPT", p, names, now);
    }

    /** Money that went back. */
    long insertRefund(New p, PaymentNames.Names names, Instant now) {
        return insert("REFUND", p, names, now);
    }

    /**
     * Money that went, or came again, because of a payment.
     *
     * @param of key of the payment
     * @param way as the payment's where it is null
     */
    record Later(
            String kind,
            long of,
            String key,
            PaymentWay way,
            Money amount,
            Money cost,
            LocalDate valueOn,
            LocalDate bookedOn,
            String reference) {}

    long insert(Later l, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO movement (kind, request_key, client_id, client_name, invoice_id, number, way, currency,
                  amount_minor, cost_minor, value_on, booked_on, booked_at, reference, card, held, of_id)
                SELECT :kind, :key, client_id, client_name, invoice_id, number, COALESCE(:way, way), currency, :amount, :cost,
                  :valueOn, :bookedOn, :bookedAt, :reference, CASE WHEN :way IS NULL THEN card ELSE '' END, held, id
                  FROM movement WHERE id = :of
                """)
                .param("kind", l.kind())
                .param("key", l.key())
                .param("way", l.way())
                .param("amount", l.amount())
                .param("cost", l.cost())
                .param("valueOn", l.valueOn())
                .param("bookedOn", l.bookedOn())
                .param("bookedAt", now)
                .param("reference", l.reference())
                .param("of", l.of())
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** A sum that a processor paid out. */
    long insertPayout(String key, Money amount, LocalDate on, LocalDate bookedOn, Instant now) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO movement (kind, request_key, client_name, currency, amount_minor, value_on, booked_on, booked_at)
                VALUES ('PAYOUT', :key, '', :currency, :amount, :on, :bookedOn, :now)
                """)
                .param("key", key)
                .param("currency", amount.getCurrencyUnit().getCode())
                .param("amount", amount)
                .param("on", on)
                .param("bookedOn", bookedOn)
                .param("now", now)
                .update(id, "id");
        return id.getKey().longValue();
    }

    void paidOut(Set<Long> payments, long payout) {
        if (!payments.isEmpty()) {
            jdbc.sql("UPDATE movement SET payout_id = :payout WHERE id IN (:ids)")
                    .param("payout", payout)
                    .param("ids", payments)
                    .update();
        }
    }

    /** So much more of a payment went back; less where it is below zero. @param stands empty for as money that came */
    void wentBack(long id, Money more, Payment.Stands stands) {
        jdbc.sql("UPDATE movement SET back_minor = back_minor + :more, stands = :stands WHERE id = :id")
                .param("more", more)
                .param("stands", stands.word())
                .param("id", id)
                .update();
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
                .param("card", p.online().card())
                .param("processorPayment", p.online().number())
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

    /** Whether any movement has this key. */
    boolean isUsed(String key) {
        return jdbc.sql("SELECT COUNT(*) FROM movement WHERE request_key = :key")
                        .param("key", key)
                        .query(Long.class)
                        .single()
                > 0;
    }

    /** A payment; other movements have keys of the same kind, and are none. */
    Optional<Payment> find(long id) {
        return some(List.of(id)).stream().findFirst();
    }

    /** Something that went, or came again, because of a payment. */
    record LaterRow(long id, String kind, PaymentWay way, Money amount, Money cost, LocalDate on, String reference) {}

    List<LaterRow> later(long paymentId) {
        return jdbc.sql("""
                SELECT id, kind, way, currency, amount_minor, cost_minor, value_on, reference FROM movement
                 WHERE of_id = :id ORDER BY id
                """)
                .param("id", paymentId)
                .query((rs, n) -> new LaterRow(
                        rs.getLong("id"),
                        rs.getString("kind"),
                        PaymentWay.valueOf(rs.getString("way")),
                        Amount.ofMinor(rs.getString("currency"), rs.getLong("amount_minor"))
                                .money(),
                        Amount.ofMinor(rs.getString("currency"), rs.getLong("cost_minor"))
                                .money(),
                        Rows.date(rs, "value_on"),
                        rs.getString("reference")))
                .list();
    }

    /** The processor's own number of a payment. */
    Optional<String> processorsNumber(long id) {
        return jdbc.sql("SELECT processor_payment FROM movement WHERE id = :id AND processor_payment IS NOT NULL")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    /** The payment because of which a movement is. */
    Optional<Long> ofMovement(long id) {
        return jdbc.sql("SELECT of_id FROM movement WHERE id = :id AND of_id IS NOT NULL")
                .param("id", id)
                .query(Long.class)
                .optional();
    }

    /** Each movement with the payment because of which it is, or itself. */
    Map<Long, Long> ofMovements(Collection<Long> ids) {
        Map<Long, Long> of = new HashMap<>();
        jdbc.sql("SELECT id, COALESCE(of_id, id) FROM movement WHERE id IN (:ids)")
                .param("ids", ids)
                .query((rs, n) -> of.put(rs.getLong(1), rs.getLong(2)))
                .list();
        return of;
    }

    List<Payment> some(Collection<Long> ids) {
        return ids.isEmpty()
                ? List.of()
                : jdbc.sql(SELECT + " WHERE id IN (:ids) AND kind = 'RECEIPT'")
                        .param("ids", ids)
                        .query(PaymentRepository::payment)
                        .list();
    }

    /** The key under which a movement was recorded. */
    String keyOf(long id) {
        return jdbc.sql("SELECT request_key FROM movement WHERE id = :id")
                .param("id", id)
                .query(String.class)
                .single();
    }

    Optional<Payment> byKey(String key) {
        return jdbc.sql(SELECT + " WHERE request_key = :key AND kind = 'RECEIPT'")
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
                        PaymentWay.valueOf(rs.getString("way")),
                        rs.getString("reference"),
                        rs.getString("card"),
                        payer(rs),
                        rs.getObject("tip") == null
                                ? null
                                : new Payment.Extra(
                                        Amount.ofMinor(currency, rs.getLong("tip")),
                                        Amount.ofMinor(currency, rs.getLong("surcharge")),
                                        Amount.ofMinor(currency, rs.getLong("surcharge_tax")))),
                Amount.ofMinor(currency, rs.getLong("amount_minor")),
                Amount.ofMinor(currency, rs.getLong("cost_minor")),
                rs.getDate("value_on").toLocalDate(),
                rs.getDate("booked_on").toLocalDate(),
                undoneOn == null ? null : new Payment.Undone(undoneOn, rs.getString("undone_why")),
                rs.getBoolean("unexpected"),
                rs.getBoolean("held"),
                new Payment.Back(
                        Amount.ofMinor(currency, rs.getLong("back_minor")),
                        Payment.Stands.of(rs.getString("stands")),
                        rs.getObject("payout_id", Long.class)));
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
