package quill.server.timeline;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.common.OneSnapshot;

/** The timeline of an invoice, over HTTP. */
@RestController
class TimelineController {
    private final Timeline timeline;

    TimelineController(Timeline timeline) {
        this.timeline = timeline;
    }

    @GetMapping("/api/invoices/{id}/timeline")
    @OneSnapshot
    Timeline.TimelineView of(@PathVariable DocumentId id) {
        return timeline.of(id);
    }
}
