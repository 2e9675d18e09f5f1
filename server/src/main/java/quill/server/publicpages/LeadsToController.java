package quill.server.publicpages;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.paylinks.PaymentLinks;

/** What an unguessable address leads to. */
@RestController
@RequestMapping("/api/public/{token}")
class LeadsToController {
    private final Documents documents;
    private final PaymentLinks links;

    LeadsToController(Documents documents, PaymentLinks links) {
        this.documents = documents;
        this.links = links;
    }

    /** @param kind quote, invoice, or link where there is no document */
    record LinkKind(String kind) {}

    @GetMapping("/kind")
    LinkKind kind(@PathVariable String token) {
        if (links.isLink(token)) {
            return new LinkKind("link");
        }
        return new LinkKind(documents.byToken(token).kind() == DocumentKind.QUOTE ? "quote" : "invoice");
    }
}
