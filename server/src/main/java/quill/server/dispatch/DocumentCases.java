package quill.server.dispatch;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.server.books.BooksService;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.letters.LetterFacts;

/** Invoices and credit notes, to look at their letters with. */
@Component
class DocumentCases implements LetterCases {
    private static final Set<LetterKind> KINDS = EnumSet.of(
            LetterKind.INVOICE,
            LetterKind.TEXT_INVOICE,
            LetterKind.CREDIT_NOTE,
            LetterKind.ARRANGED,
            LetterKind.PAGE_WAITING,
            LetterKind.PAGE_GIVEN_UP);
    private final Documents documents;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final DocumentFacts facts;
    private final BooksService books;
    private final Debts debts;

    DocumentCases(
            Documents documents,
            InvoicesService invoices,
            CreditNotes notes,
            DocumentFacts facts,
            BooksService books,
            Debts debts) {
        this.documents = documents;
        this.invoices = invoices;
        this.notes = notes;
        this.facts = facts;
        this.books = books;
        this.debts = debts;
    }

    @Override
    public boolean writes(LetterKind kind) {
        return KINDS.contains(kind);
    }

    @Override
    public List<LetterCase> latest(LetterKind kind, ClientId clientId) {
        DocumentKind of = kind == LetterKind.CREDIT_NOTE ? DocumentKind.CREDIT_NOTE : DocumentKind.INVOICE;
        return documents.latest(of, clientId, MOST).stream()
                .map(d -> new LetterCase(d.clientId(), d.kind().title() + " " + d.number(), () -> facts(kind, d)))
                .toList();
    }

    private LetterFacts facts(LetterKind kind, Document d) {
        if (kind.isOnPage()) {
            return facts.onPage(d, null, kind == LetterKind.PAGE_GIVEN_UP ? "not enough funds" : "");
        }
        if (kind == LetterKind.ARRANGED) {
            return facts.arranged(d, LetterField.CHANGE.example(), List.of());
        }
        return kind == LetterKind.CREDIT_NOTE ? creditNote(d) : facts.invoice(d);
    }

    private LetterFacts creditNote(Document d) {
        CreditNote note = notes.find(d.id());
        Document invoice = invoices.invoice(note.invoiceId());
        CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
        return facts.creditNote(
                invoice,
                note,
                new DocumentFacts.Became(
                        List.of(),
                        books.creditOf(invoice.clientId(), currency),
                        debts.waitingCreditOf(invoice.clientId(), currency)));
    }
}
