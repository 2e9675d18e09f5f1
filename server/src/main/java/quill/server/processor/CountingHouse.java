package quill.server.processor;

import com.standardwebhooks.Webhook;
import com.standardwebhooks.exceptions.EmptyWebhookSecretException;
import com.standardwebhooks.exceptions.WebhookVerificationException;
import java.math.BigDecimal;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Duration;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import org.springframework.web.client.HttpClientErrorException;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestClientException;
import quill.server.common.Json;
import quill.server.common.OutsideService;
import tools.jackson.core.JacksonException;

/**
 * The simulated card processor. An order carries a key of ours, so that asking again after a lost answer finds the first
 * order; everything else only reads, or can be repeated. Its events are signed as Standard Webhooks has it.
 */
@Component
class CountingHouse implements ProcessorAdapter {
    static final String KIND = "COUNTING_HOUSE";
    static final String ADDRESS = "address";
    static final String API_KEY = "apiKey";
    static final String EVENT_SECRET = "eventSecret";
    private static final Duration TO_ANSWER = Duration.ofSeconds(8);
    private static final int LONGEST_EVENT_ID = 60;
    private static final Pattern PRINTABLE = Pattern.compile("[!-~]+");
    private static final Set<String> OWN_MACHINE = Set.of("localhost", "127.0.0.1", "[::1]");
    private final Json json;

