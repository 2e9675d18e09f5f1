package quill.server.common;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;

/** Names that anybody on the public page may type. */
public class TextsTest {
    @DataProvider
    public Object[][] names() {
        return new Object[][] {
            {"  Zoë Ørsted ", null},
            {"عمر", null},
            {"Ann\u200Dika", null},
            {"", "must not be empty"},
            {" \u00A0\u3000 ", "must not be empty"},
            {"\u200B\u2060\uFEFF", "must not be empty"},
            // UAX 9: what follows it would be read from right to left, in whatever line the name stands.
            {"\u202Ekcab", "must be one line, without control characters"},
            {"Pip \u2067Wren", "must be one line, without control characters"},
            {"Pip\nWren", "must be one line, without control characters"},
        };
    }

    @Test(dataProvider = "names")
    public void aNameIsSeenAndIsOneLine(String typed, String problem) {
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("name", typed, 120, true, problems);
        if (problem == null) {
            assertThat(problems).isEmpty();
            assertThat(name).isEqualTo(typed.strip());
        } else {
            assertThat(problems).extracting(Problem::message).contains(problem);
        }
    }
}
