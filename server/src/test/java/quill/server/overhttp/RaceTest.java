package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** Two windows, old pages, repeated requests and lost answers: nothing lost, nothing double, everybody told the truth. */
public class RaceTest extends InAWorld {

    @Test
    public void twoTabsPayOneInstallmentOnce() {
        long client = api.client("Two Tabs");
        long invoice = api.issue(api.draft(client, "100.00", "d40%@0", "rest@30"));
        String token = api.token(invoice);
        JsonNode choice = api.choice(token, 0);
        String first = api.order(token, choice).ok().path("address").asString();
        String second = api.order(token, choice).ok().path("address").asString();
        assertThat(second).isEqualTo(first);
        assertThat(api.typeCard(first, World.GOOD_CARD)).contains("Paid. Thank you");
        assertThat(api.typeCard(second, World.GOOD_CARD)).contains("nothing more is taken");
        Waiting.until("booking", () -> api.open(invoice).equals("72.60"));
        Api.Answer late = api.order(token, choice);
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.text()).contains("paid already");
        assertThat(payments(client)).hasSize(1);
        assertThat(api.booksAgree()).isTrue();
    }

    @Test
    public void anOldPageIsToldWhatIsOpenNow() {
        long client = api.client("Old Page");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        String token = api.token(invoice);
        JsonNode old = api.choice(token, 0);
        api.transfer(client, invoice, "21.00", "old-page-transfer").ok();
        Api.Answer answer = api.order(token, old);
        assertThat(answer.status()).isEqualTo(409);
        assertThat(answer.text()).contains("it is 100.00 now, not 121.00").contains("Nothing was taken");
        assertThat(api.order(token, api.choice(token, 0)).status()).isEqualTo(200);
    }

    @Test
    public void cardMoneyForWhatATransferPaidIsHeldAsCreditAndTold() {
        // The processor's answers are cut, so that the order cannot be withdrawn before the card is typed.
        long client = api.client("Both Ways");
        long invoice = api.issue(api.draft(client, "100.00", "d40%@0", "rest@30"));
        String token = api.token(invoice);
        String payAt =
                api.order(token, api.choice(token, 0)).ok().path("address").asString();
        world.dial("lose", 1);
        try {
            assertThat(api.typeCard(payAt, World.GOOD_CARD)).contains("Paid");
            api.transfer(client, invoice, "48.40", "both-ways-transfer").ok();
            Waiting.until("the second money", () -> payments(client).size() == 2);
        } finally {
            world.dial("lose", 0);
        }
        JsonNode account = api.get("/api/clients/" + client).ok();
        assertThat(account.path("sums").path("owes").path("amount").asString()).isEqualTo("24.20");
        assertThat(api.booksAgree()).isTrue();
        boolean credited =
                account.path("sums").path("credit").path("amount").asString().equals("48.40");
        boolean poll =
                account.path("sums").path("credit").path("amount").asString().equals("0.00");
        // Either the poll was faster than the transfer (then the transfer settles the rest), or the money is credit.
        assertThat(credited || poll).isTrue();
        if (credited) {
            assertThat(api.get("/api/today").ok().path("needs").toString()).contains("Both Ways");
            Waiting.until(
                    "a receipt that says so",
                    () -> world.letters("bothways@clients.example").toString().contains("held as credit"));
        }
    }

    @Test
    public void anOrderIsWithdrawnWhenItsMoneyCameOtherwise() {
        long client = api.client("Withdrawn Order");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        String token = api.token(invoice);
        String payAt =
                api.order(token, api.choice(token, 0)).ok().path("address").asString();
        api.transfer(client, invoice, "121.00", "withdrawn-transfer").ok();
        Waiting.until(
                "the withdrawal",
                () -> new Api(world.outside)
                        .get(payAt.substring(payAt.indexOf("/pay/")))
                        .text()
                        .contains("withdrawn by the business"));
        assertThat(api.typeCard(payAt, World.GOOD_CARD)).contains("Nothing was taken");
        assertThat(payments(client)).hasSize(1);
    }

    @Test
    public void aLostAnswerOfTheProcessorMakesNoSecondOrder() {
        long client = api.client("Lost Answer");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        String token = api.token(invoice);
        world.dial("cut", 1);
        Api.Answer lost = api.order(token, api.choice(token, 0));
        world.dial("cut", 0);
        if (lost.status() == 409) {
            assertThat(lost.text()).contains("Nothing was taken");
        }
        String payAt =
                api.order(token, api.choice(token, 0)).ok().path("address").asString();
        api.typeCard(payAt, World.GOOD_CARD);
        Waiting.until("booking", () -> api.open(invoice).equals("0.00"));
        assertThat(payments(client)).hasSize(1);
    }

    @Test
    public void aRepeatedRequestIsOnePayment() {
        long client = api.client("Twice Told");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        JsonNode first = api.transfer(client, invoice, "20.00", "the-same-key").ok();
        JsonNode second = api.transfer(client, invoice, "20.00", "the-same-key").ok();
        assertThat(second.path("id").asLong()).isEqualTo(first.path("id").asLong());
        assertThat(api.open(invoice)).isEqualTo("101.00");
    }

    @Test
    public void undoingAPaymentWhoseCreditWasUsedReopensWhatItSettled() {
        long client = api.client("Used Credit");
        long one = api.issue(api.draft(client, "100.00", "100%@30"));
        JsonNode payment = api.transfer(client, one, "171.00", "used-credit-1").ok();
        long two = api.issue(api.draft(client, "50.00", "100%@30"));
        assertThat(api.open(two)).isEqualTo("10.50"); // 60.50 less the credit of 50.00
        Map<String, String> why = Map.of("why", "it was somebody else's");
        api.post("/api/payments/" + payment.path("id").asLong() + "/undoing", why)
                .ok();
        assertThat(api.open(one)).isEqualTo("121.00");
        assertThat(api.open(two)).isEqualTo("60.50");
        assertThat(api.booksAgree()).isTrue();
        Api.Answer again = api.post("/api/payments/" + payment.path("id").asLong() + "/undoing", why);
        assertThat(again.status()).isEqualTo(409);
    }

    @Test
    public void creditAndReplaceMovesWhatWasPaidToTheNewInvoice() {
        long client = api.client("Replaced");
        long invoice = api.issue(api.draft(client, "100.00", "d40%@0", "rest@30"));
        api.transfer(client, invoice, "48.40", "replaced-deposit").ok();
        long draft = api.post(
                        "/api/invoices/" + invoice + "/credit-notes",
                        Map.of("what", "rest", "reason", "a wrong line", "replace", true))
                .ok()
                .path("draftId")
                .asLong();
        assertThat(api.open(invoice)).isEqualTo("0.00");
        JsonNode account = api.get("/api/clients/" + client).ok();
        assertThat(account.path("sums").path("credit").path("amount").asString())
                .isEqualTo("48.40");
        api.post("/api/invoices/" + draft + "/issue", Map.of("version", 1)).ok();
        assertThat(api.open(draft)).isEqualTo("72.60");
        assertThat(api.booksAgree()).isTrue();
        assertThat(api.post(
                                "/api/invoices/" + invoice + "/credit-notes",
                                Map.of("what", "rest", "reason", "again", "replace", false))
                        .status())
                .isEqualTo(409);
    }

    @Test
    public void manyIssuingAtOnceLeaveNoGapAndNoDouble() throws Exception {
        long client = api.client("Numbers");
        List<Long> drafts = new ArrayList<>();
        for (int i = 0; i < 16; i++) {
            drafts.add(api.post("/api/invoices", api.draft(client, "10.00", "100%@30"))
                    .ok()
                    .path("id")
                    .asLong());
        }
        ExecutorService two = Executors.newFixedThreadPool(4);
        List<Callable<Integer>> tasks = new ArrayList<>();
        for (long id : drafts) {
            Callable<Integer> task = () -> {
                api.post("/api/invoices/" + id + "/issue", Map.of("version", 1)).ok();
                String number = api.get("/api/invoices/" + id)
                        .ok()
                        .path("issued")
                        .path("document")
                        .path("number")
                        .asString();
                return Integer.parseInt(number.substring(5));
            };
            tasks.add(task);
        }
        Set<Integer> numbers = new HashSet<>();
        for (Future<Integer> done : two.invokeAll(tasks)) {
            numbers.add(done.get());
        }
        two.shutdown();
        assertThat(numbers).hasSize(16);
        int least = numbers.stream().min(Integer::compare).orElseThrow();
        int most = numbers.stream().max(Integer::compare).orElseThrow();
        assertThat(most - least).isEqualTo(15);
    }

    private List<JsonNode> payments(long client) {
        List<JsonNode> list = new ArrayList<>();
        api.get("/api/clients/" + client + "/payments").ok().forEach(list::add);
        return list;
    }
}
