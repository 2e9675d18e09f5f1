package quill.server.business;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;

/** Contrast ratios: WCAG 2.2, definition of contrast ratio; #767676 is its well-known grey just above 4.5 on white. */
public class AccentTest {
    @DataProvider
    public Object[][] colours() {
        return new Object[][] {
            {"#000000", 21.0, true}, {"#ffffff", 1.0, false}, {"#767676", 4.54, true}, {"#777777", 4.48, false}
        };
    }

    @Test(dataProvider = "colours")
    public void onlyWhatCanBeReadIsPrinted(String accent, double contrast, boolean allowed) {
        assertThat(Accent.onWhite(accent)).isCloseTo(contrast, within(0.01));
        List<Problem> problems = new ArrayList<>();
        Accent.check("accent", accent, problems);
        assertThat(problems.isEmpty()).isEqualTo(allowed);
    }

    @Test
    public void whatIsNoColourIsNamed() {
        for (String wrong : List.of("red", "#12345", "#1234567", "}body{", "#gggggg")) {
            List<Problem> problems = new ArrayList<>();
            Accent.check("accent", wrong, problems);
            assertThat(problems).extracting(Problem::field).containsExactly("accent");
        }
    }
}
