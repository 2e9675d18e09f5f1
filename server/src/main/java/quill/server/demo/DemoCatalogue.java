package quill.server.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.catalogue.TypedBundle;
import quill.core.catalogue.TypedBundle.BundlePart;
import quill.core.catalogue.TypedItem;
import quill.server.catalogue.CatalogueService;

/** What the workshop sells again and again. */
@Component
class DemoCatalogue {
    /** code|description|unit|price|pounds|tax|serial|stock|warn */
    private static final String[] ITEMS = {
        "T-GRAND|Concert tuning||93.00|82.00|high|||",
        "T-UP|Tuning, upright||74.00||high|||",
        "REG|Regulating and voicing|h|68.00|60.00|high|||",
        "REPIN|Repinning, per section||310.00||high|||",
        "STR-B|Bass string, wound by hand||24.50||high||26|12",
        "STR-T|Treble wire, per note||6.80||high||140|40",
        "HAM|Hammer head, refelted||11.20||high||9|16",
        "PIN|Tuning pin, oversize||1.35||high||312|100",
        "KM|Travel|km|0.62||high|||",
        "HIRE-U|Hire of an upright, a month|month|58.00||high|yes||",
        "BOOK|Method book, second hand||9.00||low||14|3",
        "HUM|Humidity control, fitted||265.00||high|yes|2|1",
    };

    private final CatalogueService catalogue;

    DemoCatalogue(CatalogueService catalogue) {
        this.catalogue = catalogue;
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
