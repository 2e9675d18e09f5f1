package quill.server.payments;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.TypedMark;

/** Payments that a person records, over HTTP. */
@RestController
@RequestMapping("/api")
class PaymentsController {
    private final Undoing undoing;
    private final Payments payments;
    private final PaymentsService service;
    private final Outlooks outlooks;
    private final Refunds refunds;

    PaymentsController(
            PaymentsService service, Outlooks outlooks, Payments payments, Undoing undoing, Refunds refunds) {
        this.refunds = refunds;
        this.undoing = undoing;
        this.payments = payments;
        this.service = service;
        this.outlooks = outlooks;
    }

    record RecordPayment(
            String key,
            ClientId clientId,
            @Schema(nullable = true) DocumentId invoiceId,
            String way,
            @Schema(nullable = true) String currency,
            String amount,
            String valueOn,
            String reference,
            @Schema(nullable = true) Boolean held,
            @Schema(nullable = true) List<Long> debts,
            @Schema(nullable = true) Boolean silent) {
        private PaymentsService.Recorded typed() {
            if (clientId == null) {
                throw new RefusedException("clientId", "", "say which client");
            }
            return new PaymentsService.Recorded(
                    key,
                    clientId,
                    invoiceId,
                    way,
                    currency,
                    TypedMark.plain(amount),
                    valueOn,
                    reference,
                    Boolean.TRUE.equals(held),
                    debts,
                    Boolean.TRUE.equals(silent));
        }
    }

    /** Money that goes back. @param quoteId the quote whose deposit it is; null for none */
    record GiveBack(
            String key,
            ClientId clientId,
            @Schema(nullable = true) DocumentId quoteId,
            @Schema(nullable = true) Boolean deposit,
            String way,
            String currency,
            String amount,
            String paidOn,
            String reference) {}

    @PostMapping("/refunds")
    void giveBack(@RequestBody GiveBack g) {
        if (g.clientId() == null) {
            throw new RefusedException("clientId", "", "say which client");
        }
        refunds.give(new Refunds.Given(
                g.key(),
                g.clientId(),
                g.quoteId(),
                Boolean.TRUE.equals(g.deposit()),
                g.way(),
                g.currency(),
                TypedMark.plain(g.amount()),
                g.paidOn(),
                g.reference()));
    }

    record Undo(String why) {}

    /** Whoever paid pays for the client from now on, and gets its receipts. */
    @PostMapping("/payments/{id}/payer-of-client")
    void payerOfClient(@PathVariable long id) {
        service.setPayer(id);
    }

    @PostMapping("/payments")
    Payment record(@RequestBody RecordPayment r) {
        return service.record(r.typed());
    }

    /** What a payment would settle, were it recorded now. */
    @PostMapping("/payments/outlook")
    Outlooks.Outlook outlook(@RequestBody RecordPayment r) {
        return outlooks.outlook(r.typed());
    }

    @PostMapping("/payments/{id}/undoing")
    Payment undo(@PathVariable long id, @RequestBody Undo undo) {
        return undoing.undo(id, undo.why());
    }

    @PostMapping("/payments/{id}/noted")
    void noted(@PathVariable long id) {
        payments.noted(id);
    }

    @GetMapping("/clients/{id}/payments")
    List<Payment> ofClient(@PathVariable ClientId id) {
        return payments.ofClient(id);
    }
}
