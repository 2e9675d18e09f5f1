package quill.server.business;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.text.DecimalFormatSymbols;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Properties;
import quill.core.RefusedException;

/** What is usual in a country, to be proposed: currency and decimal mark as Java knows them, the zone by the tz database. */
public final class Countries {
    private static final Properties ZONES = zones();

    private Countries() {}

    /** @param currency ISO 4217 @param zone IANA name, empty where there are several @param mark the decimal mark */
    public record Usual(String currency, String zone, String mark) {}

    /** What is usual. @throws RefusedException naming {@code country} where it is none of ISO 3166-1 */
    public static Usual of(String country) {
        if (!Locale.getISOCountries(Locale.IsoCountryCode.PART1_ALPHA2).contains(country)) {
            throw new RefusedException("country", country, "must be a country of two letters, such as BE");
        }
        Currency currency = Currency.getInstance(new Locale("", country));
        return new Usual(
                currency == null ? "EUR" : currency.getCurrencyCode(), ZONES.getProperty(country, ""), mark(country));
    }

    /** By the English of the country where it has one, else by its first language: a country has one mark, mostly. */
    private static String mark(String country) {
        List<Locale> there = List.of(Locale.getAvailableLocales()).stream()
                .filter(l -> l.getCountry().equals(country))
                .sorted((a, b) -> a.toLanguageTag().compareTo(b.toLanguageTag()))
                .toList();
        Locale one = there.stream()
                .filter(l -> l.getLanguage().equals("en"))
                .findFirst()
                .orElse(there.isEmpty() ? Locale.ENGLISH : there.get(0));
        return DecimalFormatSymbols.getInstance(one).getDecimalSeparator() == ',' ? "," : ".";
    }

    private static Properties zones() {
        Properties zones = new Properties();
        try (InputStream in = Countries.class.getResourceAsStream("/zones.properties")) {
            zones.load(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return zones;
    }
}
