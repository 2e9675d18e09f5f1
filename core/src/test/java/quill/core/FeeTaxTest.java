package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.DocumentReckoning;
import quill.core.id.DocumentId;
import quill.core.latefee.FeeTax;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.ledger.Account;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.Posting;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;

/** Late fees that bear the taxes of the invoice they are charged on. */
public class FeeTaxTest {
    private static final LocalDate DUE = LocalDate.of(2027, 3, 1);
    private static final LocalDate LATE = LocalDate.of(2027, 3, 9);
    private static final Tax VAT = Tax.standard("vat", "VAT 21%", "21");
    private static final Tax EXEMPT =
            new Tax("exempt", "Exempt", Percent.of("0"), TaxCategory.E, false, "Teaching is exempt from tax");

    /**
     * A flat fee, what is asked and its taxes. Québec's 5% and 9.975% on one base, and the older 9.5% on the price with
     * the 5% inside (Revenu Québec); the VAT fraction 1/6 of a price with 20% inside (HMRC). Values from memory.
     */
    @DataProvider
    public Object[][] fees() {
        Tax gst = Tax.standard("gst", "GST 5%", "5");
        Tax qst = Tax.standard("qst", "QST 9.975%", "9.975");
        Tax older = Tax.compound("old", "QST 9.5%", "9.5");
        Tax twenty = Tax.standard("v20", "VAT 20%", "20");
        return new Object[][] {
            {"100.00", false, List.of(share("80", gst, qst)), "114.98", List.of("5.00", "9.98")},
            {"100.00", false, List.of(share("80", gst, older)), "114.98", List.of("5.00", "9.98")},
            {"12.00", true, List.of(share("500", twenty)), "12.00", List.of("2.00")},
            {"10.00", false, List.of(share("100", VAT), share("300", EXEMPT)), "10.53", List.of("0.53")},
            {"10.00", false, List.of(share("300", EXEMPT)), "10.00", List.of()},
            {"10.00", false, List.of(), "10.00", List.of()},
        };
    }

    @Test(dataProvider = "fees")
    public void aFeeBearsTheTaxesOfItsInvoice(
            String flat, boolean inside, List<FeeTax.Share> shares, String asked, List<String> taxes) {
        LateFee fee = charged(policy("flat", flat, "").with(new FeeTax(true, inside, shares)), "500.00", List.of());
        assertThat(plain(fee.fee())).isEqualTo(flat);
        assertThat(plain(fee.amount())).isEqualTo(asked);
        assertThat(fee.taxes()).extracting(t -> plain(t.amount())).containsExactlyElementsOf(taxes);
        assertThat(fee.why().steps().size()).isEqualTo(2 + taxes.size());
    }

    @Test
    public void byDefaultAFeeIsOutsideTheScopeOfTax() {
        LateFee fee = charged(policy("flat", "10.00", ""), "500.00", List.of());
        assertThat(fee.amount()).isEqualTo(fee.fee());
        assertThat(fee.taxes()).isEmpty();
        assertThat(policy("flat", "10.00", "").words()).doesNotContain("tax");
    }

    @Test
    public void thePolicySaysThatAFeeBearsTax() {
        assertThat(taxed("flat", "10.00", "").words())
                .isEqualTo("Late fee: EUR 10.00, after 7 days of grace, once. It bears tax as this invoice does.");
    }

    @Test
    public void theCapCountsWithoutTaxThatIsAdded() {
        LateFeePolicy policy = taxed("percent", "10%", "60.00").with(new FeeTax(true, false, List.of(share("1", VAT))));
        LateFee first = charged(policy, "500.00", List.of());
        assertThat(plain(first.amount())).isEqualTo("60.50");
        // A second count, by a new due date: of the cap of 60.00 the first fee took 50.00, not 60.50.
        LateFee second =
                charged(policy, "500.00", List.of(new LateFee.Charged(DUE.minusMonths(1), 1, first.fee(), false)));
        assertThat(plain(second.fee())).isEqualTo("10.00");
        assertThat(plain(second.amount())).isEqualTo("12.10");
    }

