package quill.server.creditnotes;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.common.TypedMark;
import quill.server.documents.PrintedDocument;

/** Credit notes, over HTTP. They are written where they are sent. */
@RestController
@RequestMapping("/api")
class CreditNotesController {
    private final Crediting crediting;
    private final CreditNotes notes;

    CreditNotesController(CreditNotes notes, Crediting crediting) {
        this.crediting = crediting;
        this.notes = notes;
    }

    @GetMapping("/credit-notes/{id}")
    PrintedDocument creditNote(@PathVariable DocumentId id) {
        return notes.document(notes.find(id));
    }

    @PostMapping("/invoices/{id}/credit-notes/preview")
    PrintedDocument previewCredit(@PathVariable DocumentId id, @RequestBody Crediting.Wanted wanted) {
        return crediting.preview(id, wanted.plain(TypedMark.current()));
    }
}
