package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.Reporter;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/**
 * Orders by the hundred through a counting house that loses, doubles, delays and reorders its events and cuts its answers off
 * after the work was done, while both sides are killed and started again: at the end the books say what the counting house's
 * own say, payment by payment, fee by fee, payout by payout. 500 orders here; {@code ./quill bench chaos} takes 5,000.
 */
public class ChaosTest {
    private static final int ORDERS = Integer.getInteger("quill.chaos", 500);
    private static final int CLIENTS = 20;
    private static final int PAYERS = 4;
    private static final String[] CARDS = {Suite.GOOD_CARD, "9902000000000026", "9906000000000063", "9907000000000070"};
    private static final String[] ACCOUNTS = {"GOOD", "SHORT", "OBJECTS"};

    private Path folder;
    private App app;
    private App house;
    private CountingHouseBooks truth;
    private LocalDate day = LocalDate.now();
    /** Orders that somebody was sent to. */
    private final AtomicInteger begun = new AtomicInteger();

    private final AtomicInteger broken = new AtomicInteger();
    private final AtomicInteger refunds = new AtomicInteger();
    private final List<Long> clients = new ArrayList<>();

    @BeforeClass
    public void begin() throws IOException {
        folder = Files.createTempDirectory("quill-chaos");
        int port = App.freePort();
        int mail = App.freePort();
        house = App.standIns(folder, port, mail);
        app = App.server(folder.resolve("app"), port, house.port, mail, Map.of("quill.processor.ask-every", "700"));
        truth = new CountingHouseBooks(house);
        truth.moveTo(day);
        Api api = new Api(app);
        api.firstRun(Suite.EMAIL, Suite.PASSPHRASE, "Larkmoor Pianos", true).ok();
        api = Api.signedIn(app);
        takeDebits(api);
        for (int i = 0; i < CLIENTS; i++) {
            clients.add(api.client("Chaos " + i));
        }
    }

    private static void takeDebits(Api api) {
        JsonNode setting = api.get("/api/ways-to-pay").ok();
        List<Object> ways = new ArrayList<>();
        setting.path("ways").forEach(w -> {
            Map<String, Object> way = new TreeMap<>();
            w.properties().forEach(p -> way.put(p.getKey(), p.getValue()));
            way.put("on", true);
            ways.add(way);
        });
        api.put(
                        "/api/ways-to-pay",
                        Map.of("ways", ways, "version", setting.path("version").asInt()))
                .ok();
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        for (App each : new App[] {app, house}) {
            if (each != null) {
                each.close();
            }
        }
    }

    @Test
    public void theBooksEqualTheCountingHousesOwn() throws InterruptedException {
        dials(3, 4, 2, 7);
        ExecutorService payers = Executors.newFixedThreadPool(PAYERS);
        for (int i = 0; i < PAYERS; i++) {
            int seed = i;
            payers.execute(() -> pay(new Random(seed)));
        }
        payers.shutdown();
        for (int part = 1; part <= 12; part++) {
            int until = ORDERS * part / 13;
            Waiting.until("orders", Duration.ofMinutes(30), () -> begun.get() >= until);
            disturb(part);
        }
        assertThat(payers.awaitTermination(60, TimeUnit.MINUTES)).isTrue();
        dials(0, 0, 0, 0);
        // All that is open is decided within these days; refunds and returns follow payments.
        for (int i = 0; i < 45; i++) {
            nextDay();
        }
        Api api = Api.signedIn(app);
        Waiting.until(
                "the same sum on both sides",
                Duration.ofSeconds(240).plusMillis(ORDERS * 200L),
                () -> clearing(api).equals(truth.held()));
        compare(api);
    }

    /** The card's number is typed at the counting house: nothing of ours ever held it, nor does anything keep it there. */
    @Test(dependsOnMethods = "theBooksEqualTheCountingHousesOwn")
    public void noCardNumberIsKeptAnywhere() throws IOException {
        Path planted = Files.writeString(Files.createTempFile("quill-card", ".txt"), "x".repeat(70) + Suite.GOOD_CARD);
        assertThat(CardNumbers.holdsOne(planted))
                .as("the search finds one that is there")
                .isTrue();
        assertThat(CardNumbers.inMemoryOf(app))
                .as("in the memory of the application")
                .isFalse();
        assertThat(CardNumbers.in(folder))
                .as("in the books, the counting house's store, letters and logs")
                .isEmpty();
    }

