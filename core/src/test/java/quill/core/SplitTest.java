package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.javamoney.moneta.FastMoney;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.money.Amounts;
import quill.core.money.Split;

public class SplitTest {
    @Test
    public void hundredInThreeGivesTheOddCentToTheFirst() {
        assertThat(Split.equally(Money.parse("EUR 100.00"), 3))
                .containsExactly(Money.parse("EUR 33.34"), Money.parse("EUR 33.33"), Money.parse("EUR 33.33"));
        assertThat(Split.equally(Money.parse("EUR -100.00"), 3))
                .containsExactly(Money.parse("EUR -33.34"), Money.parse("EUR -33.33"), Money.parse("EUR -33.33"));
    }

    @Test
    public void spareUnitsGoToTheLargestRemainders() {
        // Worked by hand: 10 units over 1, 1, 5 of 7 are 1.43, 1.43, 7.14; the one spare goes to the first of .43.
        assertThat(Split.byWeights(Money.parse("JPY 10"), weights("1", "1", "5")))
                .containsExactly(Money.parse("JPY 2"), Money.parse("JPY 1"), Money.parse("JPY 7"));
    }

    /** The definition of the largest-remainder method: exact sum, no part off by a minor unit or more. */
    @Test
    public void everySplitSumsExactlyAndStaysWithinOneUnitOfItsShare() {
        Random random = new Random(20270315);
        for (int round = 0; round < 5_000; round++) {
            CurrencyUnit currency = CurrencyUnit.of(List.of("EUR", "JPY", "KWD").get(round % 3));
            Money whole = Money.ofMinor(currency, random.nextLong(-9_000_000_000L, 9_000_000_000L));
            List<BigDecimal> weights = new ArrayList<>(weights("1"));
            for (int i = random.nextInt(9); i > 0; i--) {
                weights.add(BigDecimal.valueOf(random.nextInt(100_000), random.nextInt(5)));
            }
            List<Money> parts = Split.byWeights(whole, weights);
            assertThat(Amounts.sum(currency, parts)).isEqualTo(whole);
            BigDecimal sum = weights.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
            for (int i = 0; i < parts.size(); i++) {
                // |part x sum - whole x weight| < sum, in minor units: no division, so no rounding here
                BigDecimal off = BigDecimal.valueOf(parts.get(i).getAmountMinorLong())
                        .multiply(sum)
                        .subtract(BigDecimal.valueOf(whole.getAmountMinorLong()).multiply(weights.get(i)));
                assertThat(off.abs()).isLessThan(sum);
            }
        }
    }

    /** Against JavaMoney's division with remainder. */
    @Test
    public void equalPartsAgreeWithAnotherLibrarysQuotientAndRemainder() {
        for (int parts = 1; parts <= 60; parts++) {
            long units = 1_234_567L + 7_919L * parts;
            FastMoney[] other = FastMoney.of(units, "EUR").divideAndRemainder(parts);
            long quotient = other[0].getNumber().longValue();
            long odd = other[1].getNumber().longValue();
            List<Money> ours = Split.equally(Money.ofMinor(CurrencyUnit.EUR, units), parts);
            for (int i = 0; i < parts; i++) {
                assertThat(ours.get(i).getAmountMinorLong()).isEqualTo(quotient + (i < odd ? 1 : 0));
            }
        }
    }

    @Test
    public void weightsThatSayNothingAreRefused() {
        Money whole = Money.parse("EUR 1.00");
        assertThatThrownBy(() -> Split.byWeights(whole, weights("0", "0"))).hasMessageContaining("above zero");
        assertThatThrownBy(() -> Split.byWeights(whole, weights("2", "-1"))).hasMessageContaining("negative");
        assertThatThrownBy(() -> Split.byWeights(whole, List.of())).isInstanceOf(RefusedException.class);
    }

    @Test
    public void addingTwoCurrenciesNamesBoth() {
        assertThatThrownBy(
                        () -> Amounts.sum(CurrencyUnit.EUR, List.of(Money.parse("EUR 1.00"), Money.parse("GBP 1.00"))))
                .hasMessageContaining("EUR")
                .hasMessageContaining("GBP");
    }

    private static List<BigDecimal> weights(String... texts) {
        return java.util.Arrays.stream(texts).map(BigDecimal::new).toList();
    }
}
