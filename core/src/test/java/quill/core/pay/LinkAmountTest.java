package quill.core.pay;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;

public class LinkAmountTest {
    private static LinkAmount chosen(String least, String most, List<Problem> problems) {
        return LinkAmount.read(new LinkAmount.TypedLinkAmount("EUR", true, "", least, most), problems);
    }

    @Test
    public void aFixedAmountTakesNothingElse() {
        List<Problem> problems = new ArrayList<>();
        LinkAmount fixed = LinkAmount.read(new LinkAmount.TypedLinkAmount("EUR", false, "25.00", "", ""), problems);
        assertThat(problems).isEmpty();
        assertThat(fixed.isFixed()).isTrue();
        assertThat(fixed.paid("25.00", "EUR", problems)).isEqualTo(Money.parse("EUR 25.00"));
        assertThat(fixed.paid("24.99", "EUR", problems)).isNull();
        assertThat(fixed.paid("25.00", "USD", problems)).isNull();
        assertThat(problems.stream().map(p -> p.field() + ": " + p.message()))
                .containsExactly("amount: must be 25.00, what is asked for here", "currency: must be EUR");
    }

    @Test
    public void aChosenAmountStaysWithinItsLimitsWhichAreTaken() {
        List<Problem> problems = new ArrayList<>();
        LinkAmount within = chosen("5", "500.00", problems);
        assertThat(within.paid("5.00", "EUR", problems)).isEqualTo(Money.parse("EUR 5.00"));
        assertThat(within.paid("500", "EUR", problems)).isEqualTo(Money.parse("EUR 500.00"));
        assertThat(problems).isEmpty();
        assertThat(within.paid("4.99", "EUR", problems)).isNull();
        assertThat(within.paid("500.01", "EUR", problems)).isNull();
        assertThat(problems).hasSize(2).allMatch(p -> p.message().equals("must be from 5.00 to 500.00"));
    }

    @DataProvider
    public Object[][] nonsense() {
        return new Object[][] {{"0"}, {"-1"}, {"0.001"}, {"1000000000000000"}, {""}, {"many"}, {null}};
    }

    @Test(dataProvider = "nonsense")
    public void nonsenseIsRefusedWithItsField(String typed) {
        List<Problem> problems = new ArrayList<>();
        assertThat(LinkAmount.read(new LinkAmount.TypedLinkAmount("EUR", false, typed, "", ""), problems))
                .isNull();
        assertThat(problems).isNotEmpty().allMatch(p -> p.field().equals("asks.amount"));
        List<Problem> paid = new ArrayList<>();
        assertThat(chosen("5", "500", paid).paid(typed, "EUR", paid)).isNull();
        assertThat(paid).isNotEmpty().allMatch(p -> p.field().equals("amount"));
    }

    @Test
    public void theLargestIsAboveTheSmallest() {
        List<Problem> problems = new ArrayList<>();
        assertThat(chosen("5", "5", problems)).isNull();
        assertThat(problems).singleElement().matches(p -> p.field().equals("asks.most"));
    }

    @DataProvider
    public Object[][] addresses() {
        return new Object[][] {
            {"https://club.example/thanks?a=1", true},
            {"", true},
            {"http://club.example", false},
            {"javascript:alert(1)", false},
            {"club.example", false},
            {"https:///nowhere", false},
            {"https://bank.example@club.example", false},
            {"https://club.example/a b", false},
            {"https://club.example/" + "x".repeat(500), false},
        };
    }

    @Test(dataProvider = "addresses")
    public void onlySecureAddressesAreGoneOnTo(String typed, boolean good) {
        List<Problem> problems = new ArrayList<>();
        assertThat(SecureAddress.read("after.onward", typed, problems)).isEqualTo(typed);
        assertThat(problems.isEmpty()).isEqualTo(good);
    }
}