    private void disturb(int part) {
        nextDay();
        if (part % 4 == 1) {
            app.kill();
            app.start("/api/health");
        } else if (part % 4 == 3) {
            house.kill();
            house.start("/counting-house");
        }
    }

    private void nextDay() {
        day = day.plusDays(1);
        truth.moveTo(day);
    }

    private void dials(int lose, int twice, int shuffle, int cut) {
        Map.of("lose", lose, "double", twice, "shuffle", shuffle, "cut-each", cut)
                .forEach((name, setting) -> new Api(house)
                        .exchange(HttpRequest.newBuilder(URI.create(house.url("/counting-house/dials")))
                                .header("Content-Type", "application/x-www-form-urlencoded")
                                .POST(HttpRequest.BodyPublishers.ofString("dial=" + name + "&setting=" + setting))
                                .build()));
    }

    /** One payer after another: whatever breaks on the way, the next one begins anew. */
    private void pay(Random random) {
        Api api = null;
        while (begun.get() < ORDERS) {
            try {
                if (api == null) {
                    api = Api.signedIn(app);
                }
                one(api, random);
            } catch (RuntimeException | AssertionError e) {
                // A side that is down just now, or an answer that was cut off: as people see it.
                broken.incrementAndGet();
                Waiting.pause(400);
                api = null;
            }
        }
    }

    private void one(Api api, Random random) {
        long client = clients.get(random.nextInt(CLIENTS));
        String price = BigDecimal.valueOf(500 + random.nextInt(90_000), 2).toPlainString();
        long invoice = api.post("/api/invoices", api.draft(client, price, "d40%@0", "rest@30"))
                .ok()
                .path("id")
                .asLong();
        api.post("/api/invoices/" + invoice + "/issue", Map.of("version", 1)).ok();
        String token = api.token(invoice);
        JsonNode choice = api.choice(token, random.nextInt(2));
        String address = payAt(api, token, choice);
        begun.incrementAndGet();
        int what = random.nextInt(20);
        if (what < 5) {
            debit(api, address, ACCOUNTS[random.nextInt(ACCOUNTS.length)]);
        } else if (what < 19) {
            String card = CARDS[what < 13 ? 0 : random.nextInt(CARDS.length)];
            api.typeCard(address, card);
            if (card.equals(CARDS[1]) && random.nextBoolean()) {
                api.typeCard(address, Suite.GOOD_CARD);
            }
        }
        if (random.nextInt(8) == 0) {
            refundSomething(api, client, random);
        }
    }

    /** As people do: where the card company does not answer, they press the button again. */
    private static String payAt(Api api, String token, JsonNode choice) {
        Api.Answer answer = api.order(token, choice);
        for (int again = 0; again < 5 && answer.status() == 409; again++) {
            answer = api.order(token, choice);
        }
        return answer.ok().path("address").asString();
    }

