package quill.core.catalogue;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import quill.core.Problem;

/**
 * Something that is sold again and again. What was issued keeps the price that it had.
 *
 * @param code by which the business knows it; may be empty
 * @param prices of one unit, by ISO 4217 code, with up to 6 decimals
 * @param taxes ids of the business's taxes; empty for what lines begin with anyway
 * @param category of income, of the business's own; empty for none
 * @param asksSerial whether a line with it asks for a serial number
 * @param stock how many there are, below zero where more were issued than counted; null where they are not counted
 * @param warnBelow from which count on to warn; null for never
 */
public record Item(
        String code,
        String description,
        String unit,
        Map<String, BigDecimal> prices,
        List<String> taxes,
        String category,
        boolean asksSerial,
        BigDecimal stock,
        BigDecimal warnBelow) {
    /** How many characters a category of income has at most. */
    public static final int MAX_CATEGORY = 60;
    /** What deposits that are invoiced stand under, as if it were a category: no one's own may have that name. */
    public static final String DEPOSITS = "Deposits invoiced";

    /** Adds a problem where a category has the name that deposits stand under. @param typed may be null */
    public static void checkCategory(String field, String typed, List<Problem> problems) {
        if (typed != null && typed.strip().equalsIgnoreCase(DEPOSITS)) {
            problems.add(new Problem(field, typed, "is what deposits stand under; give the category another name"));
        }
    }

    /** The same with other prices. */
    public Item withPrices(Map<String, BigDecimal> other) {
        return new Item(code, description, unit, other, taxes, category, asksSerial, stock, warnBelow);
    }

    /** The same with other taxes. */
    public Item withTaxes(List<String> other) {
        return new Item(code, description, unit, prices, other, category, asksSerial, stock, warnBelow);
    }

    /** Whether somebody should be told how few are left. */
    public boolean isLow() {
        return isLow(stock, warnBelow);
    }

    /** Whether a count is low. Nothing is low that is not counted. */
    public static boolean isLow(BigDecimal stock, BigDecimal warnBelow) {
        return stock != null && (stock.signum() < 0 || (warnBelow != null && stock.compareTo(warnBelow) < 0));
    }

    /** Whether the two say the same of what is sold, whatever their counts. */
    public boolean sameAs(Item other) {
        return code.equals(other.code)
                && description.equals(other.description)
                && unit.equals(other.unit)
                && taxes.equals(other.taxes)
                && category.equals(other.category)
                && asksSerial == other.asksSerial
                && same(warnBelow, other.warnBelow)
                && prices.keySet().equals(other.prices.keySet())
                && prices.entrySet().stream().allMatch(p -> same(p.getValue(), other.prices.get(p.getKey())));
    }

    /** Whether two counts or prices are the same number, however many noughts they end with. */
    public static boolean same(BigDecimal a, BigDecimal b) {
        return a == null ? b == null : b != null && a.compareTo(b) == 0;
    }
}