    CountingHouse(Json json) {
        this.json = json;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String title() {
        return "The counting house (simulated)";
    }

    @Override
    public List<CredentialField> fields() {
        return List.of(
                new CredentialField(ADDRESS, "Its address", "https://…", false),
                new CredentialField(API_KEY, "Key", "with which it knows you", true),
                new CredentialField(EVENT_SECRET, "Secret of its events", "with which you know it", true));
    }

    @Override
    public String wrong(CredentialField field, String typed) {
        return switch (field.name()) {
            case ADDRESS -> wrongAddress(typed);
            case API_KEY ->
                PRINTABLE.matcher(typed).matches() ? "" : "must be letters, digits and signs of ASCII, without blanks";
            default -> isSecret(typed) ? "" : "must be the secret as the processor shows it (Base64)";
        };
    }

    /** Keys travel with every call: over the network only sealed. */
    private static String wrongAddress(String typed) {
        try {
            URI address = new URI(typed);
            String host = address.getHost() == null ? "" : address.getHost();
            boolean safe = "https".equals(address.getScheme())
                    || "http".equals(address.getScheme()) && OWN_MACHINE.contains(host);
            boolean plain =
                    address.getUserInfo() == null && address.getQuery() == null && address.getFragment() == null;
            return safe && !host.isEmpty() && plain
                    ? ""
                    : "must begin with https:// (on this machine http:// will do) and name a host";
        } catch (URISyntaxException e) {
            return "must be an address, such as https://cards.example";
        }
    }

    private static boolean isSecret(String typed) {
        try {
            new Webhook(typed);
            return true;
        } catch (EmptyWebhookSecretException | RuntimeException e) {
            return false;
        }
    }

    @Override
    public CardProcessor connect(Credentials credentials, boolean test) {
        return new Connection(OutsideService.at(credentials.get(ADDRESS), credentials.get(API_KEY), TO_ANSWER), test);
    }

    private record Told(String type, String order) {}

    @Override
    public Optional<Heard> heard(Credentials credentials, Event event) {
        String id = event.headers().firstValue("webhook-id").orElse("");
        if (id.isEmpty() || id.length() > LONGEST_EVENT_ID) {
            return Optional.empty();
        }
        try {
            new Webhook(credentials.get(EVENT_SECRET))
                    .verify(event.body(), event.headers().map());
        } catch (WebhookVerificationException | EmptyWebhookSecretException | RuntimeException e) {
            return Optional.empty();
        }
        return Optional.of(new Heard(id, orderOf(event.body())));
    }

    /** Signed, but no event that we know: nothing to look for, and nothing to be sent again for. */
    private String orderOf(String body) {
        try {
            Told told = json.read(body, Told.class);
            return told == null || told.order() == null ? "" : told.order();
        } catch (JacksonException e) {
            return "";
        }
    }

    private static final Map<String, CardProcessor.Booked> KINDS =
            Arrays.stream(CardProcessor.Booked.values()).collect(Collectors.toMap(CountingHouse::word, k -> k));

    private static String word(CardProcessor.Booked kind) {
        return kind.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private record Connection(RestClient http, boolean test) implements CardProcessor {
        @Override
        public Answer open(String key, Money amount, About about, Wish wish) {
            Map<String, Object> asked = new HashMap<>();
            asked.put("amount", amount.getAmount().toPlainString());
            asked.put("currency", amount.getCurrencyUnit().getCode());
            asked.put("description", about.description());
            asked.put("returnTo", about.returnTo());
            asked.put("payerName", about.payerName());
            asked.put("payerEmail", about.payerEmail());
            asked.put("test", test);
            asked.put("hold", wish.hold());
            asked.put("keep", wish.keep());
            asked.put("method", wish.from());
            asked.put("takes", words(wish.takes()));
            return answered(() -> http.post()
                    .uri("/api/orders")
                    .header("Idempotency-Key", key)
                    .body(asked)
                    .retrieve()
                    .body(Answer.class));
        }

        @Override
        public Optional<Answer> ask(String orderId) {
            return asked(
                    () -> http.get().uri("/api/orders/{id}", orderId).retrieve().body(Answer.class));
        }

        @Override
        public Answer withdraw(String orderId) {
            return answered(() -> http.post()
                    .uri("/api/orders/{id}/withdrawal", orderId)
                    .retrieve()
                    .body(Answer.class));
        }

        @Override
        public Answer take(String orderId, Money amount) {
            return done(() -> http.post()
                    .uri("/api/orders/{id}/taking", orderId)
                    .body(Map.of("amount", amount.getAmount().toPlainString()))
                    .retrieve()
                    .body(Answer.class));
        }

        private static List<String> words(Set<Taking> takes) {
            return takes.stream().map(Taking::word).sorted().toList();
        }

        @Override
        public Answer charge(String orderId) {
            return done(() -> http.post()
                    .uri("/api/orders/{id}/charge", orderId)
                    .retrieve()
                    .body(Answer.class));
        }

        @Override
        public Keeping openKeeping(String key, String description, String returnTo, Set<Taking> takes) {
            return answered(() -> http.post()
                    .uri("/api/keepings")
                    .header("Idempotency-Key", key)
                    .body(Map.of("description", description, "returnTo", returnTo, "takes", words(takes)))
                    .retrieve()
                    .body(Keeping.class));
        }

        @Override
        public Optional<Keeping> askKeeping(String id) {
            return asked(
                    () -> http.get().uri("/api/keepings/{id}", id).retrieve().body(Keeping.class));
        }

        @Override
        public void forget(String method) {
            asked(() ->
                    http.delete().uri("/api/methods/{id}", method).retrieve().toBodilessEntity());
        }

        /** What it knows; empty where it knows nothing of it. */
        private static <T> Optional<T> asked(Supplier<T> call) {
            return answered(() -> {
                try {
                    return Optional.ofNullable(call.get());
                } catch (HttpClientErrorException.NotFound e) {
                    return Optional.empty();
                }
            });
        }

        @Override
        public Answer release(String orderId) {
            return done(() -> http.post()
                    .uri("/api/orders/{id}/release", orderId)
                    .retrieve()
                    .body(Answer.class));
        }

        private record Told(
                long number,
                String kind,
                String subject,
                String order,
                String currency,
                String amount,
                String cost,
                LocalDate on,
                String reason,
                LocalDate answerBy,
                String key,
                List<Long> entries) {
            private Entry entry() {
                CurrencyUnit unit = CurrencyUnit.of(currency);
                return new Entry(
                        number,
                        KINDS.get(kind),
                        subject,
                        order,
                        Money.of(unit, new BigDecimal(amount)),
                        Money.of(unit, new BigDecimal(cost)),
                        on,
                        reason,
                        answerBy,
                        key,
                        entries);
            }
        }

        @Override
        public List<Entry> entries(long after) {
            Told[] told = answered(() -> http.get()
                    .uri("/api/account/entries?after={after}", after)
                    .retrieve()
                    .body(Told[].class));
            return told == null
                    ? List.of()
                    : Arrays.stream(told).map(Told::entry).toList();
        }

        @Override
        public void refund(String key, String orderId, Money amount) {
            done(() -> http.post()
                    .uri("/api/refunds")
                    .header("Idempotency-Key", key)
                    .body(Map.of("order", orderId, "amount", amount.getAmount().toPlainString()))
                    .retrieve()
                    .toBodilessEntity());
        }

        @Override
        public void answer(String contest, String evidence) {
            done(() -> http.post()
                    .uri("/api/contests/{id}/answer", contest)
                    .body(Map.of("text", evidence))
                    .retrieve()
                    .toBodilessEntity());
        }

        /** A refusal is final, whatever it says; all else is asked again. */
        private static <T> T done(Supplier<T> call) {
            try {
                return answered(call);
            } catch (NoAnswer e) {
                if (e.getCause() instanceof HttpClientErrorException refusal && !(e instanceof KeyUnknown)) {
                    ProblemDetail problem = problem(refusal);
                    throw new Refused(
                            problem == null || problem.getDetail() == null ? "it was refused" : problem.getDetail(),
                            refusal);
                }
                throw e;
            }
        }

        private static ProblemDetail problem(HttpClientErrorException refusal) {
            try {
                return refusal.getResponseBodyAs(ProblemDetail.class);
            } catch (RuntimeException e) {
                return null;
            }
        }

        private static <T> T answered(Supplier<T> call) {
            try {
                return call.get();
            } catch (HttpClientErrorException.Unauthorized e) {
                throw new KeyUnknown(e);
            } catch (RestClientException e) {
                throw new NoAnswer(e.getMessage(), e);
            }
        }
    }
}
