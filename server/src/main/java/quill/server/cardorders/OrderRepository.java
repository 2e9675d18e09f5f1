package quill.server.cardorders;

import java.time.Instant;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.core.pay.CollectionAgreement;
import quill.core.pay.WayToPay;
import quill.server.common.ClientRows;
import quill.server.payments.Payer;
import quill.server.savedmethods.Agreed;

/** Tables PROCESSOR_ORDER and ORDER_DEBT. Holds no rules; the caller opens the transaction. */
@Repository
class OrderRepository {
    static final String SELECT = """
            SELECT id, order_key, document_id, client_id, link_id, link_payment_id, currency, amount_minor, state, at_processor, test, order_id,
                   pay_at, declined, trouble, opened_at, asked_at, takes, paid_with, expected_on, holds, method_id,
                   keep_how, keep_collects, keep_most_minor, keep_words, tip_minor, surcharge_minor, surcharge_tax_minor, surcharge_tax,
                   (SELECT LISTAGG(debt_id || ':' || amount_minor, ',') FROM order_debt d WHERE d.order_id = o.id) AS parts
              FROM processor_order o
            """;

    static final String UNENDED =
            "state IN ('wanted', 'open', 'withdrawing', 'underway', 'held', 'taking', 'releasing')";

    private final JdbcClient jdbc;

    OrderRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Where an order is. @param test whether no money moves */
    record At(long processor, boolean test) {}

    /**
     * How it may be paid, and what brings it.
     *
     * @param holds whether a card's money is only held
     * @param expectedOn when a bank debit is certain, or the last day of what is held; null for others
     * @param keep what was agreed where what pays it is kept; else null
     * @param onTop what of the amount is for no debt: a tip, and what is asked for paying by card
     * @param from the saved method that it is taken from; else null
     */
    record Means(
            Set<WayToPay> takes,
            boolean holds,
            String with,
            LocalDate expectedOn,
            Instant openedAt,
            Agreed keep,
            Long from,
            OnTop onTop) {}

    /** Whoever was about to pay an order last, as typed on its page. */
    void payer(long id, Payer payer) {
        jdbc.sql("UPDATE processor_order SET payer_name = :name, payer_email = :email WHERE id = :id")
                .param("name", payer.name())
                .param("email", payer.email())
                .param("id", id)
                .update();
    }

    /** What was typed of whoever pays an order. */
    Payer payerOf(long id) {
        return jdbc.sql("SELECT payer_name, payer_email FROM processor_order WHERE id = :id")
                .param("id", id)
                .query((rs, n) -> new Payer(rs.getString(1), rs.getString(2)))
                .single();
    }

    /** What an order is for, and whose it is. */
    record Whose(DocumentId invoiceId, ClientId clientId, Long link, Long linkPayment) {}

    /** An order of ours. @param orderId as the processor calls it; null before it answered */
    record Order(
            long id,
            At at,
            String key,
            Whose whose,
            Map<Long, Money> parts,
            Money amount,
            Means means,
            OrderState state,
            String orderId,
            String payAt,
            Trouble trouble) {
        /** What it is for; null for a payment link. */
        DocumentId invoiceId() {
            return whose.invoiceId();
        }

        /** Whose it is; null as long as nobody paid through a link. */
        ClientId clientId() {
            return whose.clientId();
        }

        /** What was begun on the page of a payment link; null for a document. */
        Long linkPayment() {
            return whose.linkPayment();
        }

        /** The amount without what is on top. */
        Money owed() {
            return amount.minus(means.onTop().sum());
        }

        /** The latest refusal; null or empty for none. */
        String declined() {
            return trouble.declined();
        }
    }

    /** What went wrong with it: a refusal, and why its money could not be booked; nulls for nothing. */
    record Trouble(String declined, String unbooked) {}

