package quill.server.running;

import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Says whether all is well: 200, or 503 with the reason. */
@RestController
class HealthController {
    private final BooksHealth health;

    HealthController(BooksHealth health) {
        this.health = health;
    }

    /** @param state up, disk full or down */
    record Health(String state, String why) {}

    @GetMapping("/api/health")
    ResponseEntity<Health> health() {
        BooksHealth.State state = health.state();
        return ResponseEntity.status(state == BooksHealth.State.UP ? 200 : 503)
                .cacheControl(CacheControl.noStore())
                .body(new Health(state.word(), state.why()));
    }
}
