package quill.server.catalogue;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.catalogue.Item;
import quill.server.common.Json;
import quill.server.common.Texts;

/** Tables ITEM and ITEM_PRICE. Holds no rules; the caller opens the transaction. */
@Repository
class ItemRepository {
    private static final String SELECT = """
            SELECT id, code, description, unit, taxes, category, asks_serial, stock, warn_below, picture, retired, version FROM item
            """;
    /** What is typed may be a part of the code or of the description. */
    private static final String OF_PART = """
             AND (LOWER(description) LIKE :part ESCAPE '!' OR LOWER(code) LIKE :part ESCAPE '!')
            """;

    private static final String LOW = " AND stock IS NOT NULL AND stock < COALESCE(warn_below, 0)";

    private final JdbcClient jdbc;
    private final Json json;

    ItemRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    Optional<StoredItem> find(long id) {
        return withPrices(jdbc.sql(SELECT + " WHERE id = :id")
                        .param("id", id)
                        .query(this::row)
                        .list())
                .stream()
                .findFirst();
    }

    List<StoredItem> some(Collection<Long> ids) {
        return ids.isEmpty()
                ? List.of()
                : withPrices(jdbc.sql(SELECT + " WHERE id IN (:ids)")
                        .param("ids", ids)
                        .query(this::row)
                        .list());
    }

    /** All that are offered, for a table's rows to be compared with. */
    List<StoredItem> all() {
        return withPrices(
                jdbc.sql(SELECT + " ORDER BY description, id").query(this::row).list());
    }

    /** What a list shows of items. @param part of code or description, in small letters @param low only those running out */
    record Wanted(String part, boolean retired, boolean low, String sort, int from, int most) {
        private String order() {
            return switch (sort) {
                case "code" -> "code_key NULLS LAST, description, id";
                case "stock" -> "stock NULLS LAST, description, id";
                case "best" ->
                    "CASE WHEN code_key LIKE :start ESCAPE '!' OR LOWER(description) LIKE :start ESCAPE '!'"
                            + " THEN 0 ELSE 1 END, description, id";
                default -> "retired, description, id"; // as the index has it: the first page reads no other
            };
        }

        private String where() {
            return " WHERE retired = :retired" + (part.isEmpty() ? "" : OF_PART) + (low ? LOW : "");
        }
    }

    List<StoredItem> page(Wanted w) {
        JdbcClient.StatementSpec sql = jdbc.sql(SELECT + w.where() + " ORDER BY " + w.order()
                        + " OFFSET :from ROWS FETCH FIRST :most ROWS ONLY")
                .param("retired", w.retired())
                .param("part", "%" + Texts.inLike(w.part()) + "%")
                .param("from", w.from())
                .param("most", w.most());
        return withPrices((w.sort().equals("best") ? sql.param("start", Texts.inLike(w.part()) + "%") : sql)
                .query(this::row)
                .list());
    }

    int count(Wanted w) {
        return jdbc.sql("SELECT COUNT(*) FROM item" + w.where())
                .param("retired", w.retired())
                .param("part", "%" + Texts.inLike(w.part()) + "%")
                .query(Integer.class)
                .single();
    }

    /** Categories of income that items have, by name. */
    List<String> categories() {
        return jdbc.sql("SELECT DISTINCT category FROM item WHERE category <> '' ORDER BY category")
                .query(String.class)
                .list();
    }

    /** The category of income of each of these that has one, by id. */
    Map<Long, String> categoriesOf(Collection<Long> ids) {
        Map<Long, String> categories = new HashMap<>();
        if (!ids.isEmpty()) {
            jdbc.sql("SELECT id, category FROM item WHERE id IN (:ids) AND category <> ''")
                    .param("ids", ids)
                    .query(rs -> {
                        categories.put(rs.getLong(1), rs.getString(2));
                    });
        }
        return categories;
    }

    long insert(Item i) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO item (code, description, unit, taxes, category, asks_serial, stock, warn_below)
                VALUES (:code, :description, :unit, :taxes, :category, :serial, :stock, :warn)
                """)
                .param("code", i.code())
                .param("description", i.description())
                .param("unit", i.unit())
                .param("taxes", json.write(i.taxes()))
                .param("category", i.category())
                .param("serial", i.asksSerial())
                .param("stock", i.stock())
                .param("warn", i.warnBelow())
                .update(key, "id");
        long id = key.getKey().longValue();
        prices(id, i);
        return id;
    }

    /** Its count is changed by a movement only. @return rows changed: none where the version is another by now */
    int update(long id, int version, Item i) {
        int rows = jdbc.sql("""
                UPDATE item
                   SET code = :code, description = :description, unit = :unit, taxes = :taxes,
                       category = :category, asks_serial = :serial,
                       warn_below = :warn, version = version + 1
                 WHERE id = :id AND version = :version
                """)
                .param("code", i.code())
                .param("description", i.description())
                .param("unit", i.unit())
                .param("taxes", json.write(i.taxes()))
                .param("category", i.category())
                .param("serial", i.asksSerial())
                .param("warn", i.warnBelow())
                .param("id", id)
                .param("version", version)
                .update();
        if (rows == 1) {
            jdbc.sql("DELETE FROM item_price WHERE item_id = :id")
                    .param("id", id)
                    .update();
            prices(id, i);
        }
        return rows;
    }

    private void prices(long id, Item i) {
        i.prices()
                .forEach((currency, price) -> jdbc.sql("INSERT INTO item_price VALUES (:id, :currency, :price)")
                        .param("id", id)
                        .param("currency", currency)
                        .param("price", price)
                        .update());
    }

    int retire(long id, int version, boolean retired) {
        return jdbc.sql("""
                UPDATE item SET retired = :retired, version = version + 1 WHERE id = :id AND version = :version
                """)
                .param("retired", retired)
                .param("id", id)
                .param("version", version)
                .update();
    }

    private StoredItem row(java.sql.ResultSet rs, int n) throws java.sql.SQLException {
        return new StoredItem(
                rs.getLong("id"),
                new Item(
                        rs.getString("code"),
                        rs.getString("description"),
                        rs.getString("unit"),
                        Map.of(),
                        List.of(json.read(rs.getString("taxes"), String[].class)),
                        rs.getString("category"),
                        rs.getBoolean("asks_serial"),
                        plain(rs.getBigDecimal("stock")),
                        plain(rs.getBigDecimal("warn_below"))),
                Objects.requireNonNullElse(rs.getString("picture"), ""),
                rs.getBoolean("retired"),
                rs.getInt("version"));
    }

    private List<StoredItem> withPrices(List<StoredItem> items) {
        Map<Long, Map<String, BigDecimal>> prices = new HashMap<>();
        List<Long> ids = items.stream().map(StoredItem::id).toList();
        for (int from = 0; from < ids.size(); from += 1000) {
            jdbc.sql("SELECT item_id, currency, price FROM item_price WHERE item_id IN (:ids)")
                    .param("ids", ids.subList(from, Math.min(ids.size(), from + 1000)))
                    .query(rs -> {
                        prices.computeIfAbsent(rs.getLong(1), i -> new TreeMap<>())
                                .put(rs.getString(2), plain(rs.getBigDecimal(3)));
                    });
        }
        return items.stream()
                .map(s -> new StoredItem(
                        s.id(),
                        s.item().withPrices(prices.getOrDefault(s.id(), Map.of())),
                        s.picture(),
                        s.retired(),
                        s.version()))
                .toList();
    }

    private static BigDecimal plain(BigDecimal value) {
        return value == null ? null : new BigDecimal(value.stripTrailingZeros().toPlainString());
    }
}
