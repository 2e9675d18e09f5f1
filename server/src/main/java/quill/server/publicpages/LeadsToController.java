package quill.server.publicpages;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.collections.MethodRequests;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.paylinks.PaymentLinks;

/** What an unguessable address leads to. */
@RestController
@RequestMapping("/api/public/{token}")
class LeadsToController {
    private final Documents documents;
    private final PaymentLinks links;
    private final MethodRequests requests;

    LeadsToController(Documents documents, PaymentLinks links, MethodRequests requests) {
        this.requests = requests;
        this.documents = documents;
        this.links = links;
    }

    /** @param kind quote, invoice, link where there is no document, or keep where a card or mandate is asked for */
    record LinkKind(String kind) {}

    @GetMapping("/kind")
    LinkKind kind(@PathVariable String token) {
        if (links.isLink(token)) {
            return new LinkKind("link");
        }
        if (requests.isRequest(token)) {
            return new LinkKind("keep");
        }
        return new LinkKind(documents.byToken(token).kind() == DocumentKind.QUOTE ? "quote" : "invoice");
    }
}
