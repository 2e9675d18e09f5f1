package quill.server.today;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import quill.server.common.LiveUpdates;

/** Tells open windows that something changed, over HTTP. */
@RestController
@RequestMapping("/api")
class EventsController {
    private final LiveUpdates live;

    EventsController(LiveUpdates live) {
        this.live = live;
    }

    @Hidden
    @GetMapping(path = "/events", produces = "text/event-stream")
    SseEmitter events(HttpServletRequest request) {
        return live.openForBusiness(String.valueOf(request.getSession().getAttribute(LiveUpdates.OWNER)));
    }
}
