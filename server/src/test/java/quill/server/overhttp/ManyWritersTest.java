package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.Reporter;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/**
 * Twenty people work on one client's account at once, a thousand operations in all: nothing is lost, nothing doubled, whoever is
 * refused is told why, and what is open never falls below nothing.
 */
public class ManyWritersTest extends InAWorld {
    private static final int WRITERS = 20;
    private static final int EACH = 50;

    private final List<Long> invoices = new ArrayList<>();
    private final ConcurrentLinkedQueue<Long> payments = new ConcurrentLinkedQueue<>();
    /** What each transfer that was said to be recorded brought, by its key. */
    private final Map<String, BigDecimal> brought = new ConcurrentHashMap<>();

    private final Map<Integer, AtomicInteger> answers = new ConcurrentHashMap<>();

    @Test
    public void twentyWritersOnOneClientLoseAndDoubleNothing() throws Exception {
        Api owner = api;
        long client = owner.client("Many Writers");
        for (int i = 0; i < 12; i++) {
            invoices.add(owner.issue(owner.draft(client, "100.00", "d40%@0", "rest@30")));
        }
        ExecutorService writers = Executors.newFixedThreadPool(WRITERS);
        List<Callable<Void>> tasks = new ArrayList<>();
        for (int w = 0; w < WRITERS; w++) {
            int writer = w;
            // One after another: the door lets nobody crowd in.
            Api api = Api.signedIn(world);
            tasks.add(() -> {
                Random random = new Random(writer);
                for (int i = 0; i < EACH; i++) {
                    one(api, client, "writer-" + writer + "-op-" + i, random);
                }
                return null;
            });
        }
        for (Future<Void> f : writers.invokeAll(tasks)) {
            f.get();
        }
        writers.shutdown();
        Reporter.log("twenty writers: answers " + answers, true);
        assertThat(answers.keySet()).as("told yes, or why not").isSubsetOf(200, 409, 422);
        assertThat(answers.get(200).get()).isGreaterThan(WRITERS * EACH / 4);
        check(owner, client);
    }

    private void one(Api api, long client, String key, Random random) {
        long invoice = invoices.get(random.nextInt(invoices.size()));
        int what = random.nextInt(20);
        if (what < 9) {
            transfer(api, client, random.nextInt(3) == 0 ? null : invoice, key, random);
        } else if (what < 12) {
            // The same request twice is one payment.
            transfer(api, client, invoice, "shared-" + random.nextInt(8) + "-key", new Random(5));
        } else if (what < 15) {
            JsonNode choice = api.choice(api.token(invoice), 0);
            Api.Answer order = choice == null ? null : api.order(api.token(invoice), choice);
            if (order != null && count(order).status() == 200) {
                api.typeCard(order.ok().path("address").asString(), World.GOOD_CARD);
            }
        } else if (what < 18) {
            Long payment = payments.peek();
            if (payment != null) {
                count(api.post(
                        "/api/payments/" + payment + "/refunds",
                        Map.of("key", key + "-refund", "amount", "1.00", "way", "TRANSFER", "owedAgain", true)));
                payments.remove(payment);
                payments.add(payment);
            }
        } else {
            count(api.post(
                    "/api/invoices/" + invoice + "/credit-notes",
                    Map.of("what", "amount", "amount", "5.00", "reason", "a small thing", "replace", false)));
        }
    }

    private void transfer(Api api, long client, Long invoice, String key, Random random) {
        String amount = BigDecimal.valueOf(100 + random.nextInt(3000), 2).toPlainString();
        Api.Answer answer = count(api.transfer(client, invoice, amount, key));
        if (answer.status() == 200) {
            brought.put(key, new BigDecimal(amount));
            payments.add(answer.ok().path("id").asLong());
        }
    }

    private Api.Answer count(Api.Answer answer) {
        answers.computeIfAbsent(answer.status(), s -> new AtomicInteger()).incrementAndGet();
        assertThat(answer.status()).as(answer.text()).isLessThan(500);
        return answer;
    }

    private void check(Api api, long client) {
        // Cards that were typed are taken in by themselves.
        Waiting.until(
                "card payments",
                () -> !api.get("/api/money-in?filter=Many").ok().toString().contains("GIVEN_UP") || api.booksAgree());
        assertThat(api.booksAgree()).isTrue();
        Map<String, Integer> seen = new HashMap<>();
        BigDecimal transfers = BigDecimal.ZERO;
        for (JsonNode p : api.get("/api/clients/" + client + "/payments").ok()) {
            if (p.path("means").path("way").asString().equals("TRANSFER")) {
                transfers = transfers.add(
                        new BigDecimal(p.path("amount").path("amount").asString()));
                seen.merge(p.path("id").asString(), 1, Integer::sum);
            }
        }
        assertThat(transfers)
                .as("each that was told as recorded, once")
                .isEqualByComparingTo(brought.values().stream().reduce(BigDecimal.ZERO, BigDecimal::add));
        assertThat(seen).hasSize(brought.size());
        for (long invoice : invoices) {
            assertThat(new BigDecimal(api.open(invoice)).signum()).isNotNegative();
        }
    }
}
