package quill.server.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.Server;
import quill.server.common.NotFoundException;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.Crediting;
import quill.server.dispatch.Withdrawals;
import quill.server.invoices.InvoicesService;
import quill.server.links.Links;

/** What holds of documents of every kind. */
public class DocumentsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private Server server;
    private Documents documents;
    private InvoicesService invoices;
    private ClientId client;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        documents = server.bean(Documents.class);
        invoices = server.bean(InvoicesService.class);
        client = server.client("Reader", true);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void whatWasTypedAndWhatWasIssuedOutliveTakingBack() {
        DocumentId id = server.issue(client, "Bridle straps", "40.00", "100%@30", null);
        Document issued = invoices.invoice(id);
        IssuedDocument said = documents.issued(issued);
        TypedDraft typed = documents.typed(issued);
        server.bean(Withdrawals.class).takeBack(id, "a wrong price");
        Document draft = invoices.invoice(id);
        assertThat(draft.state()).isEqualTo(DocumentState.DRAFT);
        assertThat(draft.number()).isEqualTo(issued.number());
        assertThat(draft.issue()).isNull();
        assertThat(documents.typed(draft)).isEqualTo(typed);
        documents.keep(draft, draft.version(), typed.forClient(null));
        assertThat(documents.issued(issued)).isEqualTo(said);
        assertThat(documents.earlier(draft))
                .extracting(e -> e.document().body().lines().get(0).description())
                .containsExactly("Bridle straps");
        assertThat(contents(id)).containsExactly("issued 2", "typed 1", "typed 3");
        server.bean(Withdrawals.class).voidIt(id, "a wrong client");
        Document gone = invoices.invoice(id);
        assertThat(gone.state()).isEqualTo(DocumentState.VOID);
        assertThat(documents.issued(gone)).isEqualTo(said);
        assertThat(gone.clientId())
                .as("whose it was, though the draft named nobody any more")
                .isEqualTo(client);
    }

    private List<String> contents(DocumentId id) {
        return server.jdbc()
                .sql("SELECT stage || ' ' || version FROM document_content WHERE document_id = :id ORDER BY 1")
                .param("id", id)
                .query(String.class)
                .list();
    }

    @Test
    public void aCreditNoteIsADocumentOfItsOwnAndNoInvoice() {
        DocumentId invoice = server.issue(client, "Dampers", "60.00", "100%@30", null);
        CreditNote note = server.bean(Crediting.class)
                .write(invoice, Crediting.Wanted.rest("damp", false))
                .note();
        assertThat(note.document().kind()).isEqualTo(DocumentKind.CREDIT_NOTE);
        assertThat(note.document().state()).isEqualTo(DocumentState.ISSUED);
        assertThat(note.document().openMinor()).isZero();
        assertThat(note.document().clientId()).isEqualTo(client);
        assertThat(server.bean(Relations.class).target(note.id(), RelationKind.CORRECTS))
                .contains(invoice);
        assertThatThrownBy(() -> invoices.invoice(note.id())).isInstanceOf(NotFoundException.class);
        String token = server.bean(Links.class).tokenOf(note.id());
        assertThat(documents.byToken(token).id()).isEqualTo(note.id());
        assertThatThrownBy(() -> invoices.byToken(token)).hasMessageContaining("leads nowhere");
    }

    @Test
    public void noKindIsEverInAStateThatItDoesNotHave() {
        Document.Head head = new Document.Head(client, "Reader", "", "EUR", 100L);
        Document.Issue issue = new Document.Issue(DAY, 2, 0, null, null);
        assertThatThrownBy(() -> new Document(
                        new DocumentId(1), 1, DocumentKind.CREDIT_NOTE, DocumentState.SETTLED, head, "C-1", issue))
                .hasMessageContaining("no credit note is ever settled");
        assertThatThrownBy(() -> new Document(
                        new DocumentId(1), 1, DocumentKind.INVOICE, DocumentState.DRAFT, head, null, issue))
                .hasMessageContaining("a draft has no day of issue");
        assertThatThrownBy(() ->
                        new Document(new DocumentId(1), 1, DocumentKind.INVOICE, DocumentState.OPEN, head, null, issue))
                .hasMessageContaining("has a number");
        assertThatThrownBy(() ->
                        new Document(new DocumentId(1), 1, DocumentKind.INVOICE, DocumentState.VOID, head, "1", issue))
                .hasMessageContaining("what is void has its day");
    }
}
