package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** Everything that corrects an invoice, pays it or sends it, at once: what was answered is what the books say. */
public class CorrectionRaceTest extends InAWorld {
    private static final int RUNS = 12;
    private static final BigDecimal TOTAL = new BigDecimal("121.00");

    @Test
    public void correctingPayingAndSendingAtOnceLeaveTheBooksWithWhatWasAnswered() throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(6);
        int corrected = 0;
        for (int run = 0; run < RUNS; run++) {
            long client = api.client("Crossing " + run);
            long invoice = api.post("/api/invoices", api.draft(client, "100.00", "40%@10", "rest@30"))
                    .ok()
                    .path("id")
                    .asLong();
            api.post("/api/invoices/" + invoice + "/issue", Map.of("version", 1))
                    .ok();
            Map<String, Integer> told = told(threads, api, client, invoice, run);
            corrected += check(api, client, invoice, told) ? 1 : 0;
        }
        threads.shutdown();
        assertThat(corrected).isPositive();
        assertThat(api.booksAgree()).isTrue();
    }

    /** The status of each answer; the order in which they are asked turns from run to run. */
    private static Map<String, Integer> told(ExecutorService threads, Api api, long client, long invoice, int run)
            throws Exception {
        String path = "/api/invoices/" + invoice;
        Map<String, Object> rest = Map.of("what", "rest", "reason", "crossing", "replace", false);
        Map<String, Object> part = Map.of("what", "amount", "amount", "21.00", "reason", "part", "replace", false);
        Map<String, Callable<Api.Answer>> asked = new LinkedHashMap<>();
        asked.put("void", () -> api.post(path + "/voiding", Map.of("reason", "crossing")));
        asked.put("back", () -> api.post(path + "/taking-back", Map.of("reason", "crossing")));
        asked.put("rest", () -> api.post(path + "/credit-notes", rest));
        asked.put("part", () -> api.post(path + "/credit-notes", part));
        asked.put("paid", () -> api.transfer(client, invoice, TOTAL.toPlainString(), "crossing-paid-" + run));
        asked.put("sent", () -> api.post(path + "/sendings", Map.of("key", "crossing-sent-" + run)));
        List<String> names = new ArrayList<>(asked.keySet());
        java.util.Collections.rotate(names, run);
        Map<String, Future<Api.Answer>> going = new LinkedHashMap<>();
        names.forEach(n -> going.put(n, threads.submit(asked.get(n))));
        Map<String, Integer> told = new LinkedHashMap<>();
        for (String name : names) {
            Api.Answer answer = going.get(name).get();
            assertThat(List.of(200, 409, 422)).as(name + ": " + answer.text()).contains(answer.status());
            told.put(name, answer.status());
        }
        return told;
    }

    /** @return whether the invoice was withdrawn, or a credit note took from it */
    private static boolean check(Api api, long client, long invoice, Map<String, Integer> told) {
        boolean withdrawn = done(told, "void") || done(told, "back");
        boolean credited = done(told, "rest") || done(told, "part");
        assertThat(withdrawn && credited).as(told.toString()).isFalse();
        if (withdrawn && done(told, "sent")) {
            // Its letter was written and had not left: it never does.
            assertThat(api.get("/api/invoices/" + invoice + "/messages").ok())
                    .as(told.toString())
                    .isNotEmpty()
                    .allMatch(m -> m.path("state").asString().equals("set aside"));
        }
        BigDecimal owes = withdrawn ? BigDecimal.ZERO : TOTAL;
        if (done(told, "rest")) {
            owes = BigDecimal.ZERO;
        } else if (done(told, "part")) {
            owes = owes.subtract(new BigDecimal("21.00"));
        }
        if (done(told, "paid")) {
            owes = owes.subtract(TOTAL);
        }
        JsonNode account = api.get("/api/clients/" + client).ok();
        assertThat(new BigDecimal(
                        account.path("sums").path("owes").path("amount").asString()))
                .as(told.toString())
                .isEqualByComparingTo(owes);
        return withdrawn || credited;
    }

    private static boolean done(Map<String, Integer> told, String name) {
        return told.get(name) == 200;
    }
}
