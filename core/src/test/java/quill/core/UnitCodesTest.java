package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.catalogue.UnitCodes;

/** Units and their codes of UN/ECE Recommendation 20; each known unit is checked against the published list. */
public class UnitCodesTest {
    @DataProvider
    public Object[][] units() {
        return new Object[][] {
            {"h", "HUR", "h"},
            {" Hours ", "HUR", "h"},
            {"min", "MIN", "min"},
            {"day", "DAY", "days"},
            {"week", "WEE", "weeks"},
            {"month", "MON", "months"},
            {"km", "KMT", "km"},
            {"m", "MTR", "m"},
            {"m2", "MTK", "m2"},
            {"kg", "KGM", "kg"},
            {"g", "GRM", "g"},
            {"l", "LTR", "l"},
            {"piece", "H87", "pieces"},
            {"KWH", "KWH", "kWh"},
            {"crate", "C62", ""},
            {"", "C62", ""},
        };
    }

    @Test(dataProvider = "units")
    public void aUnitHasACodeOfTheList(String unit, String code, String words) {
        assertThat(UnitCodes.code(unit)).isEqualTo(code);
        assertThat(UnitCodes.isCode(code)).isTrue();
        assertThat(UnitCodes.words(code)).isEqualTo(words);
    }

    @Test
    public void aUnitStandsInWordsWhereItsCodeSaysLess() {
        assertThat(UnitCodes.isLost("h", "HUR")).isFalse();
        assertThat(UnitCodes.isLost("", "C62")).isFalse();
        assertThat(UnitCodes.isLost("crate", "C62")).isTrue();
        assertThat(UnitCodes.isLost("session", "E48")).isTrue();
    }

    @Test
    public void codesAreThoseOfTheListInCapitals() {
        assertThat(UnitCodes.isCode("E48")).isTrue();
        assertThat(UnitCodes.isCode("XPP")).isTrue();
        assertThat(UnitCodes.isCode("hur")).isFalse();
        assertThat(UnitCodes.isCode("")).isFalse();
        assertThat(UnitCodes.isCode("QQQ")).isFalse();
    }
}
