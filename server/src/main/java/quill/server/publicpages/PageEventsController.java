package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import quill.core.id.DocumentId;
import quill.server.common.LiveUpdates;
import quill.server.documents.Documents;

/** Tells a client's page that its document has changed. */
@RestController
class PageEventsController {
    private final Documents documents;
    private final LiveUpdates live;

    PageEventsController(Documents documents, LiveUpdates live) {
        this.documents = documents;
        this.live = live;
    }

    @Hidden
    @GetMapping(path = "/api/public/{token}/events", produces = "text/event-stream")
    SseEmitter events(@PathVariable String token) {
        DocumentId own = documents.byToken(token).id();
        return live.openForLink(token, change -> own.equals(change.invoiceId()));
    }
}
