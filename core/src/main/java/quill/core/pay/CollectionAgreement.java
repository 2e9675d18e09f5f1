package quill.core.pay;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;

/**
 * What a client agreed to when it let a card or a bank account be kept: to use it itself, and, where it said so, that the
 * business takes open sums from it.
 *
 * @param collects whether the business may
 * @param most so much at a time, in one currency only then; null for every open sum
 */
public record CollectionAgreement(boolean collects, Money most) {
    /** Only for what the client pays itself. */
    public static final CollectionAgreement OWN_USE = new CollectionAgreement(false, null);

    /** @throws IllegalArgumentException for a limit that is not above zero, or of what is not collected at all */
    public CollectionAgreement {
        if (most != null && (!collects || !most.isPositive())) {
            throw new IllegalArgumentException(collects + ", at most " + most);
        }
    }

    /**
     * As typed.
     *
     * @param most empty for every open sum
     * @param problems gets those of {@code most}
     * @return null where there is a problem
     */
    public static CollectionAgreement read(
            boolean collects, String most, CurrencyUnit currency, List<Problem> problems) {
        if (!collects || most == null || most.isBlank()) {
            return new CollectionAgreement(collects, null);
        }
        Money limit = TypedNumber.amount("most", most, currency, problems);
        if (limit != null && !limit.isPositive()) {
            problems.add(new Problem("most", most, "must be above zero, or empty for every open sum"));
            return null;
        }
        return limit == null ? null : new CollectionAgreement(true, limit);
    }

    /** Why the business may not take a sum; empty where it may. */
    public String refusal(Money sum) {
        if (!collects) {
            return "its holder agreed to use it alone, not that you take from it";
        }
        if (most == null) {
            return "";
        }
        return !most.isSameCurrency(sum) || sum.isGreaterThan(most)
                ? "its holder agreed to " + most.getCurrencyUnit().getCode() + " " + Amounts.grouped(most)
                        + " at a time, at most"
                : "";
    }
}
