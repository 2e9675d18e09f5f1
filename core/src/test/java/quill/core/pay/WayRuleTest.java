package quill.core.pay;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;

/** When a way to pay is offered, what it costs and when its money is there. Sums worked by hand. */
public class WayRuleTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;

    private static TypedWay typed(String currencies, String countries, String smallest, String ceiling) {
        return new TypedWay("CARD", true, currencies, countries, smallest, ceiling, "2.9", "0.30", "2", "");
    }

    private static WayRule rule(TypedWay typed) {
        List<Problem> problems = new ArrayList<>();
        WayRule rule = WayRule.read("", typed, EUR, problems);
        assertThat(problems).isEmpty();
        return rule;
    }

    private static String missing(TypedWay typed, String sum, String inOwn, String country) {
        return rule(typed).missing(new WayRule.Asked(Money.parse(sum), Money.parse(inOwn), country));
    }

    @DataProvider
    Object[][] asked() {
        TypedWay free = typed("", "", "", "");
        TypedWay limited = typed("EUR, GBP", "IE GB", "10", "5,000.00");
        return new Object[][] {
            {free, "USD 0.01", "EUR 0.01", "", ""},
            {free.switched(false), "EUR 10.00", "EUR 10.00", "IE", "it is switched off"},
            {limited, "EUR 5000.00", "EUR 5000.00", "IE", ""},
            {limited, "EUR 5000.01", "EUR 5000.01", "IE", "EUR 5,000.01 is above its ceiling, EUR 5,000.00"},
            {limited, "EUR 10.00", "EUR 10.00", "GB", ""},
            {limited, "EUR 9.99", "EUR 9.99", "GB", "EUR 9.99 is below its smallest amount, EUR 10.00"},
            {limited, "USD 20.00", "EUR 18.00", "IE", "it takes EUR, GBP, not USD"},
            {limited, "EUR 20.00", "EUR 20.00", "FR", "it is offered in GB, IE, not in FR"},
            {limited, "EUR 20.00", "EUR 20.00", "", "it is offered in GB, IE, and the client’s country is not known"},
            // The limit is in the own currency: 4,500 pounds at 1.1745 are 5,285.25 euro.
            {limited, "GBP 4500.00", "EUR 5285.25", "GB", "EUR 5,285.25 is above its ceiling, EUR 5,000.00"},
        };
    }

    @Test(dataProvider = "asked")
    public void theRuleThatRemovedItIsNamed(TypedWay way, String sum, String inOwn, String country, String expected) {
        assertThat(missing(way, sum, inOwn, country)).isEqualTo(expected);
    }

    /** Common practice: 2.9 % + 0.30. */
    @Test
    public void costsAreAPercentageAndAFixedSumInTheCurrencyThatIsPaid() {
        WayRule card = rule(typed("", "", "", ""));
        assertThat(card.cost(Money.parse("EUR 100.00"))).isEqualTo(Money.parse("EUR 3.20"));
        assertThat(card.cost(Money.parse("GBP 629.76"))).isEqualTo(Money.parse("GBP 18.56")); // 18.26304 + 0.30
        assertThat(card.cost(Money.parse("EUR 0.20"))).isEqualTo(Money.parse("EUR 0.20")); // never more than was paid
        assertThat(card.cost(Money.parse("JPY 1000"))).isEqualTo(Money.parse("JPY 29")); // 29 + 0.30, no sen
    }

    @Test
    public void workingDaysAreCountedWithoutWeekends() {
        WayRule card = rule(typed("", "", "", ""));
        assertThat(card.arrives(LocalDate.of(2027, 3, 3))).isEqualTo("2027-03-05"); // Wednesday to Friday
        assertThat(card.arrives(LocalDate.of(2027, 3, 5))).isEqualTo("2027-03-09"); // Friday to Tuesday
        assertThat(card.arrives(LocalDate.of(2027, 3, 6))).isEqualTo("2027-03-09"); // Saturday to Tuesday
        assertThat(rule(WayToPay.CASH.usual(true)).arrives(LocalDate.of(2027, 3, 6)))
                .isEqualTo("2027-03-06");
    }

    @DataProvider
    Object[][] slips() {
        return new Object[][] {
            {typed("EUX", "", "", ""), "ways[0].currencies"},
            {typed("", "IE, ZZ", "", ""), "ways[0].countries"},
            {typed("", "", "100", "99.99"), "ways[0].ceiling"},
            {typed("", "", "-1", ""), "ways[0].smallest"},
            {typed("", "", "much", ""), "ways[0].smallest"},
            {new TypedWay("PIGEON", true, "", "", "", "", "0", "0", "0", ""), "ways[0].way"},
            {new TypedWay("CARD", true, "", "", "", "", "101", "0", "0", ""), "ways[0].feePercent"},
            {new TypedWay("CARD", true, "", "", "", "", "-1", "0", "0", ""), "ways[0].feePercent"},
            {new TypedWay("CARD", true, "", "", "", "", "0", "0.005", "0", ""), "ways[0].feeFixed"},
            {new TypedWay("CARD", true, "", "", "", "", "0", "0", "1.5", ""), "ways[0].days"},
            {new TypedWay("CARD", true, null, null, null, null, null, null, "61", ""), "ways[0].days"},
        };
    }

    @Test(dataProvider = "slips")
    public void whatIsWrongIsNamedWithItsField(TypedWay typed, String field) {
        List<Problem> problems = new ArrayList<>();
        assertThat(WayRule.read("ways[0].", typed, EUR, problems)).isNull();
        assertThat(problems).extracting(Problem::field).contains(field);
    }
}
