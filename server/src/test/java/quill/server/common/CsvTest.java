package quill.server.common;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a spreadsheet takes for a formula stays a text. */
public class CsvTest {
    @DataProvider
    public Object[][] texts() {
        return new Object[][] {
            {"Rowan Ashdown", "Rowan Ashdown"},
            {"=1+1", "'=1+1"},
            {"+49 30", "'+49 30"},
            {"-x", "'-x"},
            {"@sum", "'@sum"},
            {"＝1＋1", "'＝1＋1"},
            {"＠sum", "'＠sum"},
            {"A\n=1+1", "A =1+1"}, // no line of its own, so nothing begins there
            {"\n=1+1", "'=1+1"},
            {"2 - 1", "2 - 1"},
        };
    }

    @Test(dataProvider = "texts")
    public void aTextThatBeginsLikeAFormulaIsToldToBeText(String typed, String cell) {
        assertThat(Csv.text(typed)).isEqualTo(cell);
    }

    @Test
    public void aFileIsReadAsUtf8() {
        byte[] file = Csv.file("a.csv", List.of(List.of("client"), List.of("東京, \"ピアノ\"")))
                .getBody();
        assertThat(new String(file, StandardCharsets.UTF_8)).isEqualTo("\ufeffclient\r\n\"東京, \"\"ピアノ\"\"\"\r\n");
    }
}
