package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.ConflictException;
import quill.server.common.Downloads;
import quill.server.common.TypedMark;
import quill.server.invoices.CreditNote;
import quill.server.invoices.CreditNotes;
import quill.server.invoices.FixedDocument;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;

/** Sending, over HTTP: issue and send, send again, take back, the PDF, and what was sent. */
@RestController
@RequestMapping("/api")
class DispatchController {
    private final DispatchService service;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final Withdrawals withdrawals;
    private final PdfMaking pdf;
    private final JoinedPapers joined;
    private final SentPapers sent;
    private final LetterLook look;
    private final CallingBack callingBack;

    DispatchController(
            DispatchService service,
            InvoicesService invoices,
            CreditNotes notes,
            Withdrawals withdrawals,
            PdfMaking pdf,
            JoinedPapers joined,
            SentPapers sent,
            LetterLook look,
            CallingBack callingBack) {
        this.look = look;
        this.callingBack = callingBack;
        this.sent = sent;
        this.service = service;
        this.notes = notes;
        this.withdrawals = withdrawals;
        this.invoices = invoices;
        this.pdf = pdf;
        this.joined = joined;
    }

    record IssueAndSend(
            int version, @Schema(nullable = true) Slip slip) {}

    record SendAgain(String key, @Schema(nullable = true) Slip slip) {}

    record LookAtInvoice(
            int version, @Schema(nullable = true) Slip slip) {}

    record Sent(long id, int version) {}

    record Credited(long noteId, @Schema(nullable = true) Long draftId) {}

    record Withdraw(String reason) {}

    /** @param unseen whether nobody outside has seen it, so that it can be taken back to a draft, or voided */
    record Corrections(boolean unseen) {}

    @PostMapping("/invoices/{id}/issue-and-send")
    Sent issueAndSend(@PathVariable long id, @RequestBody IssueAndSend request) {
        return new Sent(
                id, service.issueAndSend(id, request.version(), request.slip()).version());
    }

    @PostMapping("/invoices/{id}/sendings")
    void sendAgain(@PathVariable long id, @RequestBody SendAgain request) {
        service.sendAgain(id, request.key(), request.slip());
    }

    /** The letter with which an invoice would be sent now; a draft's as if it were issued. */
    @PostMapping("/invoices/{id}/letter")
    LetterLook.Look look(@PathVariable long id, @RequestBody LookAtInvoice request) {
        Invoice invoice = invoices.invoice(id);
        String usual = service.addressFor(invoice);
        return invoice.isDraft()
                ? look.at(usual, request.slip(), slip -> service.issueToLook(id, request.version(), slip))
                        .withoutAddress()
                : look.at(usual, request.slip(), slip -> service.sendToLook(id, slip));
    }

    @GetMapping("/messages/leaving")
    List<Message> leaving() {
        return callingBack.leaving();
    }

    @PostMapping("/messages/{id}/calling-back")
    void callBack(@PathVariable long id) {
        callingBack.callBack(id);
    }

    @PostMapping("/invoices/{id}/credit-notes")
    Credited credit(@PathVariable long id, @RequestBody CreditNotes.Wanted wanted) {
        CreditNotes.Written written = service.credit(id, wanted.plain(TypedMark.current()));
        return new Credited(written.note().id(), written.draftId());
    }

    @PostMapping("/invoices/{id}/credit-notes/preview")
    FixedDocument previewCredit(@PathVariable long id, @RequestBody CreditNotes.Wanted wanted) {
        return notes.preview(id, wanted.plain(TypedMark.current()));
    }

    @GetMapping("/invoices/{id}/corrections")
    Corrections corrections(@PathVariable long id) {
        return new Corrections(withdrawals.isUnseen(id));
    }

    @PostMapping("/invoices/{id}/taking-back")
    void takeBack(@PathVariable long id, @RequestBody Withdraw request) {
        withdrawals.takeBack(id, request.reason());
    }

    @PostMapping("/invoices/{id}/voiding")
    void voidIt(@PathVariable long id, @RequestBody Withdraw request) {
        withdrawals.voidIt(id, request.reason());
    }

    @PostMapping("/invoices/{id}/giving")
    void givenOtherwise(@PathVariable long id) {
        service.givenOtherwise(id);
    }

    @GetMapping("/invoices/{id}/messages")
    List<Message> messages(@PathVariable long id) {
        return service.ofInvoice(id);
    }

    @PostMapping("/messages/{id}/retry")
    void retry(@PathVariable long id) {
        service.retry(id);
    }

    @PostMapping("/messages/{id}/set-aside")
    void setAside(@PathVariable long id) {
        service.setAside(id);
    }

    @GetMapping(path = "/messages/{id}/html", produces = "text/html")
    ResponseEntity<String> html(@PathVariable long id) {
        return ResponseEntity.ok()
                .header(
                        "Content-Security-Policy",
                        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox")
                .contentType(MediaType.parseMediaType("text/html;charset=UTF-8"))
                .body(service.html(id));
    }

    /** @param reckoning whether the annex with the reckoning of every figure is printed as well */
    @GetMapping(path = "/invoices/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable long id, @RequestParam(defaultValue = "false") boolean reckoning) {
        Invoice invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft is printed once it is issued.");
        }
        return Downloads.pdf(pdf.invoice(invoice, reckoning), "invoice-" + invoice.number());
    }

    /** Several invoices as one paper to print. */
    @GetMapping(path = "/invoices/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdfOfSome(@RequestParam List<Long> ids) {
        return Downloads.pdf(joined.of(ids), "invoices");
    }

    @GetMapping(path = "/credit-notes/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> creditNotePdf(
            @PathVariable long id, @RequestParam(defaultValue = "false") boolean reckoning) {
        CreditNote note = notes.find(id);
        return Downloads.pdf(pdf.creditNote(note, reckoning), "credit-note-" + note.number());
    }

    /** The paper that went with a letter, byte for byte; a reminder's that has not left yet, as it will be. */
    @GetMapping(path = "/messages/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> sentPdf(@PathVariable long id) {
        Optional<SentPapers.Sent> paper = sent.find(id);
        if (paper.isPresent()) {
            return Downloads.pdf(paper.get().bytes(), paper.get().name().replaceAll("\\.pdf$", ""));
        }
        ReminderLetter letter = service.reminderLetter(id);
        return Downloads.pdf(
                pdf.reminder(letter), SentPapers.ofReminder(letter.writtenOn()).replaceAll("\\.pdf$", ""));
    }

    @GetMapping("/clients/{id}/messages")
    List<Message> messagesOfClient(@PathVariable long id) {
        return service.ofClient(id);
    }
}
