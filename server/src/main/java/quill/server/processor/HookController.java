package quill.server.processor;

import com.standardwebhooks.Webhook;
import com.standardwebhooks.exceptions.EmptyWebhookSecretException;
import com.standardwebhooks.exceptions.WebhookVerificationException;
import io.swagger.v3.oas.annotations.Hidden;
import java.net.http.HttpHeaders;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import quill.server.QuillSettings;
import quill.server.common.Json;
import tools.jackson.core.JacksonException;

/** Events from the processor (Standard Webhooks: id, timestamp, HMAC-SHA256). Forged and old ones are refused. */
@RestController
@Hidden
class HookController {
    private final CardOrders orders;
    private final QuillSettings settings;
    private final Json json;

    HookController(CardOrders orders, QuillSettings settings, Json json) {
        this.orders = orders;
        this.settings = settings;
        this.json = json;
    }

    record Event(String type, String order) {}

    @PostMapping("/api/hooks/processor")
    ResponseEntity<ProblemDetail> event(
            @RequestHeader(name = "webhook-id", defaultValue = "") String id,
            @RequestHeader(name = "webhook-timestamp", defaultValue = "") String timestamp,
            @RequestHeader(name = "webhook-signature", defaultValue = "") String signature,
            @RequestBody String body) {
        if (!isGenuine(id, timestamp, signature, body)) {
            return ResponseEntity.status(HttpStatus.UNAUTHORIZED)
                    .body(ProblemDetail.forStatusAndDetail(
                            HttpStatus.UNAUTHORIZED, "The signature is not ours, or the event is too old."));
        }
        if (!orders.wasSeen(id)) {
            orders.hook(id, orderOf(body));
        }
        return ResponseEntity.noContent().build();
    }

    /** Signed, but no event that we know: nothing to look for, and nothing to be sent again for. */
    private String orderOf(String body) {
        try {
            Event event = json.read(body, Event.class);
            return event == null || event.order() == null ? "" : event.order();
        } catch (JacksonException e) {
            return "";
        }
    }

    private boolean isGenuine(String id, String timestamp, String signature, String body) {
        if (!settings.processor().isSet() || id.isEmpty() || id.length() > 80) {
            return false;
        }
        Map<String, List<String>> headers = new HashMap<>();
        headers.put("webhook-id", List.of(id));
        headers.put("webhook-timestamp", List.of(timestamp));
        headers.put("webhook-signature", List.of(signature));
        try {
            new Webhook(settings.processor().webhookSecret())
                    .verify(body, HttpHeaders.of(headers, (name, value) -> true).map());
            return true;
        } catch (WebhookVerificationException | EmptyWebhookSecretException | RuntimeException e) {
            return false;
        }
    }
}
