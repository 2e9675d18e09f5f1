package quill.core.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.core.tax.TaxCategory;

/** What each event of the job posts. Debit on the left, credit on the right, as in any book of double entry. */
public final class Bookings {
    private Bookings() {}

    /** Debit receivable; credit income by category, tax by rate. */
    public static Entry issued(long document, List<Line> lines, Totals totals) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.RECEIVABLE, "", document, totals.total());
        incomeByCategory(lines, totals)
                .forEach((category, net) -> add(postings, Account.INCOME, category.name(), document, net.negated()));
        totals.taxes()
                .forEach(t -> add(
                        postings,
                        Account.TAX,
                        t.tax().id(),
                        document,
                        t.amount().negated()));
        return new Entry(Entry.Event.ISSUED, postings);
    }

    /** The whole of it taken back: income and tax debited, receivable credited, to the cent as it was issued. */
    public static Entry creditedWhole(Entry issued) {
        return new Entry(
                Entry.Event.CREDIT_NOTE,
                issued.postings().stream().map(Posting::reversed).toList());
    }

    /** Debit where the money is; credit the debts it settles, and client credit for what is left. */
    public static Entry payment(Account where, Money amount, Appropriation appropriation) {
        List<Posting> postings = new ArrayList<>();
        add(postings, where, "", null, amount);
        byDocument(appropriation.parts())
                .forEach((document, sum) -> add(postings, Account.RECEIVABLE, "", document, sum.negated()));
        add(postings, Account.CLIENT_CREDIT, "", null, appropriation.credit().negated());
        return new Entry(Entry.Event.PAYMENT, postings);
    }

    /** Debit processing fees; credit processor clearing. */
    public static Entry processingFee(Money fee) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.PROCESSING_FEES, "", null, fee);
        add(postings, Account.PROCESSOR_CLEARING, "", null, fee.negated());
        return new Entry(Entry.Event.PROCESSING_FEE, postings);
    }

    /** Debit client credit; credit the debts that it settles. */
    public static Entry creditUsed(List<Appropriation.Part> parts) {
        return shift(Entry.Event.CREDIT_USED, parts, false);
    }

    /** The opposite: what had settled these debts is client credit again. */
    public static Entry creditReleased(List<Appropriation.Part> parts) {
        return shift(Entry.Event.CREDIT_RELEASED, parts, true);
    }

    private static Entry shift(Entry.Event event, List<Appropriation.Part> parts, boolean released) {
        List<Posting> postings = new ArrayList<>();
        Money sum = Amounts.sum(
                parts.get(0).amount().getCurrencyUnit(),
                parts.stream().map(Appropriation.Part::amount).toList());
        add(postings, Account.CLIENT_CREDIT, "", null, released ? sum.negated() : sum);
        byDocument(parts)
                .forEach((document, part) ->
                        add(postings, Account.RECEIVABLE, "", document, released ? part : part.negated()));
        return new Entry(event, postings);
    }

    /**
     * Takes a payment back as it stands now: what it still settles is open again, the rest comes out of client credit.
     *
     * @param settling what the payment settles at this moment
     */
    public static Entry paymentUndone(Account where, Money amount, List<Appropriation.Part> settling) {
        List<Posting> postings = new ArrayList<>();
        Money settled = Amounts.sum(
                amount.getCurrencyUnit(),
                settling.stream().map(Appropriation.Part::amount).toList());
        byDocument(settling).forEach((document, sum) -> add(postings, Account.RECEIVABLE, "", document, sum));
        add(postings, Account.CLIENT_CREDIT, "", null, amount.minus(settled));
        add(postings, where, "", null, amount.negated());
        return new Entry(Entry.Event.PAYMENT_UNDONE, postings);
    }

    /** Debit receivable; credit late-fee income. A late fee is outside the scope of tax. */
    public static Entry lateFee(long document, Money fee) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.RECEIVABLE, "", document, fee);
        add(postings, Account.LATE_FEE_INCOME, "", document, fee.negated());
        return new Entry(Entry.Event.LATE_FEE, postings);
    }

    /** The opposite of {@link #lateFee}, for the whole of it. */
    public static Entry lateFeeWaived(long document, Money fee) {
        return new Entry(
                Entry.Event.LATE_FEE_WAIVED,
                lateFee(document, fee).postings().stream()
                        .map(Posting::reversed)
                        .toList());
    }

    private static void add(List<Posting> postings, Account account, String detail, Long document, Money amount) {
        if (!amount.isZero()) {
            postings.add(new Posting(account, detail, document, amount));
        }
    }

    private static Map<Long, Money> byDocument(List<Appropriation.Part> parts) {
        Map<Long, Money> sums = new LinkedHashMap<>();
        parts.forEach(p -> sums.merge(p.debt().document(), p.amount(), Money::plus));
        return sums;
    }

    /** With tax inside the prices the lines sum to more than the net: the net is then split by category. */
    private static Map<TaxCategory, Money> incomeByCategory(List<Line> lines, Totals totals) {
        Map<TaxCategory, Money> sums = new LinkedHashMap<>();
        for (int i = 0; i < lines.size(); i++) {
            TaxCategory category = lines.get(i).taxes().get(0).category();
            sums.merge(category, totals.lines().get(i).net(), Money::plus);
        }
        Money sum = Amounts.sum(totals.net().getCurrencyUnit(), sums.values());
        boolean splittable = sums.values().stream().noneMatch(Money::isNegative) && sum.isPositive();
        if (sum.isEqual(totals.net())) {
            return sums;
        }
        if (splittable) {
            List<Money> parts = Split.byWeights(
                    totals.net(), sums.values().stream().map(Money::getAmount).toList());
            int i = 0;
            for (Map.Entry<TaxCategory, Money> entry : sums.entrySet()) {
                entry.setValue(parts.get(i++));
            }
            return sums;
        }
        return Map.of(lines.get(0).taxes().get(0).category(), totals.net());
    }
}
