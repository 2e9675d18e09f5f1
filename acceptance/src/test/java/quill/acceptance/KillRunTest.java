package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/**
 * The application is killed forty times in the middle of a run that charges fees and sends letters, and goes on by
 * itself each time. Two machines share the forty, since most of the time is spent starting.
 */
public class KillRunTest extends Suite {
    private static final int LANES = 2;
    private static final int KILLS = 40 / LANES;
    private static final int COHORTS = 10;
    private static final int CLIENTS = 24;

    @Test
    public void fortyKillsLeaveEachFeeOnceAndEachLetterAtMostOnce() throws Exception {
        ExecutorService both = Executors.newFixedThreadPool(LANES);
        List<Future<?>> lanes = new ArrayList<>();
        for (int i = 0; i < LANES; i++) {
            int seed = 100 + i;
            lanes.add(both.submit(() -> lane(new Random(seed))));
        }
        for (Future<?> lane : lanes) {
            lane.get();
        }
        both.shutdown();
    }

    private void lane(Random random) {
        try (Demo demo = new Demo(Map.of("quill.run-every", "200"))) {
            List<Long> clients = work(demo);
            for (int kill = 0; kill < KILLS; kill++) {
                // With every second kill a new day begins; else the run goes on by itself where it was cut off.
                if (kill % 2 == 0) {
                    CompletableFuture.runAsync(() -> demo.api.post("/api/demo/clock", Map.of("by", "day")));
                }
                Waiting.pause(random.nextInt(1_100));
                demo.app.kill();
                demo.app.start("/api/health");
                demo.ready();
            }
            while (demo.forward("day").path("today").asString().compareTo("2027-04-12") < 0) {
                continue;
            }
            settled(demo, clients);
            checked(demo, clients);
        }
    }

    /** Cohorts whose fee and only letter fall on the same day, fourteen days after: more than are done at once. */
    private static List<Long> work(Demo demo) {
        Api api = demo.api;
        api.put("/api/late-fees", """
                {"policy": {"kind": "percent", "amount": "1%%", "grace": "13", "repeat": "once", "every": "", "cap": "",
                 "smallest": "", "deposits": false}, "ceiling": "10", "review": false, "version": %s}
                """.formatted(version(api, "/api/late-fees"))).ok();
        api.put("/api/reminder-plan", """
                {"plan": {"steps": [{"days": "14", "tone": "FINAL"}], "on": true, "hour": "09:00", "offRestDays": false,
                 "holidays": ""}, "version": %s}
                """.formatted(version(api, "/api/reminder-plan")))
                .ok();
        List<Long> clients = new ArrayList<>();
        for (int cohort = 0; cohort < COHORTS; cohort++) {
            for (int i = 0; i < CLIENTS; i++) {
                long client = api.client("Lane " + (char) ('a' + cohort) + " " + (char) ('a' + i));
                long invoice = api.post("/api/invoices", api.draft(client, "100.00", "100%@" + (2 + cohort)))
                        .ok()
                        .path("id")
                        .asLong();
                api.post("/api/invoices/" + invoice + "/issue", Map.of("version", 1))
                        .ok();
                clients.add(client);
            }
        }
        demo.forward("week");
        demo.forward("week");
        demo.forward("day");
        return clients;
    }

    private static int version(Api api, String path) {
        return api.get(path).ok().path("version").asInt();
    }

    private static void settled(Demo demo, List<Long> clients) {
        Waiting.until(
                "the letters",
                () -> clients.stream().allMatch(c -> {
                    for (JsonNode m :
                            demo.api.get("/api/clients/" + c + "/messages").ok()) {
                        if (m.path("state").asString().matches("waiting|sending")) {
                            return false;
                        }
                    }
                    return true;
                }));
    }

    private static void checked(Demo demo, List<Long> clients) {
        String needs = demo.api.get("/api/today").ok().path("needs").toString();
        int uncertain = 0;
        for (long client : clients) {
            JsonNode account = demo.api.get("/api/clients/" + client).ok();
            String address = account.path("client").path("email").asString();
            // 121.00 and one fee of 1.21: not none, and not two.
            assertThat(account.path("sums").path("owes").path("amount").asString())
                    .as(address)
                    .isEqualTo("122.21");
            // A letter that could not leave on its day is set aside, and another is written on the next.
            List<JsonNode> messages = new ArrayList<>();
            for (JsonNode m :
                    demo.api.get("/api/clients/" + client + "/messages").ok()) {
                if (!m.path("state").asString().equals("set aside")) {
                    messages.add(m);
                }
            }
            assertThat(messages).as("letters to %s", address).hasSize(1);
            int arrived = demo.letters(address).size();
            if (messages.get(0).path("state").asString().equals("sent")) {
                assertThat(arrived).as("arrived at %s", address).isEqualTo(1);
            } else {
                uncertain++;
                assertThat(messages.get(0).path("state").asString()).isEqualTo("uncertain");
                assertThat(arrived).isLessThanOrEqualTo(1);
                assertThat(needs).contains("Did this letter arrive?").contains(address);
            }
        }
        assertThat(uncertain).isLessThanOrEqualTo(KILLS);
        assertThat(demo.api.booksAgree()).isTrue();
        for (JsonNode logged : demo.api.get("/api/runs").ok()) {
            JsonNode act = logged.path("act");
            assertThat(act.path("outcome").asString()).isIn("done", "not needed");
        }
    }
}
