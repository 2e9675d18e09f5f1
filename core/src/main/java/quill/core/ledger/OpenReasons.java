package quill.core.ledger;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.TypedDate;
import quill.core.Why;
import quill.core.money.Amounts;

/** Why something is open: the figures that it came from, each exactly as it is booked. */
public final class OpenReasons {
    private static final int MOST = 12;

    private OpenReasons() {}

    /** A sum and what it is. */
    public record Item(String words, Money amount) {}

    /**
     * Of one installment or late fee.
     *
     * @param asked its first amount
     * @param credited what credit notes took of it, or a waiving
     * @param settled what money or credit settled of it
     * @param open {@code asked - credited - settled}
     */
    public static Why debt(Money asked, Money credited, Money settled, Money open) {
        return open(List.of(new Item("asked for", asked)), credited, settled, open);
    }

    /** Of several together. @param asked the first amount of each */
    public static Why open(List<Item> asked, Money credited, Money settled, Money open) {
        List<Item> items = new ArrayList<>(asked);
        items.add(new Item("taken back or waived", credited.negated()));
        items.add(new Item("came, or credit covered", settled.negated()));
        return sum("what was asked for, less what came and what was taken back", items, open);
    }

    /** Of a sum of open debts, each by its invoice and due date; the oldest first. */
    public static Why debts(String rule, Collection<OpenDebt> debts, LocalDate today, Money total) {
        return sum(
                rule,
                debts.stream()
                        .filter(d -> d.open().isPositive())
                        .sorted(OpenDebt.ORDER)
                        .map(d -> new Item(words(d, today), d.open()))
                        .toList(),
                total);
    }

    private static String words(OpenDebt d, LocalDate today) {
        long late = Standing.daysLate(d.dueOn(), today);
        String due = d.dueOn() == null ? ", no date yet" : ", due " + TypedDate.inWords(d.dueOn());
        return d.number()
                + (d.fee() ? ", late fee of " + TypedDate.inWords(d.dueOn()) : ", installment " + d.position() + due)
                + (d.fee() || late <= 0 ? "" : ", " + late + (late == 1 ? " day late" : " days late"));
    }

    /** Of any sum: each item that is not zero as a step, the rest of a long list as one, and the total. */
    public static Why sum(String rule, List<Item> items, Money total) {
        List<Item> some = items.stream().filter(i -> !i.amount().isZero()).toList();
        List<String> steps = new ArrayList<>();
        some.stream().limit(MOST).forEach(i -> steps.add(i.words() + ": " + Amounts.grouped(i.amount())));
        if (some.size() > MOST) {
            List<Item> rest = some.subList(MOST, some.size());
            Money more = Amounts.sum(
                    total.getCurrencyUnit(), rest.stream().map(Item::amount).collect(Collectors.toList()));
            steps.add(rest.size() + " more: " + Amounts.grouped(more));
        }
        steps.add("= " + Amounts.grouped(total));
        return new Why(rule, steps);
    }
}
