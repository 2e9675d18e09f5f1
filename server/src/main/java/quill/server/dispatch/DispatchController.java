package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.clients.Client;
import quill.server.common.TypedMark;
import quill.server.creditnotes.Crediting;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** Sending, over HTTP: issue and send, send again, take back, the PDF, and what was sent. */
@RestController
@RequestMapping("/api")
class DispatchController {
    private final DispatchService service;
    private final CreditLetters letters;
    private final InvoicesService invoices;
    private final Unsent unsent;
    private final Withdrawals withdrawals;
    private final LetterLook look;

    DispatchController(
            DispatchService service,
            CreditLetters letters,
            InvoicesService invoices,
            Unsent unsent,
            Withdrawals withdrawals,
            LetterLook look) {
        this.service = service;
        this.letters = letters;
        this.invoices = invoices;
        this.unsent = unsent;
        this.withdrawals = withdrawals;
        this.look = look;
    }

    record IssueAndSend(
            int version, @Schema(nullable = true) Slip slip) {}

    record SendAgain(String key, @Schema(nullable = true) Slip slip) {}

    record LookAtInvoice(
            int version, @Schema(nullable = true) Slip slip) {}

    record Sent(DocumentId id, int version) {}

    record Credited(
            DocumentId noteId, @Schema(nullable = true) DocumentId draftId) {}

    record Withdraw(String reason) {}

    /** @param unseen whether nobody outside has seen it, so that it can be taken back to a draft, or voided */
    record Corrections(boolean unseen) {}

    @PostMapping("/invoices/{id}/issue-and-send")
    Sent issueAndSend(@PathVariable DocumentId id, @RequestBody IssueAndSend request) {
        return new Sent(
                id, service.issueAndSend(id, request.version(), request.slip()).version());
    }

    @PostMapping("/invoices/{id}/sendings")
    void sendAgain(@PathVariable DocumentId id, @RequestBody SendAgain request) {
        service.sendAgain(id, request.key(), request.slip());
    }

    /** The letter with which an invoice would be sent now; a draft's as if it were issued. */
    @PostMapping("/invoices/{id}/letter")
    LetterLook.ShownLetter look(@PathVariable DocumentId id, @RequestBody LookAtInvoice request) {
        Document invoice = invoices.invoice(id);
        Client.Recipient usual = service.recipient(invoice);
        return invoice.isDraft()
                ? look.at(usual, request.slip(), slip -> service.issueToLook(id, request.version(), slip))
                        .withoutAddress()
                : look.at(usual, request.slip(), slip -> service.sendToLook(id, slip));
    }

    @PostMapping("/invoices/{id}/credit-notes")
    Credited credit(@PathVariable DocumentId id, @RequestBody Crediting.Wanted wanted) {
        Crediting.Written written = letters.credit(id, wanted.plain(TypedMark.current()));
        return new Credited(written.note().id(), written.draftId());
    }

    @GetMapping("/invoices/{id}/corrections")
    Corrections corrections(@PathVariable DocumentId id) {
        return new Corrections(withdrawals.isUnseen(id));
    }

    @PostMapping("/invoices/{id}/taking-back")
    void takeBack(@PathVariable DocumentId id, @RequestBody Withdraw request) {
        withdrawals.takeBack(id, request.reason());
    }

    @PostMapping("/invoices/{id}/voiding")
    void voidIt(@PathVariable DocumentId id, @RequestBody Withdraw request) {
        withdrawals.voidIt(id, request.reason());
    }

    @PostMapping("/invoices/{id}/giving")
    void givenOtherwise(@PathVariable DocumentId id) {
        unsent.givenOtherwise(id);
    }
}
