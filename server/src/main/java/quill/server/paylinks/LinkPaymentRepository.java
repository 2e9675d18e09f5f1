package quill.server.paylinks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.payments.Payer;

/** Tables LINK_PAYMENT and NEW_PAYER_TURN. Holds no rules; the caller opens the transaction. */
@Repository
class LinkPaymentRepository {
    private static final String SELECT = """
            SELECT id, link_id, token, client_id, payer_name, payer_email, answers, terms, title, currency, amount_minor,
                   delivery_minor, begun_on, invoice_id
              FROM link_payment
            """;

    private final JdbcClient jdbc;
    private final Json json;

    LinkPaymentRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /**
     * What somebody was about to pay, or paid.
     *
     * @param token the payer's own
     * @param clientId null as long as nothing came
     * @param terms that were accepted, as they stood
     * @param delivery how much of the amount is for delivery
     * @param invoiceId what became of it; null for nothing
     */
    record Begun(
            long id,
            long linkId,
            String token,
            ClientId clientId,
            Payer payer,
            List<PaymentLink.FilledIn> answers,
            String terms,
            String title,
            Money amount,
            Money delivery,
            LocalDate begunOn,
            DocumentId invoiceId) {
        /** Whether it is the same payment. */
        boolean isSame(Begun other) {
            return linkId == other.linkId
                    && payer.equals(other.payer)
                    && answers.equals(other.answers)
                    && amount.isEqual(other.amount);
        }
    }

    long insert(String key, Begun b) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO link_payment (link_id, token, pay_key, client_id, payer_name, payer_email, answers, terms, title,
                  currency, amount_minor, delivery_minor, begun_on)
                VALUES (:link, :token, :key, :client, :name, :email, :answers, :terms, :title, :currency, :amount, :delivery, :on)
                """)
                .param("link", b.linkId())
                .param("token", b.token())
                .param("key", key)
                .param("client", b.clientId())
                .param("name", b.payer().name())
                .param("email", b.payer().email())
                .param("answers", json.write(b.answers()))
                .param("terms", b.terms())
                .param("title", b.title())
                .param("currency", b.amount().getCurrencyUnit().getCode())
                .param("amount", b.amount())
                .param("delivery", b.delivery())
                .param("on", b.begunOn())
                .update(id, "id");
        return id.getKey().longValue();
    }

    Optional<Begun> find(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id")
                .param("id", id)
                .query(this::begun)
                .optional();
    }

    Optional<Begun> lock(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id FOR UPDATE")
                .param("id", id)
                .query(this::begun)
                .optional();
    }

    Optional<Begun> byKey(long link, String key) {
        return jdbc.sql(SELECT + "WHERE link_id = :link AND pay_key = :key")
                .param("link", link)
                .param("key", key)
                .query(this::begun)
                .optional();
    }

    Optional<Begun> byToken(long link, String token) {
        return jdbc.sql(SELECT + "WHERE link_id = :link AND token = :token")
                .param("link", link)
                .param("token", token)
                .query(this::begun)
                .optional();
    }

    /** All of a link, the latest first. */
    List<Begun> of(long link) {
        return jdbc.sql(SELECT + "WHERE link_id = :link ORDER BY id DESC")
                .param("link", link)
                .query(this::begun)
                .list();
    }

    /** Those of somebody known, with taxes inside, that became no invoice, or one that was taken back; the latest first. */
    List<Begun> withoutInvoice() {
        return jdbc.sql(SELECT + """
                WHERE client_id IS NOT NULL AND invoice_id IS NULL
                  AND EXISTS (SELECT 1 FROM payment_link l WHERE l.id = link_id AND l.taxes <> '')
                ORDER BY id DESC LIMIT 60
                """).query(this::begun).list();
    }

    void becomes(long id, ClientId client) {
        jdbc.sql("UPDATE link_payment SET client_id = :client WHERE id = :id")
                .param("client", client)
                .param("id", id)
                .update();
    }

    void invoiced(long id, DocumentId invoice) {
        jdbc.sql("UPDATE link_payment SET invoice_id = :invoice WHERE id = :id")
                .param("invoice", invoice)
                .param("id", id)
                .update();
    }

    /** From now on until the transaction ends nobody else makes a client of somebody who paid. */
    void takeTurn() {
        jdbc.sql("UPDATE new_payer_turn SET one = one").update();
    }

    private Begun begun(ResultSet rs, int row) throws SQLException {
        return new Begun(
                rs.getLong("id"),
                rs.getLong("link_id"),
                rs.getString("token"),
                Ids.client(rs, "client_id"),
                new Payer(rs.getString("payer_name"), rs.getString("payer_email")),
                List.of(json.read(rs.getString("answers"), PaymentLink.FilledIn[].class)),
                rs.getString("terms"),
                rs.getString("title"),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("amount_minor")),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("delivery_minor")),
                rs.getDate("begun_on").toLocalDate(),
                Ids.document(rs, "invoice_id"));
    }
}
