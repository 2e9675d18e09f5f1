package quill.core.catalogue;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Units as people write them, and their codes, of which EN 16931 takes one per line: UN/ECE Recommendation 20, and
 * packages of Recommendation 21 behind an X. All codes are those of rule BR-CL-23 of EN 16931, validation 1.3.16.
 */
public final class UnitCodes {
    /** One: what is counted in pieces of nothing said. */
    public static final String ONE = "C62";

    private static final Map<String, String> CODES = Map.ofEntries(
            Map.entry("h", "HUR"),
            Map.entry("hour", "HUR"),
            Map.entry("hours", "HUR"),
            Map.entry("min", "MIN"),
            Map.entry("day", "DAY"),
            Map.entry("days", "DAY"),
            Map.entry("week", "WEE"),
            Map.entry("weeks", "WEE"),
            Map.entry("month", "MON"),
            Map.entry("months", "MON"),
            Map.entry("km", "KMT"),
            Map.entry("m", "MTR"),
            Map.entry("m2", "MTK"),
            Map.entry("kg", "KGM"),
            Map.entry("g", "GRM"),
            Map.entry("l", "LTR"),
            Map.entry("pc", "H87"),
            Map.entry("piece", "H87"),
            Map.entry("pieces", "H87"),
            Map.entry("kwh", "KWH"));
    private static final Map<String, String> WORDS = Map.ofEntries(
            Map.entry("HUR", "h"),
            Map.entry("MIN", "min"),
            Map.entry("DAY", "days"),
            Map.entry("WEE", "weeks"),
            Map.entry("MON", "months"),
            Map.entry("KMT", "km"),
            Map.entry("MTR", "m"),
            Map.entry("KGM", "kg"),
            Map.entry("LTR", "l"),
            Map.entry("H87", "pieces"),
            Map.entry("MTK", "m2"),
            Map.entry("GRM", "g"),
            Map.entry("KWH", "kWh"));
    private static final Set<String> ALL = read();

    private UnitCodes() {}

    private static Set<String> read() {
        try (InputStream file = UnitCodes.class.getResourceAsStream("unit-codes.txt")) {
            return Set.of(new String(file.readAllBytes(), StandardCharsets.US_ASCII).split("\\s+"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether there is such a code, in capitals. */
    public static boolean isCode(String code) {
        return ALL.contains(code);
    }

    /** Whether a unit has a code without anybody giving it one. */
    public static boolean isKnown(String unit) {
        return CODES.containsKey(plain(unit));
    }

    /** The code of a unit; one that has none is counted in ones. */
    public static String code(String unit) {
        return CODES.getOrDefault(plain(unit), ONE);
    }

    /** Whether a unit says more than a code does, so that it has to stand in words beside. */
    public static boolean isLost(String unit, String code) {
        return !unit.isBlank() && !code.equals(CODES.get(plain(unit)));
    }

    /** The unit of a code, in words; a code that is not known stays a code. */
    public static String words(String code) {
        if (code == null || ONE.equals(code) || "EA".equals(code) || "XPP".equals(code)) {
            return "";
        }
        return WORDS.getOrDefault(code, code);
    }

    private static String plain(String unit) {
        return unit.strip().toLowerCase(Locale.ROOT);
    }
}
