package quill.server.processor;

import java.time.Duration;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.web.client.HttpClientErrorException;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestClientException;
import quill.server.QuillSettings;
import quill.server.common.OutsideService;

/**
 * Asks the card processor. An order carries a key of ours, so that asking again after a lost answer finds the first
 * order. Everything else only reads, or can be repeated.
 */
@Component
public class ProcessorClient implements CardProcessor {
    private static final Duration TO_ANSWER = Duration.ofSeconds(8);
    private final RestClient http;

    ProcessorClient(QuillSettings settings) {
        QuillSettings.Processor processor = settings.processor();
        this.http = OutsideService.at(processor.url(), processor.apiKey(), TO_ANSWER);
    }

    @Override
    public Answer open(String key, Money amount, About about) {
        return heard(() -> http.post()
                .uri("/api/orders")
                .header("Idempotency-Key", key)
                .body(Map.of(
                        "amount",
                        amount.getAmount().toPlainString(),
                        "currency",
                        amount.getCurrencyUnit().getCode(),
                        "description",
                        about.description(),
                        "returnTo",
                        about.returnTo(),
                        "payerName",
                        about.payerName(),
                        "payerEmail",
                        about.payerEmail()))
                .retrieve()
                .body(Answer.class));
    }

    @Override
    public Optional<Answer> ask(String processorId) {
        return heard(() -> {
            try {
                return Optional.ofNullable(http.get()
                        .uri("/api/orders/{id}", processorId)
                        .retrieve()
                        .body(Answer.class));
            } catch (HttpClientErrorException.NotFound e) {
                return Optional.empty();
            }
        });
    }

    @Override
    public Answer withdraw(String processorId) {
        return heard(() -> http.post()
                .uri("/api/orders/{id}/withdrawal", processorId)
                .retrieve()
                .body(Answer.class));
    }

    private static <T> T heard(Supplier<T> call) {
        try {
            return call.get();
        } catch (RestClientException e) {
            throw new NoAnswer(e.getMessage(), e);
        }
    }

    /** Tells the simulated processor what day it is for the business. */
    public void tellDate(LocalDate today) {
        http.put()
                .uri("/api/business-date")
                .body(Map.of("today", today.toString()))
                .retrieve()
                .toBodilessEntity();
    }
}
