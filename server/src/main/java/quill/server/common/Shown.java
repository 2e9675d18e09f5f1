package quill.server.common;

import org.joda.money.Money;
import quill.core.money.Amounts;

/** Figures as sentences have them. */
public final class Shown {
    private Shown() {}

    /** Money as a letter writes it: the currency, then the figure. */
    public static String money(Money money) {
        String code = money.getCurrencyUnit().getCode();
        String before = switch (code) {
            case "EUR" -> "€";
            case "GBP" -> "£";
            case "USD" -> "$";
            default -> code + " ";
        };
        return before + Amounts.grouped(money);
    }
}
