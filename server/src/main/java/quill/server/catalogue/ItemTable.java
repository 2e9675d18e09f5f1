package quill.server.catalogue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import quill.core.Problem;
import quill.core.catalogue.Item;
import quill.core.catalogue.ItemReading;
import quill.core.catalogue.TypedItem;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.table.ColumnKind;
import quill.core.tax.Tax;
import quill.server.common.Csv;
import quill.server.common.Texts;
import quill.server.tables.RowKind;

/**
 * The catalogue as a table, out and in. A row is about the item of its code or, without one, of its description and
 * unit; what the table has no column for stays as it is.
 */
final class ItemTable implements RowKind<ItemTable.Row> {
    private static final String PRICE = "price.";
    private static final Set<String> YES = Set.of("yes", "y", "true", "1", "x", "ja", "oui");

    private final CatalogueService service;
    private final Map<String, Tax> taxes;
    private final List<String> currencies;
    private final Map<String, StoredItem> byKey = new HashMap<>();

    /** @param before the item that is there already, or null */
    record Row(StoredItem before, Item item) {}

    ItemTable(CatalogueService service, CurrencyUnit own, List<StoredItem> all) {
        this.service = service;
        this.taxes = service.taxes();
        all.forEach(s -> byKey.putIfAbsent(keyOf(s.item()), s));
        currencies = new ArrayList<>(List.of(own.getCode()));
        all.stream()
                .flatMap(s -> s.item().prices().keySet().stream())
                .filter(c -> !c.equals(own.getCode()))
                .distinct()
                .sorted()
                .forEach(currencies::add);
        for (String common : List.of("EUR", "GBP", "USD", "CHF")) {
            if (!currencies.contains(common)) {
                currencies.add(common);
            }
        }
    }

    private static String keyOf(Item i) {
        return i.code().isEmpty() ? "  " + plain(i.description()) + "  " + plain(i.unit()) : plain(i.code());
    }

    private static String plain(String text) {
        return text.strip().toLowerCase(Locale.ROOT);
    }

    @Override
    public List<ColumnKind> columns() {
        List<ColumnKind> kinds = new ArrayList<>(List.of(
                new ColumnKind("code", "Code", List.of("sku", "item no", "article no", "article number", "no"), false),
                new ColumnKind("description", "Description", List.of("name", "item", "what", "article"), true),
                new ColumnKind("unit", "Unit", List.of("per", "uom"), false)));
        for (String c : currencies) {
            List<String> others = new ArrayList<>(List.of("unit price " + c, c));
            if (c.equals(currencies.get(0))) {
                others.addAll(List.of("price", "unit price", "net price", "rate"));
            }
            kinds.add(new ColumnKind(PRICE + c, "Price " + c, others, false));
        }
        kinds.add(new ColumnKind("taxes", "Taxes", List.of("tax", "vat", "tax rate"), false));
        kinds.add(new ColumnKind("category", "Income category", List.of("category", "income"), false));
        kinds.add(new ColumnKind("asksSerial", "Serial number asked", List.of("serial", "serial number"), false));
        kinds.add(new ColumnKind("stock", "In stock", List.of("stock", "count", "on hand"), false));
        kinds.add(new ColumnKind("warnBelow", "Warn below", List.of("minimum stock", "minimum"), false));
        return kinds;
    }

