package quill.server.payments;

import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import org.springframework.context.annotation.Bean;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.dispatch.OnTrial;
import quill.server.processor.Processors;

/** What was paid on trial, table TEST_PAYMENT: in no sum, no account and no receipt. */
@Repository
public class TestPayments implements OnTrial {
    private final JdbcClient jdbc;
    private final Processors processors;
    private final PaymentNames names;

    TestPayments(JdbcClient jdbc, Processors processors, PaymentNames names) {
        this.jdbc = jdbc;
        this.names = names;
        this.processors = processors;
    }

    /** One of them. @param orderKey the key of its order, which is noted once */
    public record TestPayment(
            String orderKey,
            long processor,
            ClientId clientId,
            DocumentId invoiceId,
            Amount amount,
            LocalDate paidOn,
            String card) {}

    /** Notes one, within the caller's transaction. */
    public void note(TestPayment p) {
        PaymentNames.Names of = names.of(p.clientId(), p.invoiceId());
        jdbc.sql("""
                INSERT INTO test_payment (order_key, at_processor, client_id, client_name, invoice_id, number, currency, amount_minor,
                  paid_on, card)
                VALUES (:key, :processor, :client, :clientName, :invoice, :number, :currency, :amount, :paidOn, :card)
                """)
                .param("clientName", of.client())
                .param("number", of.number())
                .param("key", p.orderKey())
                .param("processor", p.processor())
                .param("client", p.clientId())
                .param("invoice", p.invoiceId())
                .param("currency", p.amount().currency())
                .param("amount", p.amount().money())
                .param("paidOn", p.paidOn())
                .param("card", p.card())
                .update();
    }

    @Override
    public List<Tried> of(DocumentId invoiceId) {
        Set<Long> inTest = processors.inTest();
        return inTest.isEmpty()
                ? List.of()
                : jdbc.sql("""
                        SELECT paid_on, card, currency, amount_minor FROM test_payment
                         WHERE invoice_id = :invoice AND at_processor IN (:processors) ORDER BY id DESC
                        """)
                        .param("invoice", invoiceId)
                        .param("processors", inTest)
                        .query((rs, n) -> new Tried(
                                rs.getDate("paid_on").toLocalDate(),
                                "by card, " + rs.getString("card"),
                                Amount.ofMinor(rs.getString("currency"), rs.getLong("amount_minor"))))
                        .list();
    }

    /** Static, since whoever joins clients is needed here too. */
    @Bean
    static ClientRows testPaymentsOfClients(JdbcClient jdbc) {
        return ClientRows.named(jdbc, "test_payment");
    }

    @EventListener
    void renamed(ClientsService.ClientRenamed client) {
        ClientRows.rename(jdbc, "test_payment", client.id(), client.name());
    }
}
