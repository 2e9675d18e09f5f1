package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static quill.core.Documents.HIGH;
import static quill.core.Documents.LOW;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.CashRounding;
import quill.core.document.Charge;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentDiscount;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.Bookings;
import quill.core.ledger.Posting;
import quill.core.ledger.Valuation;
import quill.core.money.Amounts;
import quill.core.money.Exchange;
import quill.core.money.Percent;
import quill.core.tax.Exemption;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/** Discounts, charges, exemption, what is prepaid and what is rounded in cash: by hand, and by the thousand. */
public class WholeDocumentTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final List<String> CURRENCIES = List.of("EUR", "JPY", "KWD");

    /** Worked by hand: 10 % of 300.00 is 30.00; 200 : 100 gives 20.00 and 10.00; delivery after it at its own rate. */
    @Test
    public void aDiscountIsSplitOverTheRatesAndAChargeComesAfterIt() {
        Totals t = Documents.totals(body(
                false,
                List.of(line("2", "100.00", HIGH), line("1", "100.00", LOW)),
                List.of(new DocumentDiscount("loyal", percent("10"), List.of())),
                List.of(new Charge("Delivery", sum("15.00"), List.of(HIGH))),
                null));
        assertThat(t.discounts().get(0).why().steps())
                .containsExactly("10% of 300.00 = 30.00", "of which on VAT 21%: 20.00", "of which on VAT 6%: 10.00");
        assertThat(t.taxes()).extracting(TaxTotal::base).containsExactly(eur("195.00"), eur("90.00"));
        assertThat(t.taxes()).extracting(TaxTotal::amount).containsExactly(eur("40.95"), eur("5.40"));
        assertThat(t.net()).isEqualTo(eur("285.00"));
        assertThat(t.total()).isEqualTo(eur("331.35"));
        assertThat(t.netWhy().steps()).containsExactly("200.00 + 100.00 − 30.00 + 15.00 = 285.00");
    }

    /** 100.14 at 5 %, then 10 % compound: 5.01 and 10.52 (105.15 at 10 %). Worked by hand. */
    @Test
    public void aCompoundTaxStandsOnTheRoundedOneBeforeIt() {
        Totals t = Documents.totals(
                body(false, List.of(line("1", "100.14", Documents.GST, Documents.UPON)), List.of(), List.of(), null));
        assertThat(t.taxes()).extracting(TaxTotal::amount).containsExactly(eur("5.01"), eur("10.52"));
        assertThat(t.taxes().get(1).base()).isEqualTo(eur("105.15"));
    }

    /** 120 with 20 % inside is 100 for an exempt client: VAT fraction 1/6 (value from memory). */
    @Test
    public void anExemptClientPaysNoTaxThatWasInside() {
        Exemption exemption = new Exemption("EX-9", LocalDate.of(2027, 6, 30));
        Tax twenty = Tax.standard("t", "VAT 20%", "20");
        Totals t = Documents.totals(body(
                true,
                List.of(line("1", "120.00", twenty)),
                List.of(),
                List.of(new Charge("Delivery", sum("12.00"), List.of(twenty))),
                exemption));
        assertThat(t.lines().get(0).net()).isEqualTo(eur("100.00"));
        assertThat(t.total()).isEqualTo(eur("110.00"));
        assertThat(t.tax().isZero()).isTrue();
        assertThat(t.taxes()).singleElement().satisfies(tax -> {
            assertThat(tax.tax().category()).isEqualTo(TaxCategory.E);
            assertThat(tax.tax().reason()).contains("EX-9", "30 June 2027");
        });
        assertThat(exemption.holdsOn(LocalDate.of(2027, 6, 30))).isTrue();
        assertThat(exemption.holdsOn(LocalDate.of(2027, 7, 1))).isFalse();
    }

    /** 10.02 with 5.01 prepaid, to 0.05: rounding -0.01, due 5.00. */
    @Test
    public void cashRoundsOnlyWhatIsDue() {
        Tax none = Tax.outsideScope();
        Totals t = Documents.totals(new DocumentBody(
                EUR,
                List.of(line("1", "10.02", none)),
                List.of(),
                List.of(),
                false,
                TaxRounding.PER_TAX,
                null,
                eur("5.01"),
                new CashRounding(eur("0.05"))));
        assertThat(t.rounding()).isEqualTo(eur("-0.01"));
        assertThat(t.due()).isEqualTo(eur("5.00"));
        assertThat(Bookings.issued(new DocumentId(3), t).postings())
                .extracting(p -> p.account() + " " + Amounts.plain(p.amount()))
                .containsExactly("RECEIVABLE 5.00", "CLIENT_DEPOSITS 5.01", "ROUNDING 0.01", "INCOME -10.02");
    }

    @Test
    public void tooMuchOffOrPrepaidIsRefusedWithTheFigureThatIsAllowed() {
        List<Line> lines = List.of(line("1", "50.00", HIGH), line("-1", "20.00", LOW));
        assertThatThrownBy(() -> Documents.totals(body(
                        false, lines, List.of(new DocumentDiscount("x", sum("30.01"), List.of())), List.of(), null)))
                .hasMessageContaining("discounts[0].amount (30.01): must not be more than the lines")
                .hasMessageContaining("30.00");
        assertThatThrownBy(() -> Documents.totals(new DocumentBody(
                        EUR, lines, List.of(), List.of(), false, TaxRounding.PER_TAX, null, eur("500"), null)))
                .hasMessageContaining("prepaid (500.00): must not be more than the total, 39.30");
        assertThatThrownBy(() -> new CashRounding(eur("0.00"))).hasMessageContaining("above zero");
    }

    @Test
    public void generatedFiguresAddUp() {
        Documents documents = new Documents(41, Documents.ALL);
        for (int i = 0; i < 4_000; i++) {
            CurrencyUnit currency = CurrencyUnit.of(CURRENCIES.get(i % 3));
            DocumentBody body = documents.next(currency);
            Totals t = Documents.totals(body);
            Money lines = sum(currency, t.lines().stream().map(l -> l.net()).toList());
            Money off =
                    sum(currency, t.discounts().stream().map(d -> d.amount()).toList());
            Money on = sum(currency, t.charges().stream().map(c -> c.amount()).toList());
            assertThat(lines.minus(off).plus(on)).isEqualTo(t.taxInside() ? t.total() : t.net());
            assertThat(t.net().plus(t.tax())).isEqualTo(t.total());
            assertThat(sum(currency, t.taxes().stream().map(TaxTotal::amount).toList()))
                    .isEqualTo(t.tax());
            assertThat(sum(currency, t.groups().stream().map(TaxGroup::total).toList()))
                    .isEqualTo(t.total());
            assertThat(sum(currency, t.groups().stream().map(TaxGroup::net).toList()))
                    .isEqualTo(t.net());
            assertThat(t.due()).isEqualTo(t.total().minus(t.prepaid()).plus(t.rounding()));
            assertThat(t.rounding().abs().getAmountMinorLong()).isLessThanOrEqualTo(2);
            for (TaxTotal tax : t.taxes()) {
                assertThat(ofGroups(t, tax.tax())).isEqualTo(tax.amount());
            }
            Money books = sum(
                    currency,
                    Bookings.issued(new DocumentId(1), t).postings().stream()
                            .map(Posting::amount)
                            .toList());
            assertThat(books.isZero()).isTrue();
        }
    }

    private static Money ofGroups(Totals t, Tax tax) {
        Money sum = Money.zero(t.total().getCurrencyUnit());
        for (TaxGroup g : t.groups()) {
            int at = g.taxes().indexOf(tax);
            sum = at < 0 ? sum : sum.plus(g.amounts().get(at));
        }
        return sum;
    }

    @Test
    public void theOrderOfLinesChangesNoTotal() {
        Documents documents = new Documents(42, Documents.ALL);
        Random random = new Random(43);
        for (int i = 0; i < 3_000; i++) {
            DocumentBody b = documents.next(CurrencyUnit.of(CURRENCIES.get(i % 3)));
            Totals t = Documents.totals(b);
            List<Line> shuffled = new ArrayList<>(b.lines());
            Collections.shuffle(shuffled, random);
            Totals other = Documents.totals(new DocumentBody(
                    b.currency(),
                    shuffled,
                    b.discounts(),
                    b.charges(),
                    b.taxInside(),
                    b.rounding(),
                    b.exemption(),
                    b.prepaid(),
                    b.cash()));
            assertThat(List.of(other.net(), other.tax(), other.total(), other.due()))
                    .as("document " + i)
                    .isEqualTo(List.of(t.net(), t.tax(), t.total(), t.due()));
        }
    }

    /** Where the price with tax is a whole number of cents, taking the tax out again gives what was put on. */
    @Test
    public void insideAndOutsideAgreeWhereTheyMust() {
        Random random = new Random(44);
        for (int i = 0; i < 2_000; i++) {
            List<Tax> set = Documents.ALL.get(i % Documents.ALL.size());
            // Nets of whole thousands make every tax here, the compound one on 5 % too, a whole number of cents.
            BigDecimal net = BigDecimal.valueOf((1 + random.nextInt(5_000)) * 1_000L);
            Line outside = new Line("work", BigDecimal.ONE, "", net, new Extent.None(), set);
            Totals put = Documents.totals(body(false, List.of(outside), List.of(), List.of(), null));
            Line inside = new Line("work", BigDecimal.ONE, "", put.total().getAmount(), new Extent.None(), set);
            Totals taken = Documents.totals(body(true, List.of(inside), List.of(), List.of(), null));
            assertThat(taken.net()).isEqualTo(put.net());
            assertThat(taken.taxes())
                    .extracting(TaxTotal::amount)
                    .isEqualTo(put.taxes().stream().map(TaxTotal::amount).toList());
        }
    }

    /** Taxes outside, rounded per tax, against exact fractions and a splitting of the test's own. */
    @Test
    public void generatedDiscountsEqualAReckoningByHand() {
        Documents documents = new Documents(45, Documents.PLAIN);
        int compared = 0;
        while (compared < 1_000) {
            DocumentBody b = documents.next(EUR);
            if (!b.taxInside() && b.rounding() == TaxRounding.PER_TAX && b.exemption() == null) {
                Totals t = Documents.totals(b);
                assertThat(t.total().getAmountMinorLong()).isEqualTo(new ByHand(b).total());
                compared++;
            }
        }
    }

    @Test
    public void anotherCurrencyIsBookedInTheOwnOneToo() {
        Exchange pounds = new Exchange(EUR, new BigDecimal("1.1734"));
        Money gbp = Money.parse("GBP 121.00");
        assertThat(pounds.of(gbp)).isEqualTo(eur("141.98"));
        Documents documents = new Documents(46, Documents.ALL);
        for (int i = 0; i < 1_000; i++) {
            CurrencyUnit currency = CurrencyUnit.of(CURRENCIES.get(i % 3));
            List<Posting> postings = Bookings.issued(new DocumentId(1), Documents.totals(documents.next(currency)))
                    .postings();
            Exchange exchange = new Exchange(CurrencyUnit.GBP, new BigDecimal("0.7391"));
            Valuation valued = Valuation.of(
                    postings,
                    postings.stream().map(p -> exchange.of(p.amount())).toList(),
                    Collections.nCopies(postings.size(), null));
            assertThat(sum(CurrencyUnit.GBP, valued.sides()).isZero()).isTrue();
            assertThat(valued.difference().isZero()).isTrue();
        }
        assertThatThrownBy(() -> new Exchange(EUR, BigDecimal.ZERO)).hasMessageContaining("above zero");
        assertThat(Account.ROUNDING.words()).isEqualTo("Cash rounding");
    }

    private static DocumentBody body(
            boolean inside, List<Line> lines, List<DocumentDiscount> off, List<Charge> on, Exemption exemption) {
        return new DocumentBody(EUR, lines, off, on, inside, TaxRounding.PER_TAX, exemption, null, null);
    }

    private static Money sum(CurrencyUnit currency, List<Money> amounts) {
        return Amounts.sum(currency, amounts);
    }

    private static Extent sum(String amount) {
        return new Extent.OfAmount(eur(amount));
    }

    private static Extent percent(String percent) {
        return new Extent.OfPercent(Percent.of(percent));
    }

    private static Line line(String quantity, String price, Tax... taxes) {
        return new Line("work", new BigDecimal(quantity), "", new BigDecimal(price), new Extent.None(), List.of(taxes));
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
