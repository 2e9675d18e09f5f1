package quill.server.formats;

import java.io.IOException;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import quill.core.id.DocumentId;
import quill.server.common.Downloads;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.invoices.InvoicesService;

/** UBL out and in, over HTTP. */
@RestController
@RequestMapping("/api")
class FormatsController {
    private static final String XML = "application/xml";
    private final Formats service;
    private final InvoicesService invoices;
    private final CreditNotes notes;

    FormatsController(Formats service, InvoicesService invoices, CreditNotes notes) {
        this.service = service;
        this.invoices = invoices;
        this.notes = notes;
    }

    @GetMapping(path = "/invoices/{id}/ubl", produces = XML)
    ResponseEntity<byte[]> invoice(@PathVariable DocumentId id) {
        byte[] ubl = service.invoice(id);
        return Downloads.file(
                ubl, XML, "invoice-" + Downloads.plain(invoices.invoice(id).number()) + ".xml");
    }

    @GetMapping(path = "/credit-notes/{id}/ubl", produces = XML)
    ResponseEntity<byte[]> creditNote(@PathVariable DocumentId id) {
        CreditNote note = notes.find(id);
        return Downloads.file(service.creditNote(note), XML, "credit-note-" + Downloads.plain(note.number()) + ".xml");
    }

    @PostMapping(path = "/imports/ubl", consumes = "multipart/form-data")
    Formats.Imported importUbl(@RequestParam("file") MultipartFile file) throws IOException {
        return service.importUbl(file.getBytes());
    }
}
