package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.ConflictException;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;

/** Sending, over HTTP: issue and send, send again, take back, the PDF, and what was sent. */
@RestController
@RequestMapping("/api")
class DispatchController {
    private final DispatchService service;
    private final InvoicesService invoices;
    private final PdfMaking pdf;

    DispatchController(DispatchService service, InvoicesService invoices, PdfMaking pdf) {
        this.service = service;
        this.invoices = invoices;
        this.pdf = pdf;
    }

    record IssueAndSend(int version) {}

    record SendAgain(String key) {}

    record Sent(long id, int version) {}

    record CreditAndTell(String reason, boolean replace) {}

    record Credited(@Schema(nullable = true) Long draftId) {}

    @PostMapping("/invoices/{id}/issue-and-send")
    Sent issueAndSend(@PathVariable long id, @RequestBody IssueAndSend request) {
        return new Sent(id, service.issueAndSend(id, request.version()).version());
    }

    @PostMapping("/invoices/{id}/sendings")
    void sendAgain(@PathVariable long id, @RequestBody SendAgain request) {
        service.sendAgain(id, request.key());
    }

    @PostMapping("/invoices/{id}/credit-note")
    Credited credit(@PathVariable long id, @RequestBody CreditAndTell request) {
        return new Credited(service.credit(id, request.reason(), request.replace()));
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

    @GetMapping(path = "/invoices/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable long id) {
        Invoice invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft is printed once it is issued.");
        }
        return pdfAnswer(pdf.invoice(invoice), "invoice-" + invoice.number());
    }

    @GetMapping(path = "/invoices/{id}/credit-note/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> creditNotePdf(@PathVariable long id) {
        Invoice invoice = invoices.invoice(id);
        String number = invoices.creditNoteOf(id)
                .orElseThrow(() -> new quill.server.common.NotFoundException("It was not taken back."))
                .number();
        return pdfAnswer(pdf.creditNote(invoice), "credit-note-" + number);
    }

    @GetMapping(path = "/messages/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> reminderPdf(@PathVariable long id) {
        ReminderLetter letter = service.reminderLetter(id);
        return pdfAnswer(pdf.reminder(letter), "reminder-" + letter.writtenOn());
    }

    @GetMapping("/clients/{id}/messages")
    List<Message> messagesOfClient(@PathVariable long id) {
        return service.ofClient(id);
    }

    static ResponseEntity<byte[]> pdfAnswer(byte[] bytes, String name) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.inline()
                                .filename(name.replaceAll("[^A-Za-z0-9-]", "-") + ".pdf")
                                .build()
                                .toString())
                .body(bytes);
    }
}
