package quill.server.business;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Locale;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;

/** What is usual in a country. Currencies: ISO 4217; public holidays of Belgium: law of 4 January 1974, article 1. */
public class CountriesTest {
    @DataProvider
    public Object[][] countries() {
        return new Object[][] {
            {"BE", "EUR", "Europe/Brussels", ","},
            {"GB", "GBP", "Europe/London", "."},
            {"IE", "EUR", "Europe/Dublin", "."},
            {"SE", "SEK", "Europe/Stockholm", ","},
            {"JP", "JPY", "Asia/Tokyo", "."},
            {"US", "USD", "", "."},
        };
    }

    @Test(dataProvider = "countries")
    public void currencyZoneAndMarkAreProposed(String country, String currency, String zone, String mark) {
        assertThat(Countries.of(country)).isEqualTo(new Countries.Usual(currency, zone, mark));
    }

    @Test
    public void everyCountryIsAnsweredAndNonsenseIsRefused() {
        for (String country : Locale.getISOCountries()) {
            Countries.Usual usual = Countries.of(country);
            assertThat(usual.currency()).hasSize(3);
            if (!usual.zone().isEmpty()) {
                assertThat(ZoneId.of(usual.zone())).isNotNull();
            }
        }
        assertThatThrownBy(() -> Countries.of("XX")).isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> Countries.of("")).isInstanceOf(RefusedException.class);
    }

    @Test
    public void publicHolidaysAreThoseOfTheLaw() {
        PublicHolidays holidays = new PublicHolidays();
        assertThat(holidays.of("BE", 2027, 2027))
                .contains(
                        LocalDate.of(2027, 1, 1),
                        LocalDate.of(2027, 3, 29), // Easter Monday
                        LocalDate.of(2027, 5, 6), // Ascension
                        LocalDate.of(2027, 7, 21),
                        LocalDate.of(2027, 12, 25))
                .hasSizeBetween(10, 12);
        assertThat(holidays.of("XX", 2027, 2028)).isEmpty();
        assertThat(holidays.knows("XX")).isFalse();
    }
}
