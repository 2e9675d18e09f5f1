package quill.server.dispatch;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.ways.WayChoice;

/** In which ways a document can be paid, over HTTP. */
@RestController
@RequestMapping("/api/invoices/{id}/ways-to-pay")
class DocumentWaysController {
    private final DocumentWays ways;

    DocumentWaysController(DocumentWays ways) {
        this.ways = ways;
    }

    @GetMapping
    DocumentWays.WaysOfDocument of(@PathVariable DocumentId id) {
        return ways.of(id);
    }

    /** @param hold whether its page only holds a card's money, until the work is done */
    record PageHold(boolean hold) {}

    @PutMapping("/hold")
    DocumentWays.WaysOfDocument holdOnPage(@PathVariable DocumentId id, @RequestBody PageHold to) {
        return ways.hold(id, to.hold());
    }

    @PutMapping
    DocumentWays.WaysOfDocument limit(@PathVariable DocumentId id, @RequestBody WayChoice choice) {
        return ways.choose(id, choice);
    }
}