    private static void debit(Api api, String payAt, String account) {
        api.exchange(HttpRequest.newBuilder(URI.create(payAt + "/debit"))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString("account=" + account + "&agreed=true"))
                .build());
    }

    private void refundSomething(Api api, long client, Random random) {
        for (JsonNode p : api.get("/api/clients/" + client + "/payments").ok()) {
            BigDecimal paid = new BigDecimal(p.path("amount").path("amount").asString());
            BigDecimal part =
                    random.nextBoolean() ? paid : paid.divide(BigDecimal.valueOf(4), 2, java.math.RoundingMode.DOWN);
            Api.Answer answer = api.post(
                    "/api/payments/" + p.path("id").asLong() + "/refunds",
                    Map.of(
                            "key",
                            "chaos-" + refunds.incrementAndGet() + "-" + random.nextInt(1_000_000),
                            "amount",
                            part.toPlainString(),
                            "owedAgain",
                            true));
            if (answer.status() < 300) {
                return;
            }
        }
    }

    /** What the books say that the counting house holds. */
    private static String clearing(Api api) {
        for (JsonNode b : api.get("/api/books").ok().path("balances")) {
            if (b.path("account").asString().equals("Processor clearing")) {
                return b.path("amount").path("amount").asString();
            }
        }
        return "0.00";
    }

    private void compare(Api api) {
        assertThat(api.booksAgree()).isTrue();
        List<JsonNode> entries = truth.entries();
        Map<String, JsonNode> taken = new TreeMap<>();
        Set<String> orders = new HashSet<>();
        for (JsonNode e : entries) {
            if (e.path("kind").asString().equals("taken")) {
                taken.put(e.path("subject").asString(), e);
                assertThat(orders.add(e.path("order").asString()))
                        .as("an order is paid once: " + e)
                        .isTrue();
            }
        }
        Map<String, BigDecimal> net = truth.netByOrder();
        int compared = 0;
        for (JsonNode row : payments(api)) {
            JsonNode record =
                    api.get("/api/money-in/payments/" + row.path("id").asLong()).ok();
            JsonNode told = taken.remove(record.path("after").path("number").asString());
            assertThat(told).as("known to the counting house: " + record).isNotNull();
            assertThat(row.path("amount").path("amount").asString())
                    .isEqualTo(told.path("amount").asString());
            assertThat(row.path("fee").path("amount").asString())
                    .isEqualTo(told.path("cost").asString());
            BigDecimal posted = BigDecimal.ZERO;
            for (JsonNode b : record.path("books")) {
                if (b.path("account").asString().equals("Processor clearing")) {
                    posted = posted.add(
                            new BigDecimal(b.path("amount").path("amount").asString()));
                }
            }
            assertThat(posted)
                    .as("all of it: " + record)
                    .isEqualByComparingTo(net.get(told.path("order").asString()));
            compared++;
        }
        assertThat(taken).as("paid there and not known here").isEmpty();
        payouts(api, entries);
        String needs = api.get("/api/today").ok().path("needs").toString();
        assertThat(needs).doesNotContain("\"kind\":\"order\"").doesNotContain("\"kind\":\"entry\"");
        assertThat(api.get("/api/money-in").ok().toString()).doesNotContain("ON_ITS_WAY");
        Map<String, Integer> kinds = new TreeMap<>();
        entries.forEach(e -> kinds.merge(e.path("kind").asString(), 1, Integer::sum));
        Reporter.log(
                "chaos: " + ORDERS + " orders, " + broken + " broken off, " + compared + " payments compared, entries "
                        + kinds,
                true);
        assertThat(kinds.keySet())
                .contains("taken", "refunded", "refund-failed", "returned", "refused", "contested", "paid-out");
    }

    private static List<JsonNode> payments(Api api) {
        List<JsonNode> all = new ArrayList<>();
        JsonNode page;
        int start = 0;
        do {
            page = api.get("/api/payments/list?start=" + start).ok();
            page.path("rows").forEach(all::add);
            start = page.path("more").asInt(0);
        } while (start > 0);
        return all;
    }

    private static void payouts(Api api, List<JsonNode> entries) {
        List<BigDecimal> there = entries.stream()
                .filter(e -> e.path("kind").asString().equals("paid-out"))
                .map(e -> new BigDecimal(e.path("amount").asString()).negate())
                .sorted()
                .toList();
        List<BigDecimal> here = new ArrayList<>();
        api.get("/api/payouts").ok().path("past").forEach(p -> {
            here.add(new BigDecimal(p.path("net").path("amount").asString()));
            BigDecimal parts = BigDecimal.ZERO;
            JsonNode whole = api.get("/api/payouts/" + p.path("id").asLong()).ok();
            for (JsonNode part : whole.path("parts")) {
                parts = parts.add(new BigDecimal(part.path("net").path("amount").asString()));
            }
            // Of a very large one only the first parts are shown; its sum is compared all the same.
            if (whole.path("parts").size() == p.path("count").asInt()) {
                assertThat(parts).isEqualByComparingTo(here.get(here.size() - 1));
            }
        });
        assertThat(here.stream().sorted().toList()).isEqualTo(there);
    }
}
