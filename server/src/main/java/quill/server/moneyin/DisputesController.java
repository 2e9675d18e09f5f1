package quill.server.moneyin;

import io.swagger.v3.oas.annotations.media.Schema;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.clearing.Dispute;
import quill.server.clearing.Disputes;
import quill.server.payments.Payments;

/** What is contested, over HTTP. */
@RestController
@RequestMapping("/api")
class DisputesController {
    private final Disputes disputes;
    private final Payments payments;
    private final Evidence evidence;

    DisputesController(Disputes disputes, Payments payments, Evidence evidence) {
        this.disputes = disputes;
        this.payments = payments;
        this.evidence = evidence;
    }

    /** A draft of an answer, from what is known. */
    record EvidenceDraft(String text) {}

    @GetMapping("/disputes/{id}/evidence")
    EvidenceDraft evidence(@PathVariable long id) {
        Dispute d = disputes.find(id);
        return new EvidenceDraft(evidence.of(d, payments.find(d.paymentId())));
    }

    /** @param before the answer that the page showed, which this one takes the place of; null for none */
    record AnswerDispute(
            String evidence, @Schema(nullable = true) String before) {}

    @PostMapping("/disputes/{id}/answer")
    Dispute answerDispute(@PathVariable long id, @RequestBody AnswerDispute a) {
        return disputes.answer(id, a.evidence(), a.before());
    }
}
