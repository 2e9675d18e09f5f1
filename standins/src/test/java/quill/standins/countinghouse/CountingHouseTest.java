package quill.standins.countinghouse;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import java.math.BigDecimal;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CountingHouseTest {
    /** Common practice: 2.9 % + 0.30. Worked by hand. */
    @Test(dataProvider = "fees")
    public void feeIsAPercentageAndAFixedSum(String amount, String currency, String fee) {
        assertThat(Fee.of("card", new BigDecimal(amount), currency)).isEqualByComparingTo(fee);
    }

    @DataProvider
    Object[][] fees() {
        return new Object[][] {
            {"100.00", "EUR", "3.20"}, // 2.90 + 0.30
            {"900.00", "EUR", "26.40"}, // 26.10 + 0.30
            {"629.76", "EUR", "18.56"}, // 18.26304 + 0.30
            {"0.50", "EUR", "0.31"}, // 0.0145 + 0.30
            {"0.20", "EUR", "0.20"}, // never more than was paid
            {"1000", "JPY", "29"}, // 29 + 0
        };
    }

    /** ISO/IEC 7812-1 Annex B: double every second digit from the right, add the digits; 79927398713 is its example. */
    @Test
    public void everyTestCardBeginsWith99AndPassesTheLuhnCheck() {
        assertThat(luhn("79927398713")).isTrue();
        assertThat(luhn("79927398710")).isFalse();
        for (TestCard card : TestCard.values()) {
            String number = card.grouped().replace(" ", "");
            assertThat(number).startsWith("99").hasSize(16);
            assertThat(luhn(number)).isTrue();
        }
    }

    @Test
    public void everyOtherNumberIsRefusedWithItsReason() {
        assertThat(TestCard.of("9901 0000 0000 0019")).contains(TestCard.APPROVED);
        assertThat(TestCard.of("9901000000000018")).isEmpty();
        assertThat(TestCard.refusalOf("9901000000000018")).contains("check digit");
        assertThat(TestCard.refusalOf("79927398713000")).contains("check digit");
        assertThat(TestCard.refusalOf("0000079927398713")).contains("Only the test cards");
        assertThat(TestCard.refusalOf("abc")).contains("16 digits");
    }

    /** The arrow: a stand-in knows neither the server nor the core. */
    @Test
    public void standInsKnowNothingOfTheApplication() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("quill.server..", "quill.core..")
                .check(new ClassFileImporter().importPackages("quill.standins"));
    }

    private static boolean luhn(String number) {
        int sum = 0;
        for (int i = 0; i < number.length(); i++) {
            int digit = number.charAt(number.length() - 1 - i) - '0';
            int weighed = i % 2 == 1 ? digit * 2 : digit;
            sum += weighed > 9 ? weighed - 9 : weighed;
        }
        return sum % 10 == 0;
    }
}
