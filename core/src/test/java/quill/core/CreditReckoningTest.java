package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.IncomeReckoning;
import quill.core.document.Line;
import quill.core.document.Taken;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.id.DocumentId;
import quill.core.ledger.Bookings;
import quill.core.ledger.Posting;
import quill.core.money.Amounts;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/** Taking an invoice back: whole, by lines, by amounts, in any order. */
public class CreditReckoningTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;

    /** Three lines of 10.12 at 21 %, credited one by one: tax 6.38 in all, though each alone would be 2.13. */
    @Test
    public void partsTakeTheWholeTax() {
        Line line = new Line(
                "work", BigDecimal.ONE, "", new BigDecimal("10.12"), new Extent.None(), List.of(Documents.HIGH));
        Creditable invoice =
                Creditable.of(DocumentReckoning.reckon(EUR, List.of(line, line, line), false, TaxRounding.PER_TAX));
        Taken taken = Taken.nothing(invoice);
        List<Money> taxes = new ArrayList<>();
        for (int i : List.of(2, 0, 1)) {
            CreditTotals note = CreditReckoning.ofLines(invoice, taken, Map.of(i, BigDecimal.ONE), List.of());
            taxes.add(note.tax());
            taken = note.after();
        }
        assertThat(taxes).containsExactly(eur("2.13"), eur("2.12"), eur("2.13"));
        assertThat(CreditReckoning.left(invoice, taken).isZero()).isTrue();
    }

    /** An amount is split over the rates by what is left of each: 121 and 106 of 227 share 50.00 as 26.65 and 23.35. */
    @Test
    public void anAmountIsSplitOverTheRates() {
        Creditable invoice = Creditable.of(DocumentReckoning.reckon(
                EUR,
                List.of(
                        new Line(
                                "a",
                                BigDecimal.ONE,
                                "",
                                new BigDecimal("100"),
                                new Extent.None(),
                                List.of(Documents.HIGH)),
                        new Line(
                                "b",
                                BigDecimal.ONE,
                                "",
                                new BigDecimal("100"),
                                new Extent.None(),
                                List.of(Documents.LOW))),
                false,
                TaxRounding.PER_TAX));
        CreditTotals note = CreditReckoning.ofAmount(invoice, Taken.nothing(invoice), eur("50.00"));
        assertThat(note.groups()).extracting(TaxGroup::total).containsExactly(eur("26.65"), eur("23.35"));
        assertThat(note.total()).isEqualTo(eur("50.00"));
        assertThat(note.groups()).extracting(TaxGroup::tax).containsExactly(eur("4.63"), eur("1.32"));
        assertThatThrownBy(() -> CreditReckoning.ofAmount(invoice, note.after(), eur("177.01")))
                .hasMessageContaining("amount (177.01)")
                .hasMessageContaining("at most 177.00");
    }

    @Test
    public void moreThanIsLeftOfALineIsRefused() {
        Creditable invoice = Creditable.of(DocumentReckoning.reckon(
                EUR,
                List.of(new Line(
                        "a",
                        new BigDecimal("4"),
                        "h",
                        new BigDecimal("25"),
                        new Extent.None(),
                        List.of(Documents.HIGH))),
                false,
                TaxRounding.PER_TAX));
        Taken none = Taken.nothing(invoice);
        CreditTotals first = CreditReckoning.ofLines(invoice, none, Map.of(0, new BigDecimal("3")), List.of());
        assertThat(first.net()).isEqualTo(eur("75.00"));
        assertThatThrownBy(() ->
                        CreditReckoning.ofLines(invoice, first.after(), Map.of(0, new BigDecimal("1.5")), List.of()))
                .hasMessageContaining("lines[0].quantity (1.5): must be above zero and at most 1");
        assertThatThrownBy(() -> CreditReckoning.ofLines(invoice, none, Map.of(7, BigDecimal.ONE), List.of()))
                .hasMessageContaining("there is no such line");
        assertThatThrownBy(() -> CreditReckoning.ofLines(invoice, none, Map.of(), List.of(2)))
                .hasMessageContaining("charges (2)");
        assertThatThrownBy(() -> CreditReckoning.ofLines(invoice, none, Map.of(), List.of()))
                .hasMessageContaining("choose at least one line");
        CreditTotals byAmount = CreditReckoning.ofAmount(invoice, none, eur("100.00"));
        assertThatThrownBy(() ->
                        CreditReckoning.ofLines(invoice, byAmount.after(), Map.of(0, new BigDecimal("4")), List.of()))
                .hasMessageContaining("is left of VAT 21%");
    }

    @Test
    public void theWholeMirrorsTheInvoiceToTheCent() {
        Documents documents = new Documents(51, Documents.ALL);
        for (int i = 0; i < 3_000; i++) {
            Totals t = Documents.totals(
                    documents.next(CurrencyUnit.of(List.of("EUR", "JPY", "KWD").get(i % 3))));
            Creditable invoice = Creditable.of(t);
            CreditTotals note = CreditReckoning.ofRest(invoice, Taken.nothing(invoice));
            assertThat(note.whole()).isTrue();
            assertThat(List.of(note.net(), note.tax(), note.total(), note.rounding()))
                    .isEqualTo(List.of(t.net(), t.tax(), t.total(), t.rounding()));
            assertThat(note.taxes())
                    .extracting(TaxTotal::amount)
                    .isEqualTo(t.taxes().stream().map(TaxTotal::amount).toList());
            assertThat(note.groups()).isEqualTo(t.groups());
            List<Posting> mirrored = Bookings.reversed(
                            quill.core.ledger.Entry.Event.CREDIT_NOTE, Bookings.issued(new DocumentId(9), t))
                    .postings();
            assertThat(Bookings.creditNote(new DocumentId(9), note, t.due(), t.prepaid())
                            .postings())
                    .containsExactlyInAnyOrderElementsOf(mirrored);
        }
    }

    @Test
    public void partsInAnyOrderSumToTheWhole() {
        Documents documents = new Documents(52, Documents.ALL);
        Random random = new Random(53);
        for (int i = 0; i < 3_000; i++) {
            Totals t = Documents.totals(
                    documents.next(CurrencyUnit.of(List.of("EUR", "JPY", "KWD").get(i % 3))));
            Creditable invoice = Creditable.of(t);
            Taken taken = Taken.nothing(invoice);
            Money total = Money.zero(invoice.currency());
            Map<String, Money> taxes = new HashMap<>();
            Map<String, Money> income = new HashMap<>();
            List<CreditTotals> notes = new ArrayList<>();
            for (int n = random.nextInt(5); n >= 0; n--) {
                CreditTotals note = n == 0 ? rest(invoice, taken) : some(invoice, taken, random);
                if (note == null) {
                    continue;
                }
                notes.add(note);
                taken = note.after();
                total = total.plus(note.total());
                note.taxes().forEach(x -> taxes.merge(x.tax().id(), x.amount(), Money::plus));
                note.income().forEach(x -> income.merge(x.tax() + x.category(), x.net(), Money::plus));
                addsUp(note);
            }
            IncomeReckoning.ofInvoice(invoice)
                    .forEach(x -> income.merge(x.tax() + x.category(), x.net().negated(), Money::plus));
            assertThat(income.values()).as("invoice " + i).allMatch(Money::isZero);
            assertThat(total).as("invoice " + i).isEqualTo(t.total());
            t.taxes().forEach(x -> assertThat(taxes.get(x.tax().id())).isEqualTo(x.amount()));
            assertThat(Amounts.sum(
                            invoice.currency(),
                            notes.stream().map(CreditTotals::rounding).toList()))
                    .isEqualTo(t.rounding());
        }
    }

    private static void addsUp(CreditTotals note) {
        assertThat(note.net().plus(note.tax())).isEqualTo(note.total());
        CurrencyUnit currency = note.net().getCurrencyUnit();
        assertThat(Amounts.sum(
                        currency, note.groups().stream().map(TaxGroup::total).toList()))
                .isEqualTo(note.total());
        assertThat(Amounts.sum(
                        currency, note.taxes().stream().map(TaxTotal::amount).toList()))
                .isEqualTo(note.tax());
        Money given = note.total().plus(note.rounding());
        Money books = Amounts.sum(
                currency,
                Bookings.creditNote(new DocumentId(1), note, given, Money.zero(currency)).postings().stream()
                        .map(Posting::amount)
                        .toList());
        assertThat(books.isZero()).isTrue();
    }

    /** All that is left; nothing where parts happened to take it all, or left less than nothing. */
    private static CreditTotals rest(Creditable invoice, Taken taken) {
        return CreditReckoning.left(invoice, taken).isZero() ? null : CreditReckoning.ofRest(invoice, taken);
    }

    private static CreditTotals some(Creditable invoice, Taken taken, Random random) {
        Money left = CreditReckoning.left(invoice, taken);
        try {
            if (random.nextBoolean() && left.getAmountMinorLong() > 1) {
                long part = 1 + (long) (random.nextDouble() * (left.getAmountMinorLong() - 1));
                return CreditReckoning.ofAmount(invoice, taken, Money.ofMinor(invoice.currency(), part));
            }
            int line = random.nextInt(invoice.lines().size());
            BigDecimal open =
                    invoice.lines().get(line).quantity().subtract(taken.lines().get(line));
            BigDecimal quantity = random.nextBoolean() ? open : open.multiply(new BigDecimal("0.3"));
            List<Integer> charges = new ArrayList<>();
            if (!invoice.charges().isEmpty() && taken.charges().get(0).signum() == 0 && random.nextBoolean()) {
                charges.add(0);
            }
            return CreditReckoning.ofLines(invoice, taken, Map.of(line, quantity), charges);
        } catch (RefusedException e) {
            return null;
        }
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
