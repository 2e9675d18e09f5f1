package quill.core.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.Income;
import quill.core.document.IncomeReckoning;
import quill.core.document.Totals;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.tax.TaxTotal;

/** What each event of the job posts. Debit on the left, credit on the right, as in any book of double entry. */
public final class Bookings {
    private Bookings() {}

    /**
     * Debit receivable with what is due, client deposits with what was prepaid, and rounding; credit income by
     * category, tax by rate.
     */
    public static Entry issued(DocumentId document, Totals totals) {
        return issued(document, totals, List.of());
    }

    /** The same of one that deducts deposit invoices. @param deducted as in {@link Creditable#deducted} */
    public static Entry issued(DocumentId document, Totals totals, List<Money> deducted) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.RECEIVABLE, "", document, totals.due());
        add(postings, Account.CLIENT_DEPOSITS, "", document, totals.prepaid());
        add(postings, Account.ROUNDING, "", document, totals.rounding().negated());
        IncomeReckoning.ofInvoice(Creditable.of(totals, deducted))
                .forEach(i -> postings.add(income(i, document, i.net().negated())));
        credit(postings, totals.taxes(), document);
        return new Entry(Entry.Event.ISSUED, postings);
    }

    /** Debit receivable with a deposit that is billed; credit deposits invoiced, and tax by rate. No income yet. */
    public static Entry depositInvoiced(DocumentId document, CreditTotals deposit) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.RECEIVABLE, "", document, deposit.total());
        add(postings, Account.DEPOSITS_INVOICED, "", document, deposit.net().negated());
        credit(postings, deposit.taxes(), document);
        return new Entry(Entry.Event.ISSUED, postings);
    }

    /** What was received ahead is a debt to the client until the work is billed. */
    private static Posting income(Income i, DocumentId document, Money amount) {
        return i.isDeposit()
                ? new Posting(Account.DEPOSITS_INVOICED, "", document, amount)
                : new Posting(Account.INCOME, i.tax().name(), i.category(), document, amount);
    }

    /** An entry with both sides exchanged: an invoice that was taken back to a draft, or voided, before it was sent. */
    public static Entry reversed(Entry.Event event, Entry entry) {
        return new Entry(event, entry.postings().stream().map(Posting::reversed).toList());
    }

    /**
     * A credit note: income and tax debited, rounding returned; credited are the debts that it lowers, deposits that
     * it gives back, and client credit with what is left over. Where the debts were settled by credit released
     * before, client credit may be debited instead.
     *
     * @param debts what it takes off the invoice's open installments
     * @param deposits what goes back to deposits held
     */
    public static Entry creditNote(DocumentId document, CreditTotals note, Money debts, Money deposits) {
        List<Posting> postings = new ArrayList<>();
        note.income().forEach(i -> postings.add(income(i, document, i.net())));
        debit(postings, note.taxes(), document);
        add(postings, Account.ROUNDING, "", document, note.rounding());
        add(postings, Account.RECEIVABLE, "", document, debts.negated());
        add(postings, Account.CLIENT_DEPOSITS, "", document, deposits.negated());
        Money given = note.total().plus(note.rounding());
        add(postings, Account.CLIENT_CREDIT, "", null, debts.plus(deposits).minus(given));
        return new Entry(Entry.Event.CREDIT_NOTE, postings);
    }

    /** Money held for work to come: debit where it is; credit client deposits. */
    public static Entry deposit(Account where, Money amount) {
        List<Posting> postings = new ArrayList<>();
        add(postings, where, "", null, amount);
        add(postings, Account.CLIENT_DEPOSITS, "", null, amount.negated());
        return new Entry(Entry.Event.DEPOSIT, postings);
    }

    /** The opposite of {@link #deposit}. */
    public static Entry depositUndone(Account where, Money amount) {
        return reversed(Entry.Event.PAYMENT_UNDONE, deposit(where, amount));
    }

    /** Debit where the money is; credit the debts it settles, and client credit for what is left. */
    public static Entry payment(Account where, Money amount, Appropriation appropriation) {
        return came(Entry.Event.PAYMENT, where, amount, appropriation);
    }

    /** The same of money that comes again: what was contested and won, or a refund that did not arrive. */
    public static Entry came(Entry.Event event, Account where, Money amount, Appropriation appropriation) {
        List<Posting> postings = new ArrayList<>();
        add(postings, where, "", null, amount);
        byDocument(appropriation.parts())
                .forEach((document, sum) -> add(postings, Account.RECEIVABLE, "", document, sum.negated()));
        add(postings, Account.CLIENT_CREDIT, "", null, appropriation.credit().negated());
        return new Entry(event, postings);
    }

    /** Debit processing fees; credit processor clearing. */
    public static Entry processingFee(Money fee) {
        return cost(Account.PROCESSOR_CLEARING, fee);
    }

    /** Debit processing fees; credit where the cost was kept: the processor's account, or the bank's for a cheque. */
    public static Entry cost(Account keptFrom, Money fee) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.PROCESSING_FEES, "", null, fee);
        add(postings, keptFrom, "", null, fee.negated());
        return new Entry(Entry.Event.PROCESSING_FEE, postings);
    }

    /**
     * What a payer gave on top. Debit where it is; credit tips, surcharges, and the tax on those.
     *
     * @param document the invoice that was paid with it, or null
     */
    public static Entry onTop(Account where, DocumentId document, OnTop extra) {
        List<Posting> postings = new ArrayList<>();
        add(postings, where, "", null, extra.sum());
        add(postings, Account.TIPS, "", document, extra.tip().negated());
        add(postings, Account.SURCHARGES, "", document, extra.surcharge().negated());
        add(postings, Account.TAX, extra.taxId(), document, extra.tax().negated());
        return new Entry(Entry.Event.ON_TOP, postings);
    }

    /** Debit bank; credit processor clearing. */
    public static Entry paidOut(Money amount) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.BANK, "", null, amount);
        add(postings, Account.PROCESSOR_CLEARING, "", null, amount.negated());
        return new Entry(Entry.Event.PAID_OUT, postings);
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
     * Money goes back, as it stands now: what it still settles is open again, the rest comes out of client credit.
     *
     * @param where the account that it goes out of
     * @param opened what is open again by it
     */
    public static Entry takenBack(Entry.Event event, Account where, Money amount, List<Appropriation.Part> opened) {
        List<Posting> postings = new ArrayList<>();
        Money settled = Amounts.sum(
                amount.getCurrencyUnit(),
                opened.stream().map(Appropriation.Part::amount).toList());
        byDocument(opened).forEach((document, sum) -> add(postings, Account.RECEIVABLE, "", document, sum));
        add(postings, Account.CLIENT_CREDIT, "", null, amount.minus(settled));
        add(postings, where, "", null, amount.negated());
        return new Entry(event, postings);
    }

    /** Debit the receivables that are open again; credit the one that is settled instead. */
    public static Entry moved(List<Appropriation.Part> opened, Appropriation.Part settled) {
        List<Posting> postings = new ArrayList<>();
        byDocument(opened).forEach((document, sum) -> add(postings, Account.RECEIVABLE, "", document, sum));
        add(
                postings,
                Account.RECEIVABLE,
                "",
                settled.debt().document(),
                settled.amount().negated());
        return new Entry(Entry.Event.MOVED, postings);
    }

    /** Debit discounts given and tax with what is let off for paying early, in proportion; credit receivable. */
    public static Entry earlySettlement(DocumentId document, CreditTotals off) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.DISCOUNTS_GIVEN, "", document, off.net());
        debit(postings, off.taxes(), document);
        add(postings, Account.RECEIVABLE, "", document, off.total().negated());
        return new Entry(Entry.Event.EARLY_SETTLEMENT, postings);
    }

    /** The opposite of {@link #earlySettlement}. */
    public static Entry earlySettlementWithdrawn(DocumentId document, CreditTotals off) {
        return reversed(Entry.Event.EARLY_SETTLEMENT_WITHDRAWN, earlySettlement(document, off));
    }

    /** Debit bad debts; credit receivable. */
    public static Entry writtenOff(List<Appropriation.Part> parts) {
        List<Posting> postings = new ArrayList<>();
        byDocument(parts).forEach((document, sum) -> {
            add(postings, Account.BAD_DEBTS, "", document, sum);
            add(postings, Account.RECEIVABLE, "", document, sum.negated());
        });
        return new Entry(Entry.Event.WRITTEN_OFF, postings);
    }

    /** The opposite of {@link #writtenOff}: what was given up is owed again. */
    public static Entry owedAgain(List<Appropriation.Part> parts) {
        return reversed(Entry.Event.OWED_AGAIN, writtenOff(parts));
    }

    /** Debit receivable; credit late-fee income, and tax by rate where fees bear any. Waived, it is reversed. */
    public static Entry lateFee(DocumentId document, Money amount, List<TaxTotal> taxes) {
        List<Posting> postings = new ArrayList<>();
        add(postings, Account.RECEIVABLE, "", document, amount);
        Money tax = Amounts.sum(
                amount.getCurrencyUnit(), taxes.stream().map(TaxTotal::amount).toList());
        add(postings, Account.LATE_FEE_INCOME, "", document, tax.minus(amount));
        credit(postings, taxes, document);
        return new Entry(Entry.Event.LATE_FEE, postings);
    }

    private static void debit(List<Posting> postings, List<TaxTotal> taxes, DocumentId document) {
        taxes.forEach(t -> add(postings, Account.TAX, t.tax().id(), document, t.amount()));
    }

    private static void credit(List<Posting> postings, List<TaxTotal> taxes, DocumentId document) {
        taxes.forEach(t ->
                add(postings, Account.TAX, t.tax().id(), document, t.amount().negated()));
    }

    private static void add(List<Posting> postings, Account account, String detail, DocumentId document, Money amount) {
        if (!amount.isZero()) {
            postings.add(new Posting(account, detail, document, amount));
        }
    }

    private static Map<DocumentId, Money> byDocument(List<Appropriation.Part> parts) {
        Map<DocumentId, Money> sums = new LinkedHashMap<>();
        parts.forEach(p -> sums.merge(p.debt().document(), p.amount(), Money::plus));
        return sums;
    }
}
