package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.finding.Words;
import quill.core.money.DecimalMark;

public class WordsTest {
    @Test
    public void wordsAreSmallPlainAndEachOnce() {
        assertThat(Words.of("Lantern Café, café! 2027-0021 wilma@kestrel-theatre.example"))
                .containsExactly("lantern", "cafe", "2027", "0021", "wilma", "kestrel", "theatre", "example");
        assertThat(Words.of("EUR 1,858.40")).containsExactly("eur", "1", "858", "40", "1858.40");
        assertThat(Words.of(null)).isEmpty();
        assertThat(Words.of("x".repeat(99))).allMatch(w -> w.length() == Words.LONGEST);
    }

    @DataProvider
    public Object[][] asked() {
        return new Object[][] {
            {"1,858.40", DecimalMark.POINT, "1858.40"},
            {"1.858,40", DecimalMark.COMMA, "1858.40"},
            {"1858,4", DecimalMark.POINT, "1858.4"},
            {"2027-0021 kest", DecimalMark.POINT, "2027 0021 kest"},
            {"  ", DecimalMark.POINT, ""},
        };
    }

    @Test(dataProvider = "asked")
    public void whatIsTypedIsWordsAndNumbers(String typed, DecimalMark mark, String words) {
        assertThat(String.join(" ", Words.asked(typed, mark))).isEqualTo(words);
    }

    @DataProvider
    public Object[][] slips() {
        return new Object[][] {
            {"kestrel", "kestrl", true},
            {"kestrel", "kesstrel", true},
            {"kestrel", "kestral", true},
            {"kestrel", "ketsrel", true},
            {"kestrel", "theatre", false},
            {"kestrel", "ketsral", false},
            {"0021", "0022", false},
            {"ada", "adx", false},
        };
    }

    @Test(dataProvider = "slips")
    public void oneSlipIsForgivenInAWordAndNoneInANumber(String meant, String typed, boolean same) {
        Set<String> both = Words.slips(meant);
        both.retainAll(Words.slips(typed));
        assertThat(!both.isEmpty()).isEqualTo(same);
    }
}
