package quill.core.pay;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.ledger.Account;
import quill.core.ledger.Bookings;
import quill.core.ledger.OnTop;
import quill.core.ledger.Posting;
import quill.core.pay.Surcharge.TypedSurcharge;
import quill.core.tax.Tax;

/** Surcharges and tips. */
public class OnTopTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final Tax VAT = Tax.standard("v", "VAT 21%", "21");

    @DataProvider
    public Object[][] surcharges() {
        return new Object[][] {
            // percent, fixed, most, taxed, sum, net, tax
            {"2.5", "", "", true, "400.00", "10.00", "2.10"},
            {"2.5", "", "", false, "400.00", "10.00", "0.00"},
            {"2.9", "0.30", "", false, "900.00", "26.40", "0.00"},
            {"2", "", "10.00", true, "500.00", "10.00", "2.10"}, // the limit, met exactly
            {"2", "", "10.00", true, "500.01", "10.00", "2.10"},
            {"2", "", "10.00", true, "499.75", "10.00", "2.10"}, // 9.995 is rounded half up
            {"2", "", "10.00", true, "499.74", "9.99", "2.10"}, // 2.0979
            {"", "1.50", "", true, "3.00", "1.50", "0.32"}, // 0.315 is rounded half up
        };
    }

    @Test(dataProvider = "surcharges")
    public void aSurchargeIsReckoned(
            String percent, String fixed, String most, boolean taxed, String sum, String net, String tax) {
        OnTop on = read(percent, fixed, most, taxed ? VAT : null).on(Money.parse("EUR " + sum));
        assertThat(on.surcharge()).isEqualTo(Money.parse("EUR " + net));
        assertThat(on.tax()).isEqualTo(Money.parse("EUR " + tax));
        assertThat(on.sum()).isEqualTo(on.surcharge().plus(on.tax()));
        assertThat(on.taxId()).isEqualTo(on.tax().isZero() ? "" : "v");
    }

    @Test
    public void inAnotherCurrencyThereIsNone() {
        assertThat(read("2", "1", "", VAT).on(Money.parse("GBP 100.00")).isAny())
                .isFalse();
        assertThat(read("2", "1", "", VAT).on(Money.zero(EUR)).isAny()).isFalse();
    }

    @DataProvider
    public Object[][] noSurcharges() {
        return new Object[][] {
            {"", "", "", "percent"},
            {"0", "0", "", "percent"},
            {"101", "", "", "percent"},
            {"-1", "", "", "percent"},
            {"2", "0.001", "", "fixed"},
            {"2", "", "0", "most"},
            {"2", "", "x", "most"},
        };
    }

    @Test(dataProvider = "noSurcharges")
    public void whatIsNoneIsRefused(String percent, String fixed, String most, String field) {
        List<Problem> problems = new ArrayList<>();
        assertThat(Surcharge.read(new TypedSurcharge(percent, fixed, most), EUR, null, problems))
                .isNull();
        assertThat(problems).extracting(Problem::field).containsExactly(field);
    }

    private static Surcharge read(String percent, String fixed, String most, Tax tax) {
        List<Problem> problems = new ArrayList<>();
        Surcharge read = Surcharge.read(new TypedSurcharge(percent, fixed, most), EUR, tax, problems);
        assertThat(problems).isEmpty();
        return read;
    }

    @Test
    public void tipsAreOfferedOfWhatIsPaid() {
        Tips tips = Tips.read("5%, 10% 2.00", true, EUR, new ArrayList<>());
        assertThat(tips.on(Money.parse("EUR 48.40")))
                .extracting(o -> o.words() + " " + o.amount())
                .containsExactly("5% EUR 2.42", "10% EUR 4.84", "2.00 EUR 2.00");
        assertThat(tips.on(Money.parse("GBP 10.00")))
                .extracting(o -> o.amount().toString())
                .containsExactly("GBP 0.50", "GBP 1.00");
        assertThat(tips.on(Money.parse("EUR 0.05"))).hasSize(2);
        assertThat(Tips.read("5%,7,5%,2,00", true, EUR, new ArrayList<>()).given())
                .as("a comma after a percentage is no decimal mark")
                .containsExactly("5%", "7,5%", "2,00");
    }

    @Test
    public void aTipIsAtMostWhatIsPaidOrOneOfThose() {
        Money sum = Money.parse("EUR 40.00");
        Tips free = Tips.read("5%", true, EUR, new ArrayList<>());
        Tips fixed = Tips.read("5%", false, EUR, new ArrayList<>());
        assertThat(free.given("3.33", sum, new ArrayList<>())).isEqualTo(Money.parse("EUR 3.33"));
        assertThat(free.given("40.00", sum, new ArrayList<>())).isEqualTo(sum);
        assertThat(fixed.given("2.00", sum, new ArrayList<>())).isEqualTo(Money.parse("EUR 2.00"));
        assertThat(fixed.given("", sum, new ArrayList<>()).isZero()).isTrue();
        for (String wrong : List.of("40.01", "-1", "0.001", "1000000000000000", "x")) {
            List<Problem> problems = new ArrayList<>();
            assertThat(free.given(wrong, sum, problems)).isNull();
            assertThat(problems).extracting(Problem::field).containsExactly("tip");
        }
        List<Problem> problems = new ArrayList<>();
        assertThat(fixed.given("2.01", sum, problems)).isNull();
        assertThat(problems.get(0).message()).isEqualTo("must be one of those offered");
    }

    @DataProvider
    public Object[][] noTips() {
        return new Object[][] {
            {"", false}, {"0%", true}, {"x", true}, {"-5", true}, {"5%10%", true}, {"1% 2% 3% 4% 5% 6% 7%", true}
        };
    }

    @Test(dataProvider = "noTips")
    public void whatCannotBeOfferedIsRefused(String typed, boolean free) {
        List<Problem> problems = new ArrayList<>();
        assertThat(Tips.read(typed, free, EUR, problems)).isNull();
        assertThat(problems).extracting(Problem::field).containsOnly("tips");
    }

    @Test
    public void whatIsOnTopIsBookedApart() {
        OnTop on = read("2.5", "", "", VAT).on(Money.parse("EUR 400.00")).withTip(Money.parse("EUR 5.00"));
        assertThat(Bookings.onTop(Account.PROCESSOR_CLEARING, null, on).postings())
                .extracting(Posting::account, p -> p.amount().toString())
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(Account.PROCESSOR_CLEARING, "EUR 17.10"),
                        org.assertj.core.groups.Tuple.tuple(Account.TIPS, "EUR -5.00"),
                        org.assertj.core.groups.Tuple.tuple(Account.SURCHARGES, "EUR -10.00"),
                        org.assertj.core.groups.Tuple.tuple(Account.TAX, "EUR -2.10"));
        assertThatThrownBy(() -> new OnTop(Money.zero(EUR), Money.parse("EUR 1.00"), Money.parse("EUR 0.21"), ""))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
