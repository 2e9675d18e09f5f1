package quill.core.catalogue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import quill.core.Problem;
import quill.core.money.TypedNumber;
import quill.core.tax.Tax;

/** Turns a typed item into one, and names every field that cannot be read. */
public final class ItemReading {
    private static final int MAX_CODE = 40;
    private static final int MAX_DESCRIPTION = 500;
    private static final int MAX_UNIT = 30;
    private static final int DECIMALS = 6;
    private static final int MAX_TAXES = 8;

    private final Map<String, Tax> taxes;
    private final List<Problem> problems = new ArrayList<>();

    private ItemReading(Map<String, Tax> taxes) {
        this.taxes = taxes;
    }

    /** What could be read. @param item null where there are problems */
    public record Read(Item item, List<Problem> problems) {}

    /** Reads one. @param taxes those that the business offers, by id */
    public static Read read(TypedItem typed, Map<String, Tax> taxes) {
        ItemReading reading = new ItemReading(taxes);
        Item item = reading.read(typed);
        return new Read(reading.problems.isEmpty() ? item : null, reading.problems);
    }

    private Item read(TypedItem typed) {
        String description = text("description", typed.description(), MAX_DESCRIPTION);
        if (description.isEmpty()) {
            problems.add(new Problem("description", "", "say what this is; it is printed on the line"));
        }
        Item.checkCategory("category", typed.category(), problems);
        return new Item(
                text("code", typed.code(), MAX_CODE),
                description,
                text("unit", typed.unit(), MAX_UNIT),
                prices(typed.prices()),
                taxes(typed.taxes()),
                text("category", typed.category(), Item.MAX_CATEGORY),
                typed.asksSerial(),
                number("stock", typed.stock(), true),
                number("warnBelow", typed.warnBelow(), false));
    }

    private Map<String, BigDecimal> prices(Map<String, String> typed) {
        Map<String, BigDecimal> prices = new TreeMap<>();
        typed.forEach((code, price) -> {
            CurrencyUnit currency = TypedNumber.currency("prices." + code, code, problems);
            BigDecimal value = currency == null ? null : number("prices." + code, price, false);
            if (value != null) {
                prices.put(currency.getCode(), value);
            }
        });
        return prices;
    }

    private List<String> taxes(List<String> typed) {
        List<String> ids = new ArrayList<>();
        if (typed.size() > MAX_TAXES) {
            problems.add(
                    new Problem("taxes", String.valueOf(typed.size()), "at most " + MAX_TAXES + " taxes are allowed"));
            return ids;
        }
        for (String text : typed) {
            Tax tax = taxes.values().stream()
                    .filter(t -> t.id().equals(text) || t.name().equalsIgnoreCase(text.strip()))
                    .findFirst()
                    .orElse(null);
            if (tax == null) {
                problems.add(new Problem(
                        "taxes",
                        text,
                        taxes.isEmpty()
                                ? "a business that is not registered has no taxes"
                                : "must be one of your taxes: "
                                        + String.join(
                                                ", ",
                                                taxes.values().stream()
                                                        .map(Tax::name)
                                                        .toList())));
            } else if (!ids.contains(tax.id())) {
                ids.add(tax.id());
            }
        }
        return ids;
    }

    private BigDecimal number(String field, String text, boolean negative) {
        return text == null || text.isBlank() ? null : TypedNumber.read(field, text, DECIMALS, negative, problems);
    }

    private String text(String field, String text, int most) {
        String plain = text == null ? "" : text.strip();
        if (plain.length() > most) {
            problems.add(new Problem(field, plain, "at most " + most + " characters are allowed"));
        }
        return plain;
    }
}
