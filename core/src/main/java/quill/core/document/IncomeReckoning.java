package quill.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import org.joda.money.Money;
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.core.tax.TaxCategory;

/**
 * Income by the business's own categories. Within each set of taxes a category has its lines; the document's
 * discount is split over them by what each has, by largest remainders, and so is the tax where it is inside the prices. So
 * the categories of a set sum to its net to the cent: lines of 60.00 Tuning and 30.00 Strings, 10 % off the whole, are
 * 54.00 and 27.00.
 *
 * <p>A deposit invoice is no income, and what deducts one lowers none: both stand under {@link Income#DEPOSITS}, without tax.
 *
 * <p>A credit note takes what the invoice's categories are for all that was taken so far, less the same before it;
 * together they take each category whole.
 */
public final class IncomeReckoning {
    private final Creditable invoice;

    private IncomeReckoning(Creditable invoice) {
        this.invoice = invoice;
    }

    private record Key(TaxCategory tax, String category) {}

    /** Of an invoice, in the order of its sets of taxes and of its lines. Their sum is its net. */
    public static List<Income> ofInvoice(Creditable invoice) {
        IncomeReckoning reckoning = new IncomeReckoning(invoice);
        return list(reckoning.ofAll());
    }

    /**
     * What a credit note takes back. Their sum is the note's net.
     *
     * @param before what other notes took @param after the same with this note
     */
    static List<Income> ofNote(Creditable invoice, Taken before, Taken after) {
        IncomeReckoning reckoning = new IncomeReckoning(invoice);
        Map<Key, Money> note = reckoning.ofTaken(after);
        reckoning.ofTaken(before).forEach((key, was) -> note.merge(key, was.negated(), Money::plus));
        return list(note);
    }

    private static List<Income> list(Map<Key, Money> sums) {
        return sums.entrySet().stream()
                .filter(e -> !e.getValue().isZero())
                .map(e -> new Income(e.getKey().tax(), e.getKey().category(), e.getValue()))
                .toList();
    }

    private Map<Key, Money> ofAll() {
        Map<Key, Money> sums = new LinkedHashMap<>();
        for (int g = 0; g < invoice.groups().size(); g++) {
            TaxGroup group = invoice.groups().get(g);
            add(sums, group, whole(g), group.net(), depositOf(g, group.net(), null));
        }
        return sums;
    }

    private Map<Key, Money> ofTaken(Taken taken) {
        Map<Key, Money> sums = new LinkedHashMap<>();
        boolean all = taken.groups().stream().anyMatch(g -> g.byAmount() != 0)
                && IntStream.range(0, invoice.groups().size())
                        .allMatch(g ->
                                isAll(invoice.groups().get(g), taken.groups().get(g)));
        for (int g = 0; g < invoice.groups().size(); g++) {
            TaxGroup group = invoice.groups().get(g);
            Taken.Group so = taken.groups().get(g);
            Money sum = money(so.sum());
            Money tax = money(so.taxes().stream().mapToLong(Long::longValue).sum());
            Money net = invoice.taxInside() ? sum.minus(tax) : sum;
            // The last of it leaves nothing of any category, in whatever way the notes before took theirs.
            boolean last = all || so.byAmount() != 0 && isAll(group, so);
            add(sums, group, last ? whole(g) : taken(g, taken), net, depositOf(g, net, last ? null : taken));
        }
        return sums;
    }

    /** What lines of deposits come to in a set of taxes, as priced. @param taken null for all of it */
    private Money deposits(int g, Taken taken) {
        Money sum = Money.zero(invoice.currency());
        for (int i = 0; i < invoice.lines().size(); i++) {
            Creditable.Item line = invoice.lines().get(i);
            if (line.group() == g && line.isDeposit()) {
                sum = sum.plus(
                        taken == null ? line.net() : line.taken(taken.lines().get(i)));
            }
        }
        return sum;
    }

    /** What of a net is deposits: all of it on a deposit invoice; below zero where they are deducted. */
    private Money depositOf(int g, Money net, Taken taken) {
        boolean any = invoice.lines().stream().anyMatch(l -> l.group() == g && l.isDeposit());
        if (!any) {
            return Money.zero(invoice.currency());
        }
        if (invoice.deducted().isEmpty()) {
            return net;
        }
        Money all = deposits(g, null);
        Money part = deposits(g, taken);
        Money deducted = invoice.deducted(g).negated();
        return part.isEqual(all) ? deducted : Amounts.share(deducted, part.getAmount(), all.getAmount());
    }