    @Override
    public Read<Row> read(Map<String, String> cells, DecimalMark mark) {
        String code = cells.getOrDefault("code", "");
        StoredItem before = byKey.get(
                code.isBlank()
                        ? "  " + plain(cells.getOrDefault("description", "")) + "  "
                                + plain(cells.getOrDefault("unit", ""))
                        : plain(code));
        Item was = before == null ? null : before.item();
        Map<String, String> prices = new LinkedHashMap<>();
        if (was != null) {
            was.prices().forEach((c, p) -> prices.put(c, p.toPlainString()));
        }
        cells.forEach((column, cell) -> {
            if (column.startsWith(PRICE)) {
                prices.put(column.substring(PRICE.length()), mark.plain(cell));
            }
        });
        TypedItem typed = new TypedItem(
                code,
                cells.getOrDefault("description", ""),
                cells.getOrDefault("unit", was == null ? "" : was.unit()),
                prices,
                cells.containsKey("taxes") ? taxes(cells.get("taxes")) : was == null ? List.of() : offered(was),
                cells.getOrDefault("category", was == null ? "" : was.category()),
                cells.containsKey("asksSerial")
                        ? YES.contains(plain(cells.get("asksSerial")))
                        : was != null && was.asksSerial(),
                number(cells, "stock", was == null ? null : was.stock(), mark),
                number(cells, "warnBelow", was == null ? null : was.warnBelow(), mark));
        ItemReading.Read read = ItemReading.read(typed, taxes);
        List<Problem> problems = read.problems().stream()
                .map(p -> p.at(p.field().replace("prices.", PRICE)))
                .collect(Collectors.toCollection(ArrayList::new));
        for (String column : List.of("description", "unit", "category")) {
            Texts.printable(column, cells.get(column), problems);
        }
        return new Read<>(problems.isEmpty() ? new Row(before, read.item()) : null, problems);
    }

    private List<String> offered(Item item) {
        return item.taxes().stream().filter(taxes::containsKey).toList();
    }

    private static String number(Map<String, String> cells, String column, BigDecimal was, DecimalMark mark) {
        return cells.containsKey(column) ? mark.plain(cells.get(column)) : was == null ? "" : was.toPlainString();
    }

    /** A cell is one tax, or several with a plus between them. */
    private List<String> taxes(String cell) {
        boolean one = taxes.values().stream().anyMatch(t -> t.name().equalsIgnoreCase(cell.strip()));
        return cell.isBlank()
                ? List.of()
                : one ? List.of(cell) : List.of(cell.strip().split("\\s*\\+\\s*"));
    }

    @Override
    public Map.Entry<String, String> key(Row row) {
        return Map.entry(row.item().code().isEmpty() ? "description" : "code", keyOf(row.item()));
    }

    @Override
    public Landing landing(Row row) {
        if (row.before() == null) {
            return Landing.NEW;
        }
        boolean same = !row.before().retired()
                && row.before().item().sameAs(row.item())
                && Item.same(row.before().item().stock(), row.item().stock());
        return same ? Landing.SAME : Landing.CHANGED;
    }

    @Override
    public Map<String, String> shown(Row row) {
        Item i = row.item();
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("code", i.code());
        shown.put("description", i.description());
        shown.put("unit", i.unit());
        i.prices().forEach((c, p) -> shown.put(PRICE + c, Amounts.price(p, CurrencyUnit.of(c))));
        shown.put("taxes", i.taxes().stream().map(t -> taxes.get(t).name()).collect(Collectors.joining(" + ")));
        shown.put("category", i.category());
        shown.put("asksSerial", i.asksSerial() ? "yes" : "");
        shown.put("stock", i.stock() == null ? "" : i.stock().toPlainString());
        shown.put("warnBelow", i.warnBelow() == null ? "" : i.warnBelow().toPlainString());
        return shown;
    }

    @Override
    public void store(List<Row> rows) {
        rows.forEach(r -> service.take(r.before(), r.item()));
    }

    /** These items as rows below their heads, as {@link #read} reads them again. */
    List<List<String>> rows(List<StoredItem> items) {
        List<ColumnKind> kinds = columns().stream()
                .filter(k -> !k.name().startsWith(PRICE)
                        || k.name().equals(PRICE + currencies.get(0))
                        || items.stream()
                                .anyMatch(s ->
                                        s.item().prices().containsKey(k.name().substring(PRICE.length()))))
                .toList();
        List<List<String>> rows = new ArrayList<>();
        rows.add(kinds.stream().map(ColumnKind::words).toList());
        for (StoredItem s : items) {
            Map<String, String> shown = shown(new Row(s, s.item().withTaxes(offered(s.item()))));
            rows.add(kinds.stream()
                    .map(k -> cell(k.name(), shown.getOrDefault(k.name(), "")))
                    .toList());
        }
        return rows;
    }

    /** Counts and prices stay numbers; a text that begins like a formula is told to be text. */
    private static String cell(String column, String text) {
        return column.startsWith(PRICE) || column.equals("stock") || column.equals("warnBelow") ? text : Csv.text(text);
    }
}
