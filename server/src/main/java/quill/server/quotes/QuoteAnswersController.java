package quill.server.quotes;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;

/** Answers to quotes that the business notes, and what comes of accepted ones, over HTTP. */
@RestController
@RequestMapping("/api/quotes")
class QuoteAnswersController {
    private final QuotesService quotes;
    private final Answering answering;
    private final QuoteInvoicing invoicing;

    QuoteAnswersController(QuotesService quotes, Answering answering, QuoteInvoicing invoicing) {
        this.quotes = quotes;
        this.answering = answering;
        this.invoicing = invoicing;
    }

    /** @param name who accepted it, and how */
    record AcceptedByHand(String name, List<Integer> ticked) {}

    /** @param name who declined it, and how */
    record DeclinedByHand(String name, String reason) {}

    record Begun(DocumentId id) {}

    @PostMapping("/{id}/acceptance")
    void accept(@PathVariable DocumentId id, @RequestBody AcceptedByHand by) {
        answering.acceptByHand(quotes.quote(id), new Answering.Acceptance(by.name(), by.ticked(), null));
    }

    @PostMapping("/{id}/declining")
    void decline(@PathVariable DocumentId id, @RequestBody DeclinedByHand by) {
        answering.declineByHand(quotes.quote(id), by.name(), by.reason());
    }

    @PostMapping("/questions/{question}/seeing-to")
    void seeTo(@PathVariable long question) {
        answering.seeTo(question);
    }

    /** What is left to bill of an accepted quote. */
    @GetMapping("/{id}/left")
    QuoteInvoicing.Left left(@PathVariable DocumentId id) {
        return invoicing.left(id);
    }

    /** Begins an invoice for what was accepted, or for a part of it. */
    @PostMapping("/{id}/invoices")
    Begun invoice(@PathVariable DocumentId id, @RequestBody QuoteInvoicing.ToBill wanted) {
        return new Begun(invoicing.begin(id, wanted));
    }
}
