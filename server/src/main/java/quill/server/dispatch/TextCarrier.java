package quill.server.dispatch;

import java.net.ConnectException;
import java.net.UnknownHostException;
import java.net.http.HttpConnectTimeoutException;
import java.time.Duration;
import java.util.Map;
import org.springframework.http.HttpStatusCode;
import org.springframework.stereotype.Component;
import org.springframework.web.client.HttpStatusCodeException;
import org.springframework.web.client.ResourceAccessException;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestClientException;
import quill.core.letter.Channel;
import quill.server.QuillSettings;
import quill.server.business.BusinessService;
import quill.server.common.OutsideService;
import quill.server.dispatch.MessageRepository.Outgoing;

/**
 * Hands text messages to the gateway: sent after its answer. A gateway cannot be asked whether it took one, so that one
 * whose answer never came is uncertain, and goes again only by a person's hand.
 */
@Component
class TextCarrier implements Carrier {
    private static final int TOO_MANY = 429;
    private static final Duration TO_ANSWER = Duration.ofSeconds(10);
    private final RestClient http;
    private final QuillSettings settings;
    private final BusinessService business;
    private final ReminderGuard guard;
    private final Outcomes outcomes;

    TextCarrier(QuillSettings settings, BusinessService business, ReminderGuard guard, Outcomes outcomes) {
        QuillSettings.Texts texts = settings.texts();
        this.http = OutsideService.at(texts.url(), texts.apiKey(), TO_ANSWER);
        this.settings = settings;
        this.business = business;
        this.guard = guard;
        this.outcomes = outcomes;
    }

    @Override
    public Channel channel() {
        return Channel.TEXT;
    }

    @Override
    public void carry(Outgoing outgoing) {
        if (!settings.texts().isSet()) {
            outcomes.tryAgain(outgoing, MessageState.WAITING, "No gateway for text messages is set up.");
            return;
        }
        if (!guard.mayLeave(outgoing)) {
            return;
        }
        try {
            http.post()
                    .uri("/texts")
                    .body(Map.of(
                            "to",
                            outgoing.addresses().to(),
                            "from",
                            business.business().name(),
                            "text",
                            outgoing.written().text()))
                    .retrieve()
                    .toBodilessEntity();
        } catch (HttpStatusCodeException e) {
            refused(outgoing, e);
            return;
        } catch (ResourceAccessException e) {
            if (neverLeft(e)) {
                outcomes.tryAgain(outgoing, MessageState.SENDING, "The gateway for text messages does not answer.");
            } else {
                outcomes.unknown(outgoing, "the gateway for text messages took it, or did not");
            }
            return;
        } catch (RestClientException e) {
            outcomes.unknown(outgoing, "what the gateway for text messages answered cannot be read");
            return;
        }
        outcomes.sent(outgoing);
    }

    private void refused(Outgoing outgoing, HttpStatusCodeException e) {
        HttpStatusCode status = e.getStatusCode();
        String why = says(e);
        if (status.value() == TOO_MANY || status.value() == 503) {
            outcomes.tryAgain(outgoing, MessageState.SENDING, "Put off: " + why);
        } else if (status.is5xxServerError()) {
            outcomes.unknown(outgoing, why);
        } else {
            outcomes.refused(outgoing, why);
        }
    }

    /** What the gateway gives as its reason, in its problem details (RFC 9457). */
    private static String says(HttpStatusCodeException e) {
        try {
            Problem problem = e.getResponseBodyAs(Problem.class);
            return problem == null || problem.detail() == null ? e.getStatusText() : problem.detail();
        } catch (RestClientException | IllegalStateException unreadable) {
            return "it answered " + e.getStatusCode().value();
        }
    }

    private record Problem(String detail) {}

    private static boolean neverLeft(ResourceAccessException e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof ConnectException
                    || t instanceof HttpConnectTimeoutException
                    || t instanceof UnknownHostException) {
                return true;
            }
        }
        return false;
    }
}
