package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.business.Logos;
import quill.server.common.Downloads;
import quill.server.common.NotFoundException;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.dispatch.PdfMaking;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** The papers, files and logo of a client's page. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicPapersController {
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final Attachments attachments;
    private final PdfMaking pdf;
    private final Logos logos;

    PublicPapersController(
            InvoicesService invoices, CreditNotes notes, Attachments attachments, PdfMaking pdf, Logos logos) {
        this.invoices = invoices;
        this.notes = notes;
        this.attachments = attachments;
        this.pdf = pdf;
        this.logos = logos;
    }

    @GetMapping(path = "/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable String token) {
        Document invoice = invoices.byToken(token);
        return Downloads.pdf(pdf.invoiceForClient(invoice), "invoice-" + invoice.number());
    }

    @GetMapping(path = "/credit-notes/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> creditNotePdf(@PathVariable String token, @PathVariable DocumentId id) {
        CreditNote note = notes.of(invoices.byToken(token).id()).stream()
                .filter(n -> n.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("There is no such credit note of this invoice."));
        return Downloads.pdf(pdf.creditNoteForClient(note), "credit-note-" + note.number());
    }

    @Hidden
    @GetMapping("/files/{id}")
    ResponseEntity<byte[]> file(@PathVariable String token, @PathVariable long id) {
        Attachments.Content content =
                attachments.content(invoices.byToken(token).id(), id);
        if (!content.file().sent()) {
            throw new NotFoundException("There is no such file of this invoice.");
        }
        return Downloads.file(
                content.bytes(), content.file().type(), content.file().name());
    }

    @Hidden
    @GetMapping(path = "/logo", produces = "image/png")
    byte[] logo(@PathVariable String token) {
        return logos.png(invoices.document(invoices.byToken(token)).look().logo())
                .orElseThrow(() -> new NotFoundException("There is no logo on this invoice."));
    }
}
