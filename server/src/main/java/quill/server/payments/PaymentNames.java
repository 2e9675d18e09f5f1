package quill.server.payments;

import org.springframework.stereotype.Component;
import quill.server.clients.ClientsService;
import quill.server.invoices.InvoicesService;

/** What stands beside a payment of whom and what it was for, so that lists of payments read nothing else. */
@Component
class PaymentNames {
    private final ClientsService clients;
    private final InvoicesService invoices;

    PaymentNames(ClientsService clients, InvoicesService invoices) {
        this.clients = clients;
        this.invoices = invoices;
    }

    /** @param number of the invoice that it was for; null where it was for none */
    record Names(String client, String number) {}

    Names of(PaymentRepository.New p) {
        return new Names(
                clients.client(p.clientId()).name(),
                p.invoiceId() == null ? null : invoices.invoice(p.invoiceId()).number());
    }
}
