package quill.server.common;

import java.util.Map;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/** What something brings for which debt, as a row has it: {@code LISTAGG(debt_id || ':' || amount_minor, ',')}. */
public final class DebtParts {
    private DebtParts() {}

    /** By the debt's key. @param stored null for none */
    public static Map<Long, Money> read(String stored, CurrencyUnit currency) {
        Map<Long, Money> sums = new TreeMap<>();
        if (stored != null) {
            for (String part : stored.split(",")) {
                int colon = part.indexOf(':');
                sums.put(
                        Long.valueOf(part.substring(0, colon)),
                        Money.ofMinor(currency, Long.parseLong(part.substring(colon + 1))));
            }
        }
        return sums;
    }
}
