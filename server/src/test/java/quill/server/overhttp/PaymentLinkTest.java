package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** Payment links over HTTP: a crowd at once, stale and forged requests, nonsense. */
public class PaymentLinkTest extends InAWorld {
    private static final int CROWD = 50;

    private static Map<String, Object> link(String title, String amount, boolean once) {
        Map<String, Object> link = new LinkedHashMap<>();
        link.put("title", title);
        link.put("asks", Map.of("currency", "EUR", "chosen", false, "amount", amount, "least", "", "most", ""));
        link.put("taxes", List.of());
        link.put("once", once);
        link.put("hold", false);
        link.put("version", 0);
        return link;
    }

    private JsonNode make(String key, String title, String amount, boolean once) {
        return api.post("/api/payment-links", Map.of("key", key, "link", link(title, amount, once)))
                .ok();
    }

    private static String tokenOf(JsonNode record) {
        return record.path("link").path("token").asString();
    }

    private static Map<String, Object> payer(String key, String name, String amount) {
        return Map.of(
                "key",
                key,
                "amount",
                amount,
                "currency",
                "EUR",
                "name",
                name,
                "email",
                name.replace(" ", "").toLowerCase() + "@crowd.example",
                "agreed",
                true);
    }

    private static Api.Answer begin(Api as, String token, Map<String, Object> payer) {
        return as.post("/api/public/" + token + "/link/payments", payer);
    }

    private <T> List<T> atOnce(int many, Callable<T> each) throws Exception {
        ExecutorService crowd = Executors.newFixedThreadPool(many);
        List<Callable<T>> tasks = new ArrayList<>();
        for (int i = 0; i < many; i++) {
            tasks.add(each);
        }
        List<T> answers = new ArrayList<>();
        for (Future<T> f : crowd.invokeAll(tasks)) {
            answers.add(f.get());
        }
        crowd.shutdown();
        return answers;
    }

    /** Fifty people pay one open link at the same time; every fifth of them shares one address with the others of theirs. */
    @Test
    public void fiftyPayOneOpenLinkAtOnce() throws Exception {
        JsonNode made = make("crowd-link-1", "Crowd evening", "25.00", false);
        String token = tokenOf(made);
        java.util.concurrent.atomic.AtomicInteger next = new java.util.concurrent.atomic.AtomicInteger();
        List<String> said = atOnce(CROWD, () -> {
            int n = next.getAndIncrement();
            String name = n % 5 == 0 ? "Shared Family" : "Crowd Payer" + n;
            Api as = new Api(world);
            String address = begin(as, token, payer("crowd-pay-" + n + "-x", name, "25.00"))
                    .ok()
                    .path("address")
                    .asString();
            return as.typeCard(address, World.GOOD_CARD);
        });
        assertThat(said).allMatch(s -> s.contains("Paid. Thank you"));
        String path = "/api/payment-links/" + made.path("link").path("id").asLong();
        Waiting.until("all of them", () -> api.get(path).ok().path("times").asInt() == CROWD);
        JsonNode record = api.get(path).ok();
        assertThat(record.path("came").path("amount").asString()).isEqualTo("1250.00");
        Set<String> keys = new HashSet<>();
        Set<Long> clients = new HashSet<>();
        for (JsonNode p : record.path("paid")) {
            keys.add(p.path("key").asString());
            clients.add(p.path("clientId").asLong());
        }
        assertThat(keys).as("each once").hasSize(CROWD);
        assertThat(clients).as("one client for each address").hasSize(CROWD - CROWD / 5 + 1);
        Waiting.until(
                "their receipts",
                () -> world.letters("sharedfamily@crowd.example").toString().contains("Crowd evening"));
        assertThat(api.booksAgree()).isTrue();
    }

    /** Fifty want what is paid once: one pays, all others are told why not, and nothing is taken of them. */
    @Test
    public void oneOfFiftyPaysWhatIsPaidOnce() throws Exception {
        JsonNode made = make("crowd-link-2", "The old piano stool", "80.00", true);
        String token = tokenOf(made);
        java.util.concurrent.atomic.AtomicInteger next = new java.util.concurrent.atomic.AtomicInteger();
        List<Api.Answer> answers = atOnce(CROWD, () -> {
            int n = next.getAndIncrement();
            return begin(new Api(world), token, payer("stool-pay-" + n + "-x", "Stool Buyer" + n, "80.00"));
        });
        List<Api.Answer> first = answers.stream().filter(a -> a.status() == 200).toList();
        assertThat(first).hasSize(1);
        assertThat(answers.stream().filter(a -> a.status() != 200))
                .allMatch(a -> a.status() == 409 && a.text().contains("Nothing was taken"));
        new Api(world).typeCard(first.get(0).ok().path("address").asString(), World.GOOD_CARD);
        String path = "/api/payment-links/" + made.path("link").path("id").asLong();
        Waiting.until("its payment", () -> api.get(path).ok().path("times").asInt() == 1);
        assertThat(api.get(path).ok().path("state").asString()).isEqualTo("PAID");
        Api.Answer late = begin(new Api(world), token, payer("stool-late-1", "Late Buyer", "80.00"));
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.text()).contains("paid already");
        assertThat(api.booksAgree()).isTrue();
    }

    @DataProvider
    public Object[][] forged() {
        return new Object[][] {
            {"amount", "0.01"},
            {"amount", "0"},
            {"amount", "-1"},
            {"amount", "0.001"},
            {"amount", "1000000000000000"},
            {"currency", "USD"},
            {"name", ""},
            {"email", "nobody"},
            {"key", "x"},
        };
    }

    /** What the page did not offer is refused with its field, and nothing is begun. */
    @Test(dataProvider = "forged")
    public void aForgedRequestIsRefusedWithItsField(String field, String value) {
        String token = tokenOf(make("forged-link", "Forged", "25.00", false));
        Map<String, Object> payer = new LinkedHashMap<>(payer("forged-pay-1", "Forger", "25.00"));
        payer.put(field, value);
        Api.Answer answer = begin(new Api(world), token, payer);
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text()).contains("\"field\":\"" + field + "\"");
    }

    @DataProvider
    public Object[][] onward() {
        return new Object[][] {{"http://club.example"}, {"javascript:alert(1)"}, {"https://a@b.example"}, {"club"}};
    }

    @Test(dataProvider = "onward")
    public void nobodyIsSentOnToAnAddressThatIsNotSecure(String address) {
        Map<String, Object> link = link("Onward", "25.00", false);
        link.put("after", Map.of("thanks", "", "onward", address));
        Api.Answer answer = api.post("/api/payment-links", Map.of("key", "onward-link-1", "link", link));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text()).contains("after.onward").contains("https");
    }

    /** What was begun belongs to whoever began it: neither another link's address nor a guess shows it. */
    @Test
    public void whatSomebodyFilledInIsNobodyElses() {
        String one = tokenOf(make("own-link-1", "One", "25.00", false));
        String other = tokenOf(make("own-link-2", "Other", "25.00", false));
        Api as = new Api(world);
        begin(as, one, payer("own-pay-1-x", "Private Payer", "25.00")).ok();
        assertThat(as.get("/api/public/" + one + "/link").text()).doesNotContain("Private");
        assertThat(as.post("/api/public/" + other + "/link/payments/guess/back", Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(as.get("/api/payment-links").status()).isEqualTo(401);
    }
}
