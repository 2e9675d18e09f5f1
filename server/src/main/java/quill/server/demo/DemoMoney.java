package quill.server.demo;

import java.util.ArrayList;
import java.util.List;

/** Money of March that is not plainly there: a card payment that is contested, a bank debit that is on its way, payment links, a card that is asked for. */
final class DemoMoney {
    private DemoMoney() {}

    static List<DemoScript.Act> acts() {
        List<DemoScript.Act> acts = new ArrayList<>();
        acts.add(DemoScript.bill(
                "westerby-9",
                "2027-03-08",
                "Westerby Town Band",
                "pedals of the rehearsal upright",
                "100%@14",
                "Pedals rebushed and eased|1||172.73|21"));
        // Its holder contests it the next day: an answer is due within two weeks.
        acts.add(new DemoScript.Pays(DemoScript.on("2027-03-09"), "westerby-9", "first", "contests"));
        acts.add(DemoScript.bill(
                "pellworth-9",
                "2027-03-10",
                "Pellworth School of Music",
                "overhaul of the practice uprights",
                "100%@14",
                "Overhaul, practice upright|6||460.00|21"));
        acts.add(new DemoScript.Pays(DemoScript.on("2027-03-14"), "pellworth-9", "first", "debit"));
        acts.add(new DemoScript.ByLink(DemoScript.on("2027-03-02"), null, ""));
        acts.add(new DemoScript.ByLink(DemoScript.on("2027-03-05"), "Tamsin Orrell", "upright, about 1960"));
        acts.add(new DemoScript.ByLink(DemoScript.on("2027-03-12"), "Jory Penhale", "none yet"));
        acts.add(new DemoScript.Kept(DemoScript.on("2027-02-01"), null));
        acts.add(new DemoScript.Kept(DemoScript.on("2027-03-11"), "Dr A. Lindqvist"));
        return acts;
    }
}