    private static boolean isAll(TaxGroup group, Taken.Group taken) {
        return taken.sum() == group.sum().getAmountMinorLong();
    }

    private Money money(long minor) {
        return Money.ofMinor(invoice.currency(), minor);
    }

    /** What each category has of a set of taxes, as priced: its lines less its share of the discount, and charges. */
    private Map<String, Money> whole(int g) {
        return asPriced(
                of(invoice.lines(), g, i -> invoice.lines().get(i).net()),
                of(invoice.charges(), g, i -> invoice.charges().get(i).net()),
                invoice.groups().get(g).sum().minus(deposits(g, null)));
    }

    /** The same of what was taken; an amount is taken from each by what it has. */
    private Map<String, Money> taken(int g, Taken taken) {
        Taken.Group so = taken.groups().get(g);
        Map<String, Money> has = asPriced(
                of(
                        invoice.lines(),
                        g,
                        i -> invoice.lines().get(i).taken(taken.lines().get(i))),
                of(
                        invoice.charges(),
                        g,
                        i -> invoice.charges().get(i).taken(taken.charges().get(i))),
                money(so.sum() - so.byAmount()).minus(deposits(g, taken)));
        merge(has, split(money(so.byAmount()), whole(g)));
        return has;
    }

    private static Map<String, Money> of(List<Creditable.Item> items, int g, IntFunction<Money> amount) {
        Map<String, Money> sums = new LinkedHashMap<>();
        for (int i = 0; i < items.size(); i++) {
            if (items.get(i).group() == g && !items.get(i).isDeposit()) {
                sums.merge(items.get(i).category(), amount.apply(i), Money::plus);
            }
        }
        return sums;
    }

    /** The document's discount is taken off the lines; charges are not lowered by it. */
    private Map<String, Money> asPriced(Map<String, Money> lines, Map<String, Money> charges, Money sum) {
        Map<String, Money> has = new LinkedHashMap<>(lines);
        Money discount = sum.minus(total(lines)).minus(total(charges));
        merge(has, split(discount, lines.isEmpty() ? charges : lines));
        merge(has, charges);
        return has;
    }

    private Money total(Map<String, Money> has) {
        return has.values().stream().reduce(Money.zero(invoice.currency()), Money::plus);
    }

    private static void merge(Map<String, Money> has, Map<String, Money> more) {
        more.forEach((category, amount) -> has.merge(category, amount, Money::plus));
    }

    /** @param has as priced, without deposits; where the tax is inside the prices it is no income */
    private void add(Map<Key, Money> sums, TaxGroup group, Map<String, Money> has, Money net, Money deposit) {
        TaxCategory tax = group.taxes().get(0).category();
        Map<String, Money> income = new LinkedHashMap<>(has);
        Money more = net.minus(deposit).minus(total(has));
        // Where only deposits are taken off, a cent may be left of the tax inside them: it has no line to go to.
        merge(income, has.isEmpty() && !more.isZero() ? Map.of("", more) : split(more, has));
        if (!deposit.isZero()) {
            income.put(Income.DEPOSITS, deposit);
        }
        income.forEach((category, amount) -> sums.merge(new Key(tax, category), amount, Money::plus));
    }

    /** An amount by what each has, whichever its sign; equal parts where nobody has anything. */
    private static Map<String, Money> split(Money amount, Map<String, Money> has) {
        Map<String, Money> parts = new LinkedHashMap<>();
        if (amount.isZero() || has.isEmpty()) {
            return parts;
        }
        List<String> categories = new ArrayList<>(has.keySet());
        List<BigDecimal> weights =
                has.values().stream().map(m -> m.abs().getAmount()).toList();
        boolean none = weights.stream().allMatch(w -> w.signum() == 0);
        List<Money> shares = none ? Split.equally(amount, categories.size()) : Split.byWeights(amount, weights);
        for (int i = 0; i < categories.size(); i++) {
            parts.put(categories.get(i), shares.get(i));
        }
        return parts;
    }
}
