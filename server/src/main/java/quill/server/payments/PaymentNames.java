package quill.server.payments;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.documents.Documents;

/** What stands beside a payment of whom and what it was for, so that lists of payments read nothing else. */
@Component
class PaymentNames {
    private final ClientsService clients;
    private final Documents documents;

    PaymentNames(ClientsService clients, Documents documents) {
        this.clients = clients;
        this.documents = documents;
    }

    /** @param number of the invoice that it was for; null where it was for none */
    record Names(String client, String number) {}

    /** Names the field where a document is none of a client's. */
    void check(String field, ClientId clientId, DocumentId documentId, List<Problem> problems) {
        if (documentId != null
                && documents
                        .find(documentId)
                        .filter(d -> clientId.equals(d.clientId()))
                        .isEmpty()) {
            problems.add(new Problem(field, documentId.toString(), "is no document of this client"));
        }
    }

    /** @param invoiceId null where it was for none */
    Names of(ClientId clientId, DocumentId invoiceId) {
        return new Names(
                clients.client(clientId).name(),
                invoiceId == null
                        ? null
                        : documents.find(invoiceId).orElseThrow().number());
    }
}
