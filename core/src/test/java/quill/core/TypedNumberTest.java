package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

public class TypedNumberTest {
    @DataProvider
    Object[][] typed() {
        return new Object[][] {
            {"14.5", "14.5"},
            {" 14.50 ", "14.50"},
            {"1,234.56", "1234.56"},
            {"1,234,567", "1234567"},
            {".5", "0.5"},
            {"-3", "-3"},
            {"−3", "-3"}, // the minus sign of a text, not of a keyboard
            {"999999999.999999", "999999999.999999"},
            {"58,50", "58.50"},
            {"6,5", "6.5"},
            {"1,2345", "1.2345"},
            {"0,125", "0.125"},
            {",5", "0.5"},
            {"1 250.00", "1250.00"},
            {"1\u00a0250,00", "1250.00"},
            {"1'250.50", "1250.50"},
            {"1.250,00", "1250.00"},
            {"1.250.000", "1250000"},
            {"€1250", "1250"},
            {"€ 1,250.00", "1250.00"},
            {"1250 €", "1250"},
            {"-€3", "-3"},
            {"1,234", "1234"}, // the point is the mark
            {"1.234", "1.234"}, // three decimals, as dinars have
        };
    }

    @Test(dataProvider = "typed")
    public void numbersAreReadAsPeopleTypeThem(String text, String number) {
        List<Problem> problems = new ArrayList<>();
        assertThat(TypedNumber.read("f", text, 6, true, problems)).isEqualByComparingTo(number);
        assertThat(problems).isEmpty();
    }

    /** What is only too large is told so: it is a number like any. */
    @Test
    public void aNumberThatIsTooLargeSaysHowLargeOneMayBe() {
        for (String large : List.of("1000000000", "1000000000000000", "-9999999999999999.50")) {
            List<Problem> problems = new ArrayList<>();
            assertThat(TypedNumber.read("f", large, 2, true, problems)).isNull();
            assertThat(problems).containsExactly(new Problem("f", large, "must be below 1,000,000,000"));
        }
    }

    @DataProvider
    Object[][] typedWithAComma() {
        return new Object[][] {
            {"1.234", "1234"},
            {"1,234", "1.234"},
            {"-1,234", "-1.234"},
            {"1234,567", "1234.567"},
            {"12 345,678", "12345.678"},
            {"12 345.678", "12345.678"}, // blanks group already, so the point does not
            {"58,50", "58.50"},
            {"58.50", "58.50"},
            {"0.125", "0.125"},
            {"1.234,50", "1234.50"},
            {"1,234.50", "1234.50"},
            {"1.234.567", "1234567"},
            {"€1.234", "1234"},
        };
    }

    @Test(dataProvider = "typedWithAComma")
    public void aCommaAsTheMarkDecidesOnlyWhatCouldMeanTwoNumbers(String text, String number) {
        List<Problem> problems = new ArrayList<>();
        String plain = DecimalMark.COMMA.plain(text);
        assertThat(TypedNumber.read("f", plain, 6, true, problems)).isEqualByComparingTo(number);
        assertThat(problems).isEmpty();
        assertThat(DecimalMark.POINT.plain(text)).isEqualTo(text);
    }

    @Test
    public void onlyTheNumberOfATextChangesAndTwofoldOnesAreKnown() {
        assertThat(DecimalMark.COMMA.plain("1,234 km")).isEqualTo("1.234 km");
        assertThat(DecimalMark.COMMA.plain("rest")).isEqualTo("rest");
        assertThat(DecimalMark.COMMA.plain("2,125%")).isEqualTo("2.125%");
        assertThat(DecimalMark.COMMA.plain(null)).isNull();
        assertThat(DecimalMark.isTwofold("1.234 km")).isTrue();
        assertThat(List.of("58,50", "1.234,50", "0.125", "1.2345", "rest", "1 234"))
                .noneMatch(DecimalMark::isTwofold);
        assertThat(DecimalMark.inWords("1.234 km")).isEqualTo("1 and 234 thousandths");
        assertThat(DecimalMark.inWords("12,050")).isEqualTo("12 thousand 050");
        assertThat(DecimalMark.inWords("1234 m2")).isEqualTo("1 thousand 234");
        assertThat(DecimalMark.inWords("€1234")).isEqualTo("1 thousand 234");
        assertThat(DecimalMark.of(",")).isEqualTo(DecimalMark.COMMA);
        assertThat(DecimalMark.of("nonsense")).isEqualTo(DecimalMark.POINT);
    }