    long insert(
            String key,
            At at,
            Whose whose,
            Map<Long, Money> parts,
            Money amount,
            Set<WayToPay> takes,
            HowPaid how,
            Instant opened) {
        OnTop top = how.onTop(amount.getCurrencyUnit());
        CollectionAgreement keep =
                how.keep() == null ? CollectionAgreement.OWN_USE : how.keep().agreement();
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO processor_order (kind, order_key, document_id, client_id, link_id, link_payment_id, currency, amount_minor, state, made_at,
                  opened_at, at_processor, test, takes, holds, method_id, keep_how, keep_collects, keep_most_minor, keep_words,
                  tip_minor, surcharge_minor, surcharge_tax_minor, surcharge_tax)
                VALUES ('PAY', :key, :invoice, :client, :link, :linkPayment, :currency, :amount, 'wanted', :now, :opened, :processor, :test, :takes, :holds,
                  :method, :how, :collects, :most, :words, :tip, :surcharge, :ofSurcharge, :surchargeTax)
                """)
                .param("holds", how.hold())
                .param("tip", top.tip())
                .param("surcharge", top.surcharge())
                .param("ofSurcharge", top.tax())
                .param("surchargeTax", top.taxId())
                .param("method", how.from() == null ? null : how.from().id())
                .param("how", how.keep() == null ? null : how.keep().how().word())
                .param("collects", keep.collects())
                .param("most", keep.most())
                .param("words", how.keep() == null ? "" : how.keep().words())
                .param("takes", takes.stream().sorted().map(Enum::name).collect(Collectors.joining(" ")))
                .param("key", key)
                .param("processor", at.processor())
                .param("test", at.test())
                .param("invoice", whose.invoiceId())
                .param("client", whose.clientId())
                .param("link", whose.link())
                .param("linkPayment", whose.linkPayment())
                .param("currency", amount.getCurrencyUnit().getCode())
                .param("amount", amount)
                .param("now", Instant.now())
                .param("opened", opened)
                .update(id, "id");
        long order = id.getKey().longValue();
        parts.forEach((debt, part) -> jdbc.sql(
                        "INSERT INTO order_debt (order_id, debt_id, amount_minor) VALUES (:order, :debt, :amount)")
                .param("order", order)
                .param("debt", debt)
                .param("amount", part)
                .update());
        return order;
    }

    Optional<Order> find(long id) {
        return one("WHERE id = :key", id);
    }

    Optional<Order> lock(long id) {
        return one("WHERE id = :key FOR UPDATE", id);
    }

    Optional<Order> byKey(String key) {
        return one("WHERE order_key = :key", key);
    }

    /** A bank debit is on its way, or a card's money is held. @param with which account or card, in words */
    void coming(long id, String with, LocalDate expectedOn) {
        jdbc.sql("UPDATE processor_order SET paid_with = :with, expected_on = :on WHERE id = :id")
                .param("with", with)
                .param("on", expectedOn)
                .param("id", id)
                .update();
    }

    /** Those in a state that are no trial. @param invoiceId of one document, or null for all */
    List<Order> in(OrderState state, DocumentId invoiceId) {
        Map<String, Object> of = new HashMap<>(Map.of("state", state.word()));
        if (invoiceId != null) {
            of.put("invoice", invoiceId);
        }
        return jdbc.sql(SELECT + "WHERE state = :state AND NOT test"
                        + (invoiceId == null ? "" : " AND document_id = :invoice") + " ORDER BY id DESC LIMIT 200")
                .params(of)
                .query(OrderRows::order)
                .list();
    }

    /** Whether the order that was begun last for a document brought money, or is bringing it. */
    boolean broughtLast(DocumentId invoiceId) {
        return jdbc.sql("SELECT state FROM processor_order WHERE document_id = :invoice ORDER BY id DESC LIMIT 1")
                .param("invoice", invoiceId)
                .query(String.class)
                .optional()
                .filter(state -> Set.of("paid", "underway", "held").contains(state))
                .isPresent();
    }

    /** By what the processor calls it. */
    Optional<Order> find(long processor, String orderId) {
        return jdbc.sql(SELECT + "WHERE at_processor = :processor AND order_id = :order")
                .param("processor", processor)
                .param("order", orderId)
                .query(OrderRows::order)
                .optional();
    }

    /** Orders at a processor that can still be paid, as far as we know. */
    List<Order> liveAt(long processor) {
        return live("at_processor", processor);
    }

    private Optional<Order> one(String which, Object key) {
        return jdbc.sql(SELECT + which)
                .param("key", key)
                .query(OrderRows::order)
                .optional();
    }

    /** Orders of an invoice that can still be paid, as far as we know. */
    List<Order> liveOf(DocumentId invoiceId) {
        return live("document_id", invoiceId);
    }

    /** Latest first. @param column one of ours, never what was typed */
    private List<Order> live(String column, Object of) {
        return jdbc.sql(SELECT + "WHERE " + column + " = :of AND state IN ('wanted', 'open') ORDER BY id DESC")
                .param("of", of)
                .query(OrderRows::order)
                .list();
    }

    /** Orders whose end we do not know yet, whoever was asked about longest ago first; each once in a round. */
    List<Order> unended(Instant notSince, int most) {
        String notYet = " AND (polled_at IS NULL OR polled_at < :since) ORDER BY polled_at NULLS FIRST, id LIMIT :most";
        return jdbc.sql(SELECT + "WHERE " + UNENDED + notYet)
                .param("since", notSince)
                .param("most", most)
                .query(OrderRows::order)
                .list();
    }

    /** How many orders of an invoice have no known end. */
    int countUnended(DocumentId invoiceId) {
        return jdbc.sql("""
                SELECT COUNT(*) FROM processor_order
                 WHERE document_id = :invoice AND state IN ('wanted', 'open', 'withdrawing')
                """).param("invoice", invoiceId).query(Integer.class).single();
    }

    /** The processor is about to be asked, by the system's clock. */
    void polled(long id, Instant at) {
        jdbc.sql("UPDATE processor_order SET polled_at = :at WHERE id = :id")
                .param("at", at)
                .param("id", id)
                .update();
    }

    /** Why what the processor says could not be booked; null once it is. */
    void trouble(long id, String why) {
        jdbc.sql(
                        "UPDATE processor_order SET trouble = :why WHERE id = :id AND COALESCE(trouble, '') <> COALESCE(:why, '')")
                .param("why", why)
                .param("id", id)
                .update();
    }

    /** Orders with money that could not be booked. */
    List<Order> troubled() {
        return jdbc.sql(SELECT + "WHERE " + UNENDED + " AND trouble IS NOT NULL ORDER BY id LIMIT 50")
                .query(OrderRows::order)
                .list();
    }

    /** Whether an order was made so many minutes ago or more, by the system's clock. */
    boolean isOlder(long id, int minutes) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM processor_order
                         WHERE id = :id AND made_at <= DATEADD('MINUTE', -:minutes, CURRENT_TIMESTAMP)
                        """)
                        .param("id", id)
                        .param("minutes", minutes)
                        .query(Long.class)
                        .single()
                > 0;
    }

    void opened(long id, String orderId, String payAt) {
        jdbc.sql("""
                UPDATE processor_order
                   SET order_id = :order, pay_at = :payAt,
                       state = CASE WHEN state = 'wanted' THEN 'open' ELSE state END
                 WHERE id = :id
                """)
                .param("order", orderId)
                .param("payAt", payAt)
                .param("id", id)
                .update();
    }

    /** The processor told how an order stands. */
    void asked(long id, Instant at) {
        jdbc.sql("UPDATE processor_order SET asked_at = :at WHERE id = :id")
                .param("at", at)
                .param("id", id)
                .update();
    }

    int move(long id, OrderState to, Set<OrderState> from) {
        return jdbc.sql("UPDATE processor_order SET state = :to WHERE id = :id AND state IN (:from)")
                .param("to", to)
                .param("id", id)
                .param("from", from.stream().map(OrderState::word).toList())
                .update();
    }

    void declined(long id, String reason) {
        jdbc.sql("UPDATE processor_order SET declined = :reason WHERE id = :id")
                .param("reason", reason)
                .param("id", id)
                .update();
    }

    /** Whether an order was made less than a minute ago: somebody may be opening it just now. */
    boolean isYoung(long id) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM processor_order
                         WHERE id = :id AND made_at > DATEADD('SECOND', -60, CURRENT_TIMESTAMP)
                        """).param("id", id).query(Long.class).single() > 0;
    }

    @Bean
    ClientRows ordersOfClients() {
        return ClientRows.of(jdbc, "processor_order");
    }
}