    @Test
    public void sharesAreTheInvoicesSetsOfTaxes() {
        Random random = new Random(31);
        Documents documents = new Documents(31, Documents.ALL);
        for (int run = 0; run < 1_000; run++) {
            FeeTax tax =
                    DocumentReckoning.reckon(documents.next(CurrencyUnit.EUR)).feeTax();
            Money fee = Money.ofMinor(CurrencyUnit.EUR, 1 + random.nextInt(20_000));
            LateFee charged = charged(policy("flat", plain(fee), "").with(tax), "9999.00", List.of());
            checkAgainstFractions(tax, charged);
            checkEntry(charged);
        }
    }

    /** Each tax lies within a cent per set of its exact share, and what is asked is fee and taxes. */
    private static void checkAgainstFractions(FeeTax tax, LateFee charged) {
        BigDecimal all = tax.shares().stream().map(FeeTax.Share::weight).reduce(BigDecimal.ZERO, BigDecimal::add);
        BigDecimal exact = BigDecimal.ZERO;
        int borne = 0;
        for (FeeTax.Share share : tax.shares()) {
            BigDecimal rate = BigDecimal.ZERO;
            for (Tax t : share.taxes()) {
                BigDecimal of = t.compound() ? BigDecimal.ONE.add(rate) : BigDecimal.ONE;
                rate = rate.add(t.rate().rate().movePointLeft(2).multiply(of));
                borne++;
            }
            BigDecimal part = charged.fee().getAmount().multiply(share.weight());
            BigDecimal factor = tax.inside() ? rate.divide(BigDecimal.ONE.add(rate), 30, RoundingMode.HALF_UP) : rate;
            exact = exact.add(part.multiply(factor));
        }
        exact = exact.divide(all, 20, RoundingMode.HALF_UP);
        BigDecimal taxes =
                charged.taxes().stream().map(t -> t.amount().getAmount()).reduce(BigDecimal.ZERO, BigDecimal::add);
        assertThat(taxes.subtract(exact).abs())
                .isLessThanOrEqualTo(new BigDecimal("0.01").multiply(BigDecimal.valueOf(1 + borne)));
        assertThat(charged.amount().getAmount())
                .isEqualByComparingTo(
                        tax.inside()
                                ? charged.fee().getAmount()
                                : charged.fee().getAmount().add(taxes));
    }

    private static void checkEntry(LateFee charged) {
        Entry entry = Bookings.lateFee(new DocumentId(7), charged.amount(), charged.taxes());
        assertThat(entry.postings().stream().map(Posting::amount).reduce(Money::plus))
                .hasValueSatisfying(sum -> assertThat(sum.isZero()).isTrue());
        assertThat(entry.postings().stream().filter(p -> p.account() == Account.TAX))
                .hasSize(charged.taxes().size());
    }

    private static FeeTax.Share share(String weight, Tax... taxes) {
        return new FeeTax.Share(List.of(taxes), new BigDecimal(weight));
    }

    private static LateFee charged(LateFeePolicy policy, String open, List<LateFee.Charged> before) {
        Money base = Money.parse("EUR " + open);
        return LateFee.on(LATE, new LateFee.Overdue(base, DUE, false, base, before), policy)
                .orElseThrow();
    }

    private static LateFeePolicy policy(String kind, String amount, String cap) {
        return read(new TypedLateFeePolicy(kind, amount, "7", "once", "", cap, "", false));
    }

    private static LateFeePolicy taxed(String kind, String amount, String cap) {
        return read(new TypedLateFeePolicy(kind, amount, "7", "once", "", cap, "", false, true));
    }

    private static LateFeePolicy read(TypedLateFeePolicy typed) {
        return typed.read("", CurrencyUnit.EUR, Percent.of("10"), new ArrayList<>());
    }

    private static String plain(Money amount) {
        return amount.getAmount().toPlainString();
    }
}
