package quill.server.demo;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.catalogue.TypedBundle;
import quill.core.catalogue.TypedBundle.BundlePart;
import quill.core.catalogue.TypedItem;
import quill.server.catalogue.CatalogueService;

/** What the workshop sells again and again. */
@Component
class DemoCatalogue {
    /** code|description|unit|price|pounds|tax|serial|stock|warn|category of income */
    private static final String[] ITEMS = {
        "T-GRAND|Concert tuning||93.00|82.00|high||||Tuning and care",
        "T-UP|Tuning, upright||74.00||high||||Tuning and care",
        "REG|Regulating and voicing|h|68.00|60.00|high||||Tuning and care",
        "REPIN|Repinning, per section||310.00||high||||Restoration",
        "STR-B|Bass string, wound by hand||24.50||high||26|12|Strings and parts",
        "STR-T|Treble wire, per note||6.80||high||140|40|Strings and parts",
        "HAM|Hammer head, refelted||11.20||high||9|16|Strings and parts",
        "PIN|Tuning pin, oversize||1.35||high||312|100|Strings and parts",
        "KM|Travel|km|0.62||high||||Travel",
        "HIRE-U|Hire of an upright, a month|month|58.00||high|yes|||Hire",
        "BOOK|Method book, second hand||9.00||low||14|3|Strings and parts",
        "HUM|Humidity control, fitted||265.00||high|yes|2|1|Strings and parts",
    };

    private static final Map<String, String> CATEGORIES = new LinkedHashMap<>();

    static {
        CATEGORIES.put("Hire", "hire");
        CATEGORIES.put("Travel", "travel transport delivery call-out");
        CATEGORIES.put("Strings and parts", "string hammer parts bushing desk book sheet");
        CATEGORIES.put("Tuning and care", "tuning voicing regulat keys");
        CATEGORIES.put("Restoration", "overhaul soundboard repin lyre fitting");
    }

    private final CatalogueService catalogue;

    DemoCatalogue(CatalogueService catalogue) {
        this.catalogue = catalogue;
    }

    /** The category of income of a line of the demo, by what it says; empty for what has none. */
    static String categoryOf(String line) {
        String words = line.toLowerCase(Locale.ROOT);
        return CATEGORIES.entrySet().stream()
                .filter(c -> Arrays.stream(c.getValue().split(" ")).anyMatch(words::contains))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("");
    }

    /** @param high id of the usual tax @param low id of the lower one */
    void fill(String high, String low) {
        List<Long> ids = new ArrayList<>();
        for (String row : ITEMS) {
            String[] c = row.split("\\|", -1);
            Map<String, String> prices = c[4].isEmpty() ? Map.of("EUR", c[3]) : Map.of("EUR", c[3], "GBP", c[4]);
            ids.add(catalogue.make(new TypedItem(
                    c[0],
                    c[1],
                    c[2],
                    prices,
                    List.of(c[5].equals("low") ? low : high),
                    c[9],
                    c[6].equals("yes"),
                    c[7],
                    c[8])));
        }
        catalogue.keep(
                0,
                0,
                new TypedBundle(
                        "Yearly care of an upright",
                        List.of(
                                new BundlePart(ids.get(1), "2"),
                                new BundlePart(ids.get(2), "1.5"),
                                new BundlePart(ids.get(8), "36"))));
        catalogue.keep(
                0,
                0,
                new TypedBundle(
                        "New bass strings",
                        List.of(new BundlePart(ids.get(4), "32"), new BundlePart(ids.get(2), "6"))));
    }
}
