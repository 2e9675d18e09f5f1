package quill.acceptance;

import java.math.BigDecimal;
import java.net.URI;
import java.net.http.HttpRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** What the counting house itself says that it booked: the other side of every comparison. */
final class CountingHouseBooks {
    private final App house;

    CountingHouseBooks(App house) {
        this.house = house;
    }

    /** All entries, in their order. */
    List<JsonNode> entries() {
        List<JsonNode> all = new ArrayList<>();
        JsonNode some;
        do {
            some = get("/api/account/entries?after=" + all.size());
            some.forEach(all::add);
        } while (!some.isEmpty());
        return all;
    }

    /** What is held in euro. */
    String held() {
        return get("/api/account/held").path("EUR").asString("0.00");
    }

    JsonNode order(String id) {
        return get("/api/orders/" + id);
    }

    private JsonNode get(String path) {
        Api.Answer answer = new Api(house)
                .exchange(HttpRequest.newBuilder(URI.create(house.url(path)))
                        .header("Authorization", "Bearer " + App.KEY)
                        .build());
        return answer.ok();
    }

    /** Tells it the date: it lives through all days until then. */
    void moveTo(java.time.LocalDate day) {
        new Api(house)
                .exchange(HttpRequest.newBuilder(URI.create(house.url("/api/business-date")))
                        .header("Authorization", "Bearer " + App.KEY)
                        .header("Content-Type", "application/json")
                        .PUT(HttpRequest.BodyPublishers.ofString("{\"today\":\"" + day + "\"}"))
                        .build());
    }

    /** What all entries of each order come to, less what they cost. */
    Map<String, BigDecimal> netByOrder() {
        Map<String, BigDecimal> sums = new TreeMap<>();
        for (JsonNode e : entries()) {
            if (!e.path("order").isNull()) {
                sums.merge(e.path("order").asString(), net(e), BigDecimal::add);
            }
        }
        return sums;
    }

    static BigDecimal net(JsonNode entry) {
        return new BigDecimal(entry.path("amount").asString())
                .subtract(new BigDecimal(entry.path("cost").asString()));
    }
}
