package quill.standins.countinghouse;

import com.standardwebhooks.Webhook;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import quill.standins.StandinsSettings;

/** Sends events as Standard Webhooks has it: an id, a time, and an HMAC-SHA256 over both and the body. */
@Component
class EventSending {
    private static final Logger LOG = LoggerFactory.getLogger(EventSending.class);
    private final EventBook book;
    private final StandinsSettings settings;
    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(3)).build();

    EventSending(EventBook book, StandinsSettings settings) {
        this.book = book;
        this.settings = settings;
    }

    @Scheduled(fixedDelay = 200)
    void sendDue() {
        for (EventBook.Event event : book.due()) {
            try {
                boolean taken = true;
                for (int copy = 0; copy < event.copies(); copy++) {
                    taken &= send(event);
                }
                if (taken) {
                    book.delivered(event.id());
                } else {
                    book.notDelivered(event);
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            } catch (Exception e) {
                LOG.debug("event {} not delivered", event.id(), e);
                book.notDelivered(event);
            }
        }
    }

    private boolean send(EventBook.Event event) throws Exception {
        long now = Instant.now().getEpochSecond();
        String about = event.orderId() == null ? "" : ",\"order\":\"" + event.orderId() + "\"";
        String body = "{\"type\":\"" + event.kind() + "\"" + about + "}";
        String signature = new Webhook(settings.webhookSecret()).sign(event.id(), now, body);
        HttpRequest request = HttpRequest.newBuilder(URI.create(settings.webhookUrl()))
                .timeout(Duration.ofSeconds(5))
                .header("Content-Type", "application/json")
                .header("webhook-id", event.id())
                .header("webhook-timestamp", String.valueOf(now))
                .header("webhook-signature", signature)
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
        return http.send(request, HttpResponse.BodyHandlers.discarding()).statusCode() / 100 == 2;
    }
}