    @DataProvider
    Object[][] sums() {
        return new Object[][] {
            {"3*45", "135"},
            {"3 × 45.50", "136.5"},
            {"12.50 + 3", "15.5"},
            {"10-2-3", "5"},
            {"2+3*4", "14"},
            {"(2+3)*4", "20"},
            {"-2*3", "-6"},
            {"2*-3", "-6"},
            {"100/3", "33.333333"},
            {"1/6*6", "1"}, // ten decimals on the way, six at the end
            {"1 250 + 1.250,50", "2500.5"},
            {"1,234*2", "2468"},
            {"2h30", "2.5"},
            {"2 h 20", "2.333333"},
            {"1h05min", "1.083333"},
            {"0h45", "0.75"},
            {"((((1+1))))", "2"},
        };
    }

    @Test(dataProvider = "sums")
    public void sumsAreReckonedAndShownAsUnderstood(String text, String number) {
        List<Problem> problems = new ArrayList<>();
        assertThat(TypedNumber.read("f", text, 6, true, problems)).isEqualTo(new BigDecimal(number));
        assertThat(problems).isEmpty();
        assertThat(TypedNumber.understood(text, text)).isEqualTo(number);
    }

    @Test
    public void aSumThatCannotBeReckonedIsRefusedAndAPlainNumberIsNone() {
        for (String text : List.of("3*", "3**4", "2+(3", "1/0", "3*x", "2h75", "1+2)", "4*(", "+-3", "3*1.2.3")) {
            List<Problem> problems = new ArrayList<>();
            assertThat(TypedNumber.read("f", text, 6, true, problems)).as(text).isNull();
            assertThat(problems).as(text).hasSize(1);
        }
        for (String text : List.of("14.5", "-3", "−3", "90 km", "58,50", "10%", "rest", "€1250", "2027-03-15", "")) {
            assertThat(TypedNumber.understood(text, text)).as(text).isEmpty();
        }
        assertThat(TypedNumber.understood("3*45 km", "3*45 km")).isEqualTo("135");
        assertThat(TypedNumber.understood("2*3 m2", "2*3 m2")).isEqualTo("6");
        assertThat(TypedNumber.understood("1,234", "1.234")).isEqualTo("1 and 234 thousandths");
    }

    @DataProvider
    Object[][] slips() {
        return new Object[][] {
            {"", "write a number"},
            {"abc", "such as 14.5"},
            {"1.2.3", "such as 14.5"},
            {"1e5", "such as 14.5"},
            {"1,2,3", "such as 14.5"},
            {"1 25", "such as 14.5"},
            {"1.250.00", "such as 14.5"},
            {"1,250,00", "such as 14.5"},
            {"€", "such as 14.5"},
            {"1 km", "such as 14.5"},
            {"0x10", "such as 14.5"},
            {"NaN", "such as 14.5"},
            {"1.0000001", "at most 6 decimals"},
            {"1000000000", "below 1,000,000,000"},
            {"-1", "not be below zero"},
            {"٣", "such as 14.5"},
            {"9".repeat(400), "below 1,000,000,000"},
        };
    }

    @Test(dataProvider = "slips")
    public void slipsAreNamedWithWhatWouldBeAllowed(String text, String message) {
        List<Problem> problems = new ArrayList<>();
        assertThat(TypedNumber.read("f", text, 6, false, problems)).isNull();
        assertThat(problems).singleElement().satisfies(p -> {
            assertThat(p.field()).isEqualTo("f");
            // A long value is shown by its beginning.
            assertThat(p.value())
                    .startsWith(
                            text.strip().substring(0, Math.min(119, text.strip().length())));
            assertThat(p.message()).contains(message);
        });
    }

