package quill.server.dispatch;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.server.books.BooksService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.letters.Written;

/** Credit notes, with the letters that bring them. */
@Service
public class CreditLetters {
    private final Letters letters;
    private final MessageQueue queue;
    private final InvoicesService invoices;
    private final Crediting crediting;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;

    CreditLetters(
            Letters letters,
            MessageQueue queue,
            InvoicesService invoices,
            Crediting crediting,
            ClientsService clients,
            BooksService books,
            Debts debts) {
        this.letters = letters;
        this.queue = queue;
        this.invoices = invoices;
        this.crediting = crediting;
        this.clients = clients;
        this.books = books;
        this.debts = debts;
    }

    /** Takes an invoice back, whole or in part, and tells the client, if it has an address. */
    @Transactional
    public Crediting.Written credit(DocumentId id, Crediting.Wanted wanted) {
        Crediting.Written note = crediting.write(id, wanted);
        Document invoice = invoices.invoice(id);
        Client client = clients.client(invoice.clientId());
        if (!client.email().isEmpty()) {
            CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
            Written written = letters.creditNote(
                    invoice,
                    note.note(),
                    new DocumentFacts.Became(
                            note.settled(),
                            books.creditOf(client.id(), currency),
                            debts.waitingCreditOf(client.id(), currency)));
            String key = "credit note:" + note.note().id();
            queue.add(
                    MessageDraft.of(key, MessageKind.CREDIT_NOTE, client.id(), invoice.id(), client.email(), written)
                            .about(List.of(note.note().id()))
                            .with(List.of(Enclosed.creditNote(
                                    note.note().id(), note.note().number()))),
                    Slip.PLAIN);
        }
        return note;
    }
}
