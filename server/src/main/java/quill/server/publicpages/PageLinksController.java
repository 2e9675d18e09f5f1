package quill.server.publicpages;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.links.Links;

/** The link to a document's page, over HTTP. */
@RestController
@RequestMapping("/api/documents/{id}/link")
class PageLinksController {
    private final PageLinks service;
    private final Links links;

    PageLinksController(PageLinks service, Links links) {
        this.service = service;
        this.links = links;
    }

    /** @param link empty where none leads there any more */
    record LinkView(String link, @Schema(nullable = true) LocalDate endsOn) {}

    /** @param endsOn as people type a day; empty for no end */
    record EndLink(String endsOn) {}

    @GetMapping
    LinkView show(@PathVariable DocumentId id) {
        return new LinkView(
                links.pageNow(id), links.newest(id).map(Links.Standing::endsOn).orElse(null));
    }

    @PostMapping("/withdrawal")
    LinkView withdraw(@PathVariable DocumentId id) {
        service.withdraw(id);
        return show(id);
    }

    @PostMapping("/renewal")
    LinkView renew(@PathVariable DocumentId id) {
        service.renew(id);
        return show(id);
    }

    @PutMapping("/end")
    LinkView end(@PathVariable DocumentId id, @RequestBody EndLink end) {
        service.end(id, end.endsOn());
        return show(id);
    }
}
