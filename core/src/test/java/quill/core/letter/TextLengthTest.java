package quill.core.letter;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** 3GPP TS 23.038 6.2.1 (the alphabet and its extension), TS 23.040 9.2.3.24.1 (parts): 160 / 153 and 70 / 67 places. */
public class TextLengthTest {
    @DataProvider
    Object[][] texts() {
        return new Object[][] {
            {"a".repeat(160), true, 160, 1},
            {"a".repeat(161), true, 161, 2},
            {"a".repeat(306), true, 306, 2},
            {"a".repeat(307), true, 307, 3},
            {"€".repeat(80), true, 160, 1}, // two places each
            {"a".repeat(152) + "€" + "a".repeat(10), true, 164, 2},
            {"a".repeat(152) + "€" + "a".repeat(151), true, 305, 2
            }, // not divided: it begins the second part, and fills it
            {"a".repeat(152) + "€" + "a".repeat(152), true, 306, 3},
            {"я".repeat(70), false, 70, 1},
            {"я".repeat(71), false, 71, 2},
            {"я".repeat(134), false, 134, 2},
            {"я".repeat(135), false, 135, 3},
            {"🎹".repeat(35), false, 70, 1}, // two units each
            {"🎹".repeat(36), false, 72, 2},
            {"🎹".repeat(67), false, 134, 3}, // 33 of them in a part, since none is divided
            {"", true, 0, 1},
        };
    }

    @Test(dataProvider = "texts")
    public void partsAreCountedAsANetworkDoes(String text, boolean plain, int characters, int parts) {
        assertThat(TextLength.of(text)).isEqualTo(new TextLength(plain, characters, parts));
    }

    @Test
    public void printedMarksAreMadePlainOnes() {
        assertThat(TextLength.plainer("“It’s due” – 1\u202f000\u00a0€ …")).isEqualTo("\"It's due\" - 1 000 € ...");
        assertThat(TextLength.of(TextLength.plainer("It’s")).plain()).isTrue();
    }

    @Test
    public void everyPartIsPaidForAndTheSumIsRoundedUp() {
        TextLength three = TextLength.of("a".repeat(307));
        assertThat(three.cost(new BigDecimal("0.0785"), CurrencyUnit.EUR)).isEqualTo(Money.parse("EUR 0.24"));
        assertThat(three.cost(new BigDecimal("0.08"), CurrencyUnit.EUR)).isEqualTo(Money.parse("EUR 0.24"));
        assertThat(three.cost(new BigDecimal("4.1"), CurrencyUnit.JPY)).isEqualTo(Money.parse("JPY 13"));
    }
}