    /** ISO 4217 through java.util.Currency: an amount has no more decimals than its currency's minor unit. */
    @Test
    public void amountsHaveTheirCurrencysDecimals() {
        for (String code : List.of("EUR", "GBP", "USD", "JPY", "KWD", "CHF", "ISK")) {
            int decimals = Currency.getInstance(code).getDefaultFractionDigits();
            CurrencyUnit unit = CurrencyUnit.of(code);
            String fits = decimals == 0 ? "7" : "7." + "1".repeat(decimals);
            List<Problem> problems = new ArrayList<>();
            assertThat(TypedNumber.amount("f", fits, unit, problems).getAmount())
                    .isEqualByComparingTo(fits);
            assertThat(TypedNumber.amount("f", decimals == 0 ? "7.5" : fits + "1", unit, problems))
                    .isNull();
            assertThat(problems).hasSize(1);
        }
    }

    /** java.math.RoundingMode's own table for HALF_UP: 5.5 is 6, 2.5 is 3, 1.1 is 1, -1.1 is -1, -2.5 is -3. */
    @Test
    public void roundingIsHalfUpOnTheAbsoluteValue() {
        String[][] table = {{"5.5", "6"}, {"2.5", "3"}, {"1.6", "2"}, {"1.1", "1"}, {"-1.1", "-1"}, {"-2.5", "-3"}};
        for (String[] row : table) {
            assertThat(Amounts.round(CurrencyUnit.JPY, new BigDecimal(row[0])).getAmount())
                    .isEqualByComparingTo(row[1]);
        }
        assertThat(Amounts.round(CurrencyUnit.EUR, new BigDecimal("-0.005"))).isEqualTo(Money.parse("EUR -0.01"));
    }

    /** ISO 4217 lists codes for metals, funds, tests and no currency at all; no minor unit is given for them. */
    @Test
    public void onlyMoneyIsACurrency() {
        for (String code : List.of("XAU", "XXX", "XTS", "XDR", "eur", "EURO", "")) {
            List<Problem> problems = new ArrayList<>();
            assertThat(TypedNumber.currency("f", code, problems)).as(code).isNull();
            assertThat(problems).hasSize(1);
        }
        for (String code : List.of("EUR", "XOF", "XPF", "XCD")) {
            assertThat(TypedNumber.currency("f", code, new ArrayList<>()).getCode())
                    .isEqualTo(code);
        }
    }

    /** With its sign at the end; two percentages are not one with a comma. */
    @Test
    public void aPercentageIsOne() {
        assertThat(TypedNumber.percent("f", " 7,5 % ", new ArrayList<>()).toString())
                .isEqualTo("7.5%");
        for (String wrong : List.of("5%,10%", "5%10%", "%5", "5%%")) {
            List<Problem> problems = new ArrayList<>();
            assertThat(TypedNumber.percent("f", wrong, problems)).as(wrong).isNull();
            assertThat(problems).hasSize(1);
        }
    }

    @Test
    public void percentagesHaveBoundsAndFourDecimals() {
        assertThat(Percent.of("9.975").of(Money.parse("CAD 100.00"))).isEqualTo(Money.parse("CAD 9.98"));
        assertThat(Percent.of("100.0000").toString()).isEqualTo("100%");
        for (String wrong : List.of("-1", "100.0001", "1.00001")) {
            assertThatThrownBy(() -> Percent.of(wrong)).hasMessageContaining("from 0 to 100 with at most 4 decimals");
        }
    }

    @Test
    public void amountsAreShownInThousands() {
        assertThat(Amounts.grouped(Money.parse("EUR 1234567.80"))).isEqualTo("1,234,567.80");
        assertThat(Amounts.grouped(Money.parse("EUR -123.00"))).isEqualTo("−123.00");
        assertThat(Amounts.grouped(Money.parse("JPY 1000"))).isEqualTo("1,000");
        assertThat(Amounts.plain(Money.parse("KWD 1.005"))).isEqualTo("1.005");
    }
}
