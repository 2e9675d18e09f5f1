package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** Slips in plans, policies and mutes: named beside the field, nothing changed, what was typed stays. */
public class ChasingBadInputTest extends InAWorld {

    @DataProvider
    Object[][] plans() {
        return new Object[][] {
            {List.of("3", "3"), "09:00", "steps[1].days", "another step has this day"},
            {List.of("0", "999"), "09:00", "steps[1].days", "365 days after"},
            {List.of("0"), "25:00", "hour", "from 00:00 to 23:59"},
            {List.of("soon"), "09:00", "steps[0].days", "write a number"},
        };
    }

    @Test(dataProvider = "plans")
    public void aPlanThatCannotBeIsRefused(List<String> days, String hour, String field, String message) {
        JsonNode before = api.get("/api/reminder-plan").ok();
        List<Map<String, String>> steps = new ArrayList<>();
        days.forEach(d -> steps.add(Map.of("days", d, "tone", "FIRM")));
        Map<String, Object> plan =
                Map.of("steps", steps, "on", true, "hour", hour, "offRestDays", false, "holidays", "");
        Api.Answer answer = api.put(
                "/api/reminder-plan",
                Map.of("plan", plan, "version", before.path("version").asInt()));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.problem(field)).contains(message);
        assertThat(api.get("/api/reminder-plan").ok()).isEqualTo(before);
    }

    @DataProvider
    Object[][] policies() {
        return new Object[][] {
            {"grace", "-1", "policy.grace", "from 0 to 365"},
            {"amount", "900%", "policy.amount", "at most the ceiling of 10%"},
            {"repeat", "hourly", "policy.repeat", "once, days or monthly"},
            {"cap", "lots", "policy.cap", "write a number"},
        };
    }

    @Test(dataProvider = "policies")
    public void aPolicyThatCannotBeIsRefused(String cell, String typed, String field, String message) {
        JsonNode before = api.get("/api/late-fees").ok();
        Map<String, Object> policy = policy("1%");
        policy.put(cell, typed);
        Api.Answer answer = api.put(
                "/api/late-fees",
                Map.of(
                        "policy",
                        policy,
                        "ceiling",
                        "10",
                        "review",
                        false,
                        "version",
                        before.path("version").asInt()));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.problem(field)).contains(message);
        assertThat(api.get("/api/late-fees").ok()).isEqualTo(before);
        long client = api.client("Own " + cell);
        Api.Answer own = api.put("/api/clients/" + client + "/late-fees", Map.of("lateFee", policy));
        assertThat(own.problem(field.replace("policy.", "lateFee."))).contains(message);
    }

    @Test
    public void anInvoiceOfItsOwnPolicyIsNotIssuedWithASlipInIt() {
        long client = api.client("Sheet Policy");
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        draft.put("lateFee", policy("11%"));
        assertThat(api.post("/api/reckonings", draft).ok().path("problems").toString())
                .contains("lateFee.amount");
        long id = api.post("/api/invoices", draft).ok().path("id").asLong();
        Api.Answer refused = api.post("/api/invoices/" + id + "/issue", Map.of("version", 1));
        assertThat(refused.problem("lateFee.amount")).contains("at most the ceiling");
    }

    @Test
    public void aMuteThatEndedYesterdayIsRefused() {
        long client = api.client("Muted Too Late");
        long invoice = api.issue(api.draft(client, "10.00", "100%@30"));
        for (String path : List.of("/api/clients/" + client + "/mute", "/api/invoices/" + invoice + "/mute")) {
            Api.Answer answer = api.put(path, Map.of("until", "2027-03-14"));
            assertThat(answer.problem("until")).contains("must be a day from today, 15 March 2027");
            assertThat(api.put(path, Map.of("until", "2027-03-15")).status()).isEqualTo(200);
        }
    }

    @Test
    public void actsAndFeesThatDoNotExistAreSaidSo() {
        long client = api.client("Nothing There");
        Map<String, Object> act = Map.of("key", "reminder:1:2027-03-15x", "clientId", client);
        assertThat(api.post("/api/acts/keeping-back", act).status()).isEqualTo(404);
        assertThat(api.post("/api/late-fees/999999/waiving", Map.of("reason", "none"))
                        .status())
                .isEqualTo(404);
        Map<String, Object> gone = Map.of("key", "reminder:" + client + ":2027-03-15", "clientId", client);
        assertThat(api.post("/api/acts/doing-now", gone).status()).isEqualTo(409);
        assertThat(api.get("/api/today?weeks=7").problem("weeks")).contains("6, 12, 26 or 52");
    }

    private static Map<String, Object> policy(String amount) {
        return new HashMap<>(Map.of(
                "kind",
                "percent",
                "amount",
                amount,
                "grace",
                "7",
                "repeat",
                "once",
                "every",
                "",
                "cap",
                "",
                "smallest",
                "",
                "deposits",
                false));
    }
}
