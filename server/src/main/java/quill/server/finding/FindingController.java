package quill.server.finding;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.TypedMark;
import quill.server.finding.FindingRepository.Found;

/** Finding anything, over HTTP. */
@RestController
@RequestMapping("/api/finding")
class FindingController {
    private static final int MOST_BATCHES = 5;
    private final FindingService service;

    FindingController(FindingService service) {
        this.service = service;
    }

    @GetMapping
    List<Found> find(@RequestParam String words) {
        int batches = 0;
        while (service.readAgain() && ++batches < MOST_BATCHES) {
            // What changed a moment ago is found too; what changed by the thousand is read again in the background.
        }
        return service.find(words.length() > 200 ? words.substring(0, 200) : words, TypedMark.current());
    }
}
