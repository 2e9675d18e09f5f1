package quill.core.pay;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;

/**
 * What a payment link asks for, in one currency, its taxes inside: one amount, or what its payer chooses within limits.
 *
 * @param least the smallest that is taken
 * @param most the largest; the same where there is nothing to choose
 */
public record LinkAmount(Money least, Money most) {
    /** @throws IllegalArgumentException unless both are above zero, in one currency, the least first */
    public LinkAmount {
        if (!least.isPositive() || !least.isSameCurrency(most) || least.isGreaterThan(most)) {
            throw new IllegalArgumentException(least + " to " + most);
        }
    }

    /**
     * As typed.
     *
     * @param currency ISO 4217 code
     * @param chosen whether the payer chooses; then {@code least} and {@code most} count, else {@code amount}
     */
    public record TypedLinkAmount(String currency, boolean chosen, String amount, String least, String most) {}

    /**
     * Reads what was typed.
     *
     * @param problems gets those of {@code asks.currency}, {@code asks.amount}, {@code asks.least}, {@code asks.most}
     * @return null where there is a problem
     */
    public static LinkAmount read(TypedLinkAmount typed, List<Problem> problems) {
        int before = problems.size();
        CurrencyUnit currency = TypedNumber.currency("asks.currency", typed.currency(), problems);
        if (currency == null) {
            return null;
        }
        String first = typed.chosen() ? "least" : "amount";
        Money least = positive("asks." + first, typed.chosen() ? typed.least() : typed.amount(), currency, problems);
        Money most = typed.chosen() ? positive("asks.most", typed.most(), currency, problems) : least;
        if (problems.size() > before) {
            return null;
        }
        if (typed.chosen() && !least.isLessThan(most)) {
            problems.add(new Problem("asks.most", typed.most(), "must be above " + Amounts.grouped(least)));
            return null;
        }
        return new LinkAmount(least, most);
    }

    private static Money positive(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        Money amount = TypedNumber.amount(field, text, currency, problems);
        if (amount != null && !amount.isPositive()) {
            problems.add(new Problem(field, text, "must be above zero"));
            return null;
        }
        return amount;
    }

    /** Whether there is nothing to choose. */
    public boolean isFixed() {
        return least.isEqual(most);
    }

    /**
     * What a payer is about to pay.
     *
     * @param amount as typed, or as the page sent it
     * @param currency as the page sent it
     * @param problems gets those of {@code amount} and {@code currency}, with what is allowed
     * @return null where there is a problem
     */
    public Money paid(String amount, String currency, List<Problem> problems) {
        CurrencyUnit unit = least.getCurrencyUnit();
        if (!unit.getCode().equals(currency)) {
            problems.add(new Problem("currency", currency, "must be " + unit.getCode()));
            return null;
        }
        Money paid = TypedNumber.amount("amount", amount, unit, problems);
        if (paid != null && (paid.isLessThan(least) || paid.isGreaterThan(most))) {
            problems.add(new Problem(
                    "amount",
                    amount,
                    isFixed()
                            ? "must be " + Amounts.grouped(least) + ", what is asked for here"
                            : "must be from " + Amounts.grouped(least) + " to " + Amounts.grouped(most)));
            return null;
        }
        return paid;
    }
}
