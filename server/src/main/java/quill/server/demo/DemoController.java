package quill.server.demo;

import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.server.QuillSettings;
import quill.server.common.NotFoundException;

/** The demo's clock, over HTTP; elsewhere there is no such thing. */
@RestController
@RequestMapping("/api/demo")
class DemoController {
    private final DemoClock clock;
    private final QuillSettings settings;

    DemoController(DemoClock clock, QuillSettings settings) {
        this.clock = clock;
        this.settings = settings;
    }

    /** How far to go. @param by day, week, month or next */
    record Forward(String by) {}

    @PostMapping("/clock")
    DemoClock.Moved forward(@RequestBody Forward forward) {
        if (!settings.demo()) {
            throw new NotFoundException("The clock can be moved in the demo only.");
        }
        return switch (forward.by() == null ? "" : forward.by()) {
            case "day" -> clock.forward(1);
            case "week" -> clock.forward(7);
            case "month" -> clock.forward(30);
            case "next" -> clock.forwardToNext();
            default -> throw new RefusedException("by", forward.by(), "must be day, week, month or next");
        };
    }
}
