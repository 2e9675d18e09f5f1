package quill.server.common;

import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;

/** A figure that can say why: the rule and the numbers it came from. */
public record Figure(String amount, String currency, Why why) {
    /** From the core's result. */
    public static Figure of(Money money, Why why) {
        return new Figure(Amounts.plain(money), money.getCurrencyUnit().getCode(), why);
    }

    /** Back to money. */
    public Money money() {
        return new Amount(amount, currency).money();
    }
}
