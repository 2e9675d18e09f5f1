package quill.acceptance;

import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** Somebody at work for as long as the soak goes on: writes, issues, sends, is paid, credits, and reads the books. */
final class SoakPerson implements Runnable {
    private static final int MOST_CLIENTS = 12;
    private final SoakTest soak;
    private final Random random;
    private final Api api;
    private final List<Long> clients = new ArrayList<>();
    private final List<Long> invoices = new ArrayList<>();

    SoakPerson(SoakTest soak, int number) {
        this.soak = soak;
        this.random = new Random(number);
        this.api = new Api(soak.own);
    }

    @Override
    public void run() {
        while (!soak.isOver()) {
            int kills = soak.kills();
            try {
                act();
                soak.acts.incrementAndGet();
            } catch (UncheckedIOException e) {
                soak.expectAway(kills, e);
            } catch (AssertionError e) {
                soak.refused(kills, e);
            }
        }
    }

    private Api.Answer ok(Api.Answer answer) {
        if (answer.status() == 401) {
            api.post("/api/session", Map.of("email", SoakTest.OWNER, "passphrase", SoakTest.PASSPHRASE));
        }
        if (answer.status() >= 500 && answer.status() != 503) {
            soak.fail("status " + answer.status() + ": " + answer.text());
        }
        answer.ok();
        return answer;
    }

    private void act() {
        switch (invoices.isEmpty() ? 0 : random.nextInt(12)) {
            case 0, 1, 2 -> write();
            case 3, 4 -> pay();
            case 5 -> payByCard();
            case 6 -> credit();
            case 7 -> ok(api.get("/api/today"));
            case 8 -> ok(api.get("/api/invoices?filter=" + random.nextInt(9)));
            case 9 -> ok(api.get("/api/aging"));
            case 10 -> account();
            default -> books();
        }
    }

    private long anyClient() {
        if (clients.size() < MOST_CLIENTS) {
            Map<String, Object> client =
                    Map.of("id", 0, "name", "Soaked " + UUID.randomUUID(), "email", "s@clients.example", "version", 1);
            JsonNode made = ok(api.post("/api/clients", client)).json();
            clients.add(made.path("id").asLong());
        }
        return clients.get(random.nextInt(clients.size()));
    }

    private void write() {
        long client = anyClient();
        String price = BigDecimal.valueOf(100 + random.nextInt(90_000), 2).toPlainString();
        Map<String, Object> draft = api.draft(client, price, "d30%@0", "rest@" + random.nextInt(40));
        JsonNode kept = ok(api.post("/api/invoices", draft)).json();
        long id = kept.path("id").asLong();
        int version = kept.path("version").asInt();
        for (int i = 0; i < 3; i++) {
            draft.put("subject", "work, version " + i);
            version = ok(api.put("/api/invoices/" + id, Map.of("version", version, "typed", draft)))
                    .json()
                    .path("version")
                    .asInt();
        }
        String how = random.nextInt(4) > 0 ? "issue-and-send" : "issue";
        ok(api.post("/api/invoices/" + id + "/" + how, Map.of("version", version)));
        invoices.add(id);
        soak.tokens.add(api.token(id));
        if (invoices.size() > 40) {
            invoices.remove(0);
        }
    }

    private long anyInvoice() {
        return invoices.get(random.nextInt(invoices.size()));
    }

    private void pay() {
        long client = anyClient();
        String amount = BigDecimal.valueOf(1 + random.nextInt(60_000), 2).toPlainString();
        ok(api.transfer(client, null, amount, UUID.randomUUID().toString()));
    }

    private void payByCard() {
        String token = api.token(anyInvoice());
        JsonNode choices =
                ok(api.get("/api/public/" + token)).json().path("paying").path("choices");
        if (!choices.isEmpty()) {
            Api.Answer order = api.order(token, choices.get(0));
            if (order.status() == 200) {
                new Api(soak.outside).typeCard(order.json().path("address").asString(), Suite.GOOD_CARD);
            } else if (order.status() != 409) {
                ok(order);
            }
        }
    }

    private void credit() {
        Api.Answer answer = api.post(
                "/api/invoices/" + anyInvoice() + "/credit-notes",
                Map.of("what", "amount", "amount", "1.00", "reason", "soaked", "replace", false));
        if (answer.status() != 409 && answer.status() != 422) {
            ok(answer);
        }
    }

    private void account() {
        JsonNode account = ok(api.get("/api/clients/" + anyClient())).json();
        if (!account.path("books").path("agrees").asBoolean()) {
            soak.fail("an account does not agree: " + account.path("client"));
        }
    }

    private void books() {
        JsonNode books = ok(api.get("/api/books")).json();
        boolean zero = !books.path("sum").path("amount").asString().matches(".*[1-9].*");
        soak.reads.incrementAndGet();
        if (!books.path("disagreeing").isEmpty() || !zero) {
            soak.fail("the books do not agree: " + books.path("disagreeing") + " " + books.path("sum"));
        }
    }
}
