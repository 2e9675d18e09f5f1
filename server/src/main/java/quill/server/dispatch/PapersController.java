package quill.server.dispatch;

import java.util.List;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.common.ConflictException;
import quill.server.common.Downloads;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.links.Links;

/** Documents and letters as papers, over HTTP. */
@RestController
@RequestMapping("/api")
class PapersController {
    private final Correspondence correspondence;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final PdfMaking pdf;
    private final JoinedPapers joined;
    private final SentPapers sent;
    private final Links links;

    PapersController(
            Correspondence correspondence,
            InvoicesService invoices,
            CreditNotes notes,
            PdfMaking pdf,
            JoinedPapers joined,
            SentPapers sent,
            Links links) {
        this.correspondence = correspondence;
        this.invoices = invoices;
        this.notes = notes;
        this.pdf = pdf;
        this.joined = joined;
        this.sent = sent;
        this.links = links;
    }

    /** @param reckoning whether the annex with the reckoning of every figure is printed as well */
    @GetMapping(path = "/invoices/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable DocumentId id, @RequestParam(defaultValue = "false") boolean reckoning) {
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft is printed once it is issued.");
        }
        return Downloads.pdf(pdf.invoice(invoice, reckoning), "invoice-" + invoice.number());
    }

    /** A square code that leads to the page of an issued invoice, to be shown to the client's own phone. */
    @GetMapping(path = "/invoices/{id}/page-code", produces = "image/png")
    ResponseEntity<byte[]> pageCode(@PathVariable DocumentId id) {
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft has no page; issue it first.");
        }
        return ResponseEntity.ok()
                .header("Cache-Control", "no-store")
                .contentType(MediaType.IMAGE_PNG)
                .body(SquareCode.png(links.pageOf(id)));
    }

    /** Several invoices as one paper to print. */
    @GetMapping(path = "/invoices/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdfOfSome(@RequestParam List<DocumentId> ids) {
        return Downloads.pdf(joined.of(ids), "invoices");
    }

    @GetMapping(path = "/credit-notes/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> creditNotePdf(
            @PathVariable DocumentId id, @RequestParam(defaultValue = "false") boolean reckoning) {
        CreditNote note = notes.find(id);
        return Downloads.pdf(pdf.creditNote(note, reckoning), "credit-note-" + note.number());
    }

    /** The paper that went with a letter, byte for byte; a reminder's that has not left yet, as it will be. */
    @GetMapping(path = "/messages/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> sentPdf(@PathVariable long id) {
        Optional<SentPapers.Sent> paper = sent.first(id);
        if (paper.isPresent()) {
            return Downloads.pdf(paper.get().bytes(), paper.get().name().replaceAll("\\.pdf$", ""));
        }
        ReminderLetter letter = correspondence.reminderLetter(id);
        return Downloads.pdf(
                pdf.reminder(letter),
                Enclosed.reminder(letter.writtenOn()).name().replaceAll("\\.pdf$", ""));
    }
}
