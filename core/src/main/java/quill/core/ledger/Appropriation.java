package quill.core.ledger;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.Money;
import quill.core.money.Amounts;

/**
 * Which debts a sum of money settles, and what is left over as client credit.
 *
 * @param parts above zero each
 * @param credit what no debt has taken; zero or more
 */
public record Appropriation(List<Part> parts, Money credit) {
    /** So much of one debt. */
    public record Part(OpenDebt debt, Money amount) {}

    /** Settles what the payer named first, then the rest by {@link OpenDebt#ORDER}. */
    public static Appropriation of(Money money, List<OpenDebt> debts, Set<Long> named) {
        return of(money, debts, named, OpenDebt.ORDER);
    }

    /**
     * Settles what the payer named first, then the rest.
     *
     * @param money zero or more
     * @param named keys of the debts that the payer named; may be empty
     * @param by the order of the rest, {@link OpenDebt#ORDER} or {@link OpenDebt#FEES_FIRST}
     */
    public static Appropriation of(Money money, List<OpenDebt> debts, Set<Long> named, Comparator<OpenDebt> by) {
        if (money.isNegative()) {
            throw new IllegalArgumentException("money (" + money + ") must be zero or more");
        }
        List<OpenDebt> order = debts.stream()
                .filter(d -> d.open().isPositive())
                .sorted(Comparator.comparing((OpenDebt d) -> !named.contains(d.id()))
                        .thenComparing(by))
                .toList();
        List<Part> parts = new ArrayList<>();
        Money left = money;
        for (OpenDebt debt : order) {
            Money amount = Amounts.min(left, debt.open());
            if (amount.isPositive()) {
                parts.add(new Part(debt, amount));
                left = left.minus(amount);
            }
        }
        return new Appropriation(List.copyOf(parts), left);
    }

    /** Parts of the same debt put together, in the order of their first. */
    public static List<Part> byDebt(List<Part> parts) {
        Map<Long, Part> sums = new LinkedHashMap<>();
        parts.forEach(p -> sums.merge(
                p.debt().id(), p, (a, b) -> new Part(a.debt(), a.amount().plus(b.amount()))));
        return List.copyOf(sums.values());
    }

    /** What the debts took together. */
    public Money settled() {
        return Amounts.sum(
                credit.getCurrencyUnit(), parts.stream().map(Part::amount).toList());
    }
}
