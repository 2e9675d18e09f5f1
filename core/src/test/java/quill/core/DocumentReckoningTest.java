package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.id.DocumentId;
import quill.core.ledger.Bookings;
import quill.core.ledger.Posting;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;

public class DocumentReckoningTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final Tax HIGH = Tax.standard("high", "VAT 21%", "21");
    private static final Tax LOW = Tax.standard("low", "VAT 6%", "6");

    @Test
    public void discountedLineSaysWhy() {
        Line line = line("14.5", "68.00", new Extent.OfPercent(Percent.of("10")), HIGH);
        Totals totals = DocumentReckoning.reckon(EUR, List.of(line), false, TaxRounding.PER_TAX);
        assertThat(totals.lines().get(0).net()).isEqualTo(eur("887.40"));
        assertThat(totals.lines().get(0).why().steps())
                .containsExactly("14.5 × 68.00 = 986.00", "10% of 986.00 = 98.60", "986.00 − 98.60 = 887.40");
        assertThat(totals.tax()).isEqualTo(eur("186.35"));
        assertThat(totals.total()).isEqualTo(eur("1073.75"));
    }

    /** The VAT fraction of HMRC: 1/6 at 20 %, 1/21 at 5 %. Value from memory. */
    @Test(dataProvider = "fractions")
    public void taxInsideThePriceIsTheVatFraction(String rate, String price, String tax) {
        for (TaxRounding rounding : TaxRounding.values()) {
            Line line = line("1", price, new Extent.None(), Tax.standard("t", "VAT", rate));
            Totals totals = DocumentReckoning.reckon(EUR, List.of(line), true, rounding);
            assertThat(totals.tax()).isEqualTo(eur(tax));
            assertThat(totals.total()).isEqualTo(eur(price));
        }
    }

    @DataProvider
    Object[][] fractions() {
        return new Object[][] {
            {"20", "120.00", "20.00"},
            {"20", "99.99", "16.67"},
            {"5", "21.00", "1.00"},
            {"5", "100.00", "4.76"},
            {"0", "50.00", "0.00"}
        };
    }

    /**
     * Québec: 5 % GST and 9.975 % QST on 100.00 give 5.00 and 9.98; the older 9.5 % on the price with GST inside
     * gives the same QST. Revenu Québec; values from memory.
     */
    @Test
    public void quebecsTwoTaxesAgreeWithTheOlderCompoundOne() {
        Tax gst = Tax.standard("gst", "GST", "5");
        Line now = line("1", "100.00", new Extent.None(), gst, Tax.standard("qst", "QST", "9.975"));
        Line then = line("1", "100.00", new Extent.None(), gst, Tax.compound("old", "QST", "9.5"));
        for (Line line : List.of(now, then)) {
            Totals totals = DocumentReckoning.reckon(CurrencyUnit.CAD, List.of(line), false, TaxRounding.PER_TAX);
            assertThat(totals.taxes().get(0).amount()).isEqualTo(Money.parse("CAD 5.00"));
            assertThat(totals.taxes().get(1).amount()).isEqualTo(Money.parse("CAD 9.98"));
        }
    }

    /** Common practice: the two places of rounding differ by cents. Worked by hand: 3 x 10.12 x 21 % = 6.3756. */
    @Test
    public void placesOfRoundingDiffer() {
        List<Line> lines = Collections.nCopies(3, line("1", "10.12", new Extent.None(), HIGH));
        assertThat(DocumentReckoning.reckon(EUR, lines, false, TaxRounding.PER_TAX)
                        .tax())
                .isEqualTo(eur("6.38"));
        assertThat(DocumentReckoning.reckon(EUR, lines, false, TaxRounding.PER_LINE)
                        .tax())
                .isEqualTo(eur("6.39"));
    }

    @Test
    public void refusalsNameTheField() {
        assertThatThrownBy(() -> DocumentReckoning.reckon(EUR, List.of(), false, TaxRounding.PER_TAX))
                .hasMessageContaining("at least one line");
        Line tooMuch = line("1", "10.00", new Extent.OfAmount(eur("10.01")), HIGH);
        assertThatThrownBy(() -> DocumentReckoning.reckon(EUR, List.of(tooMuch), false, TaxRounding.PER_TAX))
                .hasMessageContaining("lines[0].discount (10.01): must not be more than the line, 10.00");
        Line back = line("-1", "10.00", new Extent.None(), HIGH);
        assertThatThrownBy(() -> DocumentReckoning.reckon(EUR, List.of(back), false, TaxRounding.PER_TAX))
                .hasMessageContaining("total (-12.10)")
                .hasMessageContaining("credit note");
    }

    @Test
    public void onlyCategorySHasARate() {
        assertThatThrownBy(() -> new Tax("x", "Odd", Percent.of("5"), TaxCategory.Z, false, ""))
                .hasMessageContaining("only S has a rate");
        assertThatThrownBy(() -> new Tax("x", "Exempt", Percent.of("0"), TaxCategory.E, false, " "))
                .hasMessageContaining("needs a reason");
    }

    /** Two thousand generated invoices against an independent reckoning with exact fractions. */
    @Test
    public void generatedInvoicesEqualExactFractions() {
        Random random = new Random(31);
        List<List<Tax>> sets = List.of(
                List.of(HIGH),
                List.of(LOW),
                List.of(Tax.standard("gst", "GST", "5"), Tax.standard("qst", "QST", "9.975")),
                List.of(new Tax("zero", "Zero", Percent.of("0"), TaxCategory.Z, false, "")));
        for (int i = 0; i < 2_000; i++) {
            CurrencyUnit currency = CurrencyUnit.of(List.of("EUR", "JPY", "KWD").get(i % 3));
            boolean perLine = random.nextBoolean();
            List<Line> lines = new ArrayList<>();
            for (int n = 1 + random.nextInt(12); n > 0; n--) {
                lines.add(generated(random, sets.get(random.nextInt(sets.size()))));
            }
            Totals totals = DocumentReckoning.reckon(
                    currency, lines, false, perLine ? TaxRounding.PER_LINE : TaxRounding.PER_TAX);
            compare(lines, totals, perLine, currency.getDecimalPlaces());
            printedFiguresAddUp(lines, totals, currency);
            if (!perLine) {
                List<Line> shuffled = new ArrayList<>(lines);
                Collections.shuffle(shuffled, random);
                assertThat(DocumentReckoning.reckon(currency, shuffled, false, TaxRounding.PER_TAX)
                                .total())
                        .isEqualTo(totals.total());
            }
        }
    }

    private static Line generated(Random random, List<Tax> taxes) {
        BigDecimal quantity = BigDecimal.valueOf(1 + random.nextInt(50_000), random.nextInt(4));
        BigDecimal price = BigDecimal.valueOf(random.nextInt(900_000), random.nextInt(5));
        Extent discount = random.nextInt(3) == 0
                ? new Extent.OfPercent(new Percent(BigDecimal.valueOf(random.nextInt(1_000), 1)))
                : new Extent.None();
        return new Line("work", quantity, "h", price, discount, taxes);
    }

    private static void compare(List<Line> lines, Totals totals, boolean perLine, int decimals) {
        Fraction unit = Fraction.of(BigDecimal.TEN.pow(decimals));
        long net = 0;
        Map<String, Fraction> exact = new LinkedHashMap<>();
        Map<String, Long> rounded = new LinkedHashMap<>();
        for (Line line : lines) {
            long gross = Fraction.of(line.quantity())
                    .times(Fraction.of(line.unitPrice()))
                    .times(unit)
                    .rounded();
            long off = line.discount() instanceof Extent.OfPercent p
                    ? Fraction.of(gross)
                            .times(Fraction.of(p.percent().rate()))
                            .by(Fraction.of(100))
                            .rounded()
                    : 0;
            net += gross - off;
            for (Tax tax : line.taxes()) {
                Fraction share = Fraction.of(gross - off)
                        .times(Fraction.of(tax.rate().rate()))
                        .by(Fraction.of(100));
                exact.merge(tax.id(), share, Fraction::plus);
                rounded.merge(tax.id(), share.rounded(), Long::sum);
            }
        }
        assertThat(totals.net().getAmountMinorLong()).isEqualTo(net);
        long tax = perLine
                ? rounded.values().stream().mapToLong(Long::longValue).sum()
                : exact.values().stream().mapToLong(Fraction::rounded).sum();
        assertThat(totals.tax().getAmountMinorLong()).isEqualTo(tax);
        assertThat(totals.total().getAmountMinorLong()).isEqualTo(net + tax);
    }

    private static void printedFiguresAddUp(List<Line> lines, Totals totals, CurrencyUnit currency) {
        assertThat(Amounts.sum(
                        currency, totals.lines().stream().map(l -> l.net()).toList()))
                .isEqualTo(totals.net());
        assertThat(Amounts.sum(
                        currency, totals.taxes().stream().map(t -> t.amount()).toList()))
                .isEqualTo(totals.tax());
        assertThat(totals.net().plus(totals.tax())).isEqualTo(totals.total());
        if (totals.total().isPositive()) {
            List<Posting> postings = Bookings.issued(new DocumentId(1), totals).postings();
            assertThat(Amounts.sum(
                                    currency,
                                    postings.stream().map(Posting::amount).toList())
                            .isZero())
                    .isTrue();
        }
    }

    /** With tax inside, what is paid is the sum of the lines, whatever is reckoned out of it. */
    @Test
    public void taxInsideNeverChangesWhatIsPaid() {
        Random random = new Random(7);
        for (int i = 0; i < 1_000; i++) {
            List<Line> lines = List.of(
                    generated(random, List.of(HIGH)),
                    generated(random, List.of(LOW)),
                    generated(random, List.of(LOW, Tax.compound("c", "Compound", "3"))));
            Totals totals = DocumentReckoning.reckon(EUR, lines, true, TaxRounding.values()[i % 2]);
            Money sum =
                    Amounts.sum(EUR, totals.lines().stream().map(l -> l.net()).toList());
            assertThat(totals.total()).isEqualTo(sum);
            assertThat(totals.net().plus(totals.tax())).isEqualTo(sum);
        }
    }

    private static Line line(String quantity, String price, Extent discount, Tax... taxes) {
        return new Line("work", new BigDecimal(quantity), "", new BigDecimal(price), discount, List.of(taxes));
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
