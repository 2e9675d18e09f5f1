package quill.server.formats;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;

/** Units as people write them, and their codes of UN/ECE Recommendation 20, of which EN 16931 takes one per line. */
final class UnitCodes {
    static final String ONE = "C62";
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
    private static final Map<String, String> WORDS = new HashMap<>(Map.of(
            "HUR", "h", "MIN", "min", "DAY", "days", "WEE", "weeks", "MON", "months", "KMT", "km", "MTR", "m", "KGM",
            "kg", "LTR", "l", "H87", "pieces"));

    static {
        WORDS.putAll(Map.of("MTK", "m2", "GRM", "g", "KWH", "kWh"));
    }

    private UnitCodes() {}

    /** The code of a unit; one that has none is counted in ones, and stands in the description. */
    static String code(String unit) {
        return CODES.getOrDefault(unit.strip().toLowerCase(Locale.ROOT), ONE);
    }

    /** Whether the unit says more than its code does. */
    static boolean isLost(String unit) {
        return !unit.isBlank() && ONE.equals(code(unit));
    }

    /** The unit of a code, in words; a code that is not known stays a code. */
    static String words(String code) {
        if (code == null || ONE.equals(code) || "EA".equals(code) || "XPP".equals(code)) {
            return "";
        }
        return WORDS.getOrDefault(code, code);
    }
}
