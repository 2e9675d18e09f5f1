package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.Test;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/**
 * Months of trading by chance: invoices, payments of any size, slips undone, documents taken back. After every act the
 * books agree, and what each client owes is what a plain tally of charges and receipts says (double entry, Pacioli).
 */
public class TradingTest extends InAWorld {
    private static final int ACTS = 140;
    private final Random random = new Random(1494);
    private final Map<Long, BigDecimal> tally = new LinkedHashMap<>();
    private final List<Long> invoices = new ArrayList<>();
    private final List<JsonNode> payments = new ArrayList<>();

    @Test
    public void booksAgreeAfterEveryActOfAGeneratedTrade() {
        for (String name : List.of("Trader One", "Trader Two", "Trader Three")) {
            tally.put(api.client(name), BigDecimal.ZERO);
        }
        for (int i = 0; i < ACTS; i++) {
            switch (invoices.isEmpty() ? 0 : random.nextInt(10)) {
                case 0, 1, 2, 3 -> bill();
                case 4, 5, 6 -> pay(i);
                case 7 -> payByCard();
                case 8 -> undo();
                default -> takeBack();
            }
            if (i % 10 == 9) {
                compare();
            }
        }
        compare();
        assertThat(payments).isNotEmpty();
    }

    private long anyClient() {
        return new ArrayList<>(tally.keySet()).get(random.nextInt(tally.size()));
    }

    private void bill() {
        long client = anyClient();
        String price = BigDecimal.valueOf(100 + random.nextInt(90_000), 2).toPlainString();
        String[] terms = random.nextBoolean()
                ? new String[] {"d" + (10 + random.nextInt(80)) + "%@0", "rest@30"}
                : new String[] {"100%@" + random.nextInt(60)};
        long id = api.post("/api/invoices", api.draft(client, price, terms))
                .ok()
                .path("id")
                .asLong();
        api.post("/api/invoices/" + id + "/issue", Map.of("version", 1)).ok();
        invoices.add(id);
        charge(client, total(id));
    }

    private BigDecimal total(long invoice) {
        JsonNode document =
                api.get("/api/invoices/" + invoice).ok().path("issued").path("document");
        return new BigDecimal(document.path("sums").path("total").path("amount").asString());
    }

    private void pay(int act) {
        long client = anyClient();
        String amount = BigDecimal.valueOf(1 + random.nextInt(120_000), 2).toPlainString();
        payments.add(api.transfer(client, null, amount, "trading-" + act + "-payment")
                .ok());
        charge(client, new BigDecimal(amount).negate());
    }

    private void payByCard() {
        long invoice = invoices.get(random.nextInt(invoices.size()));
        String token = api.token(invoice);
        JsonNode choices = api.get("/api/public/" + token).ok().path("paying").path("choices");
        if (choices.isEmpty()) {
            return;
        }
        JsonNode choice = choices.get(random.nextInt(choices.size()));
        String before = api.open(invoice);
        api.typeCard(api.order(token, choice).ok().path("address").asString(), World.GOOD_CARD);
        Waiting.until("booking", () -> !api.open(invoice).equals(before));
        long client = api.get("/api/invoices/" + invoice).ok().path("clientId").asLong();
        charge(client, new BigDecimal(choice.path("amount").path("amount").asString()).negate());
    }

    private void undo() {
        if (payments.isEmpty()) {
            return;
        }
        JsonNode payment = payments.remove(random.nextInt(payments.size()));
        api.post("/api/payments/" + payment.path("id").asLong() + "/undoing", Map.of("why", "generated"))
                .ok();
        charge(
                payment.path("clientId").asLong(),
                new BigDecimal(payment.path("amount").path("amount").asString()));
    }

    private void takeBack() {
        long invoice = invoices.remove(random.nextInt(invoices.size()));
        BigDecimal total = total(invoice);
        long client = api.get("/api/invoices/" + invoice).ok().path("clientId").asLong();
        api.post(
                        "/api/invoices/" + invoice + "/credit-notes",
                        Map.of("what", "rest", "reason", "generated", "replace", false))
                .ok();
        charge(client, total.negate());
    }

    private void charge(long client, BigDecimal amount) {
        tally.merge(client, amount, BigDecimal::add);
    }

    private void compare() {
        assertThat(api.booksAgree()).isTrue();
        tally.forEach((client, expected) -> {
            JsonNode account = api.get("/api/clients/" + client).ok();
            assertThat(new BigDecimal(
                            account.path("sums").path("owes").path("amount").asString()))
                    .isEqualByComparingTo(expected);
            assertThat(account.path("books").path("agrees").asBoolean()).isTrue();
            BigDecimal open = BigDecimal.ZERO;
            for (JsonNode row : account.path("invoices")) {
                for (JsonNode part : row.path("measure")) {
                    open = open.add(
                            new BigDecimal(part.path("open").path("amount").asString()));
                }
            }
            BigDecimal credit = new BigDecimal(
                    account.path("sums").path("credit").path("amount").asString());
            assertThat(credit).isGreaterThanOrEqualTo(BigDecimal.ZERO);
            assertThat(open.subtract(credit)).isEqualByComparingTo(expected);
        });
    }
}
