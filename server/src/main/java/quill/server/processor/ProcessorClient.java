package quill.server.processor;

import java.math.BigDecimal;
import java.net.http.HttpClient;
import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.stereotype.Component;
import org.springframework.web.client.HttpClientErrorException;
import org.springframework.web.client.RestClient;
import quill.server.QuillSettings;

/**
 * Asks the card processor. An order carries a key of ours, so that asking again after a lost answer finds the first
 * order. Everything else only reads, or can be repeated.
 */
@Component
public class ProcessorClient {
    private final RestClient http;

    ProcessorClient(QuillSettings settings) {
        JdkClientHttpRequestFactory requests = new JdkClientHttpRequestFactory(HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .connectTimeout(Duration.ofSeconds(3))
                .build());
        requests.setReadTimeout(Duration.ofSeconds(8));
        this.http = RestClient.builder()
                .baseUrl(settings.processor().isSet() ? settings.processor().url() : "http://localhost:9")
                .defaultHeader("Authorization", "Bearer " + settings.processor().apiKey())
                .requestFactory(requests)
                .build();
    }

    /** One try of a payer. */
    public record Attempt(String lastFour, String outcome) {}

    /** What the processor says of an order. */
    public record Answer(
            String id,
            String state,
            String amount,
            String currency,
            String payAt,
            String paymentId,
            LocalDate paidOn,
            String fee,
            String cardName,
            String lastFour,
            String expiry,
            List<Attempt> attempts) {
        /** Whether the money was taken. */
        public boolean isPaid() {
            return "paid".equals(state);
        }

        Money money() {
            return Money.of(CurrencyUnit.of(currency), new BigDecimal(amount));
        }

        Money feeMoney() {
            return fee == null
                    ? Money.zero(CurrencyUnit.of(currency))
                    : Money.of(CurrencyUnit.of(currency), new BigDecimal(fee));
        }

        /** The latest refusal, or empty. */
        Optional<String> declined() {
            return attempts == null || attempts.isEmpty() || isPaid()
                    ? Optional.empty()
                    : Optional.of(attempts.get(attempts.size() - 1).outcome());
        }
    }

    /** Opens an order, or finds the one that this key opened before. */
    Answer open(String key, Money amount, String description, String returnTo) {
        return http.post()
                .uri("/api/orders")
                .header("Idempotency-Key", key)
                .body(Map.of(
                        "amount",
                        amount.getAmount().toPlainString(),
                        "currency",
                        amount.getCurrencyUnit().getCode(),
                        "description",
                        description,
                        "returnTo",
                        returnTo))
                .retrieve()
                .body(Answer.class);
    }

    /** The truth about an order; empty where the processor does not know it. */
    Optional<Answer> ask(String processorId) {
        try {
            return Optional.ofNullable(
                    http.get().uri("/api/orders/{id}", processorId).retrieve().body(Answer.class));
        } catch (HttpClientErrorException.NotFound e) {
            return Optional.empty();
        }
    }

    /** Withdraws an order; the answer says whether it was paid before. */
    Answer withdraw(String processorId) {
        return http.post()
                .uri("/api/orders/{id}/withdrawal", processorId)
                .retrieve()
                .body(Answer.class);
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
