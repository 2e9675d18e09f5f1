package quill.core.catalogue;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import quill.core.money.DecimalMark;

/**
 * An item as it was typed, on a form or in a row of somebody's table.
 *
 * @param code by which the business knows it; may be empty
 * @param prices by ISO 4217 code; an empty one is none
 * @param taxes ids or names of the business's taxes; none for what lines begin with anyway
 * @param category of income, of the business's own; empty for none
 * @param asksSerial whether a line with it asks for a serial number
 * @param stock how many there are; empty where they are not counted
 * @param warnBelow from which count on to warn; empty for never
 */
public record TypedItem(
        String code,
        String description,
        String unit,
        Map<String, String> prices,
        List<String> taxes,
        String category,
        boolean asksSerial,
        String stock,
        String warnBelow) {
    /** Missing lists are empty. */
    public TypedItem {
        prices = prices == null ? Map.of() : new TreeMap<>(prices);
        taxes = taxes == null ? List.of() : List.copyOf(taxes);
    }

    /** The same with its numbers as programs write them. @param mark with which they were typed */
    public TypedItem plain(DecimalMark mark) {
        Map<String, String> plain = new TreeMap<>();
        prices.forEach((currency, price) -> plain.put(currency, mark.plain(price)));
        return new TypedItem(
                code, description, unit, plain, taxes, category, asksSerial, mark.plain(stock), mark.plain(warnBelow));
    }
}
