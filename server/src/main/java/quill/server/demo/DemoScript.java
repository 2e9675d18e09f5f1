package quill.server.demo;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import quill.core.id.ClientId;
import quill.server.clients.Client;
import quill.server.clients.ClientMore;
import quill.server.clients.Contact;

/** The script of the demo: made-up clients, what was done for them and how they paid. */
final class DemoScript {
    static final LocalDate BEGIN = LocalDate.of(2026, 9, 1);

    static final String[][] CLIENTS = {
        {"Captain’s House Hotel", "Imre Dahl", "accounts@captainshouse.example", "Quay Head\nLarkmoor"},
        {"Kestrel Theatre", "Wilma Orrey", "office@kestrel-theatre.example", "Dock Row 11\nWesterby"},
        {"Halden Bay Concert Hall", "Petra Lund", "finance@haldenbay.example", "Promenade 2\nHalden Bay"},
        {"St Brannoc’s School", "Hanne Orrel", "bursar@stbrannoc.example", "Chapel Hill\nLarkmoor"},
        {"Pellworth School of Music", "Ansel Reve", "ansel@pellworth.example", "Mill Street 30\nPellworth"},
        {"I. & T. Varga", "Ilka Varga", "ilka@varga.example", "Heron Walk 8\nWesterby"},
        {"Blue Heron Rooms", "Sef Marrick", "sef@blueheron.example", "Strand 5\nHalden Bay"},
        {"Marsh Lane Choir", "Dora Quill", "treasurer@marshlane.example", "Marsh Lane Hall\nLarkmoor"},
        {"Dr A. Lindqvist", "", "a.lindqvist@lindqvist.example", "Tollhouse\nPellworth"},
        {"Captain Lune’s Boats", "Bram Lune", "bram@lunesboats.example", "Slipway 1\nLarkmoor"},
        {"Rowan Ashdown", "", "rowan@ashdown.example", "Orchard End\nWesterby"},
        {"Nils & Ada Brandt", "Ada Brandt", "ada@brandt.example", "Ferry Road 19\nHalden Bay"},
        {"Westerby Town Band", "Otto Finch", "otto@westerbyband.example", "Band Room, Market Square\nWesterby"},
        {"The Lantern Café", "Mae Sorrel", "mae@lanterncafe.example", "Bridge Street 4\nPellworth"},
    };

    private DemoScript() {}

    /** A client of the script, with what is known of it besides. */
    static Client client(String[] c) {
        ClientMore more = switch (c[0]) {
            case "St Brannoc’s School" ->
                new ClientMore(
                        ClientMore.Kind.BUSINESS,
                        "S-3",
                        "+32 4 555 01 20",
                        "Music wing, Chapel Lane\nLarkmoor",
                        "",
                        45,
                        null,
                        List.of(),
                        List.of(
                                new Contact("Accounts office", "accounts@stbrannoc.example", "", false, true),
                                new Contact(
                                        "Edda Moss, music",
                                        "music@stbrannoc.example",
                                        "+32 4 555 01 27",
                                        false,
                                        false)),
                        "Rings the bell at ten: tune before.",
                        List.of("school", "yearly"));
            case "Pellworth School of Music" -> with("+32 4 555 03 30", 14, "school", "yearly");
            case "Halden Bay Concert Hall" -> with("+32 4 555 07 02", 30, "hall");
            case "Kestrel Theatre" -> with("+32 4 555 02 11", null, "hall");
            default -> ClientMore.NOTHING;
        };
        return new Client(ClientId.NEW, c[0], c[1], c[2], c[3], "BE", "", "", null, more, 1);
    }

    private static ClientMore with(String phone, Integer days, String... tags) {
        return new ClientMore(
                ClientMore.Kind.BUSINESS, "", phone, "", "", days, null, List.of(), List.of(), "", List.of(tags));
    }

    /** Something that happens on a day. */
    sealed interface Act permits Bill, Pays, TakenBack, Slip, Special, Sending, Offer, Job, ByLink, Kept {
        LocalDate on();
    }

    /** Work billed. @param lines description|quantity|unit|price|tax or with |discount @param terms share@days */
    record Bill(
            String name, LocalDate on, String client, String subject, String terms, boolean issued, List<String> lines)
            implements Act {}

    /** Payment links are made; or somebody pays through one. @param who null for the making @param instrument as filled in */
    record ByLink(LocalDate on, String who, String instrument) implements Act {}

    /** Cards and mandates are kept from now on; or a client is asked for one. @param client null for the first */
    record Kept(LocalDate on, String client) implements Act {}

    /** A client pays, and it is recorded on a day. @param dated its value date @param what first, all, or an amount @param way TRANSFER, CASH, CHEQUE, debit, keeps (a card that is kept), or a test card */
    record Pays(LocalDate on, String invoice, String what, String way, LocalDate dated) implements Act {
        /** Recorded on the day it came. */
        Pays(LocalDate on, String invoice, String what, String way) {
            this(on, invoice, what, way, on);
        }
    }

    /** An invoice taken back, perhaps with another in its place. */
    record TakenBack(LocalDate on, String invoice, String reason, String replacement) implements Act {}

    /** An invoice that is not of the everyday kind. @param what which one */
    record Special(LocalDate on, String what) implements Act {}

    /** How things are sent and paid is set, or something is sent otherwise. @param what which @param invoice may be empty */
    record Sending(LocalDate on, String what, String invoice) implements Act {}

    /** A quote, or what became of one. */
    record Offer(LocalDate on, String what) implements Act {}

    /** Larger work: a deposit, stages, installments that were picked or rearranged. */
    record Job(LocalDate on, String what) implements Act {}

    /** A transfer recorded wrongly and undone. */
    record Slip(LocalDate on, String invoice, String amount) implements Act {}

    static List<Act> acts() {
        List<Act> acts = new ArrayList<>();
        tunings(acts);
        projects(acts);
        lately(acts);
        acts.add(new Special(on("2026-10-12"), "organ"));
        acts.add(new Special(on("2026-11-05"), "infirmary"));
        acts.add(new Special(on("2026-11-17"), "lessons"));
        acts.add(new Special(on("2026-12-05"), "fair"));
        acts.add(new Special(on("2026-12-10"), "mistake"));
        acts.add(new Special(on("2026-12-15"), "recital"));
        acts.add(new Special(on("2027-03-12"), "harbour"));
        acts.add(new Sending(on("2027-03-13"), "rules", ""));
        acts.add(new Sending(on("2027-03-13"), "text", "lune-2"));
        acts.add(new Sending(on("2027-03-13"), "returned", "brandt-2"));
        acts.add(new Offer(on("2027-02-10"), "offer choir"));
        acts.add(new Offer(on("2027-02-19"), "offer upright"));
        acts.add(new Offer(on("2027-02-26"), "offer square"));
        acts.add(new Offer(on("2027-03-04"), "decline square"));
        acts.add(new Offer(on("2027-03-08"), "offer pit"));
        acts.add(new Offer(on("2027-03-09"), "offer regulation"));
        acts.add(new Offer(on("2027-03-11"), "revise regulation"));
        acts.add(new Offer(on("2027-03-12"), "ask regulation"));
        acts.add(new Offer(on("2027-03-13"), "accept upright"));
        acts.add(new Offer(on("2027-03-14"), "draft hire"));
        acts.addAll(DemoJobs.acts());
        acts.addAll(DemoMoney.acts());
        return acts;
    }

    /** The regular round: school, hall, hotel, café; most pay on time, the hotel never does. */
    private static void tunings(List<Act> acts) {
        String[] regular = {
            "Pellworth School of Music|6|Practice room uprights|52.00",
            "Halden Bay Concert Hall|2|Concert grand, before the concert|93.00",
            "The Lantern Café|1|House piano|74.00",
            "Westerby Town Band|1|Rehearsal upright|74.00",
        };
        for (int month = 0; month < 6; month++) {
            LocalDate day = LocalDate.of(2026, 9, 7).plusMonths(month);
            for (int i = 0; i < regular.length; i++) {
                String[] r = regular[i].split("\\|");
                String name = "round-" + month + "-" + i;
                acts.add(new Bill(
                        name,
                        day.plusDays(i),
                        r[0],
                        "tuning, "
                                + day.getMonth().getDisplayName(java.time.format.TextStyle.FULL, java.util.Locale.UK),
                        i == 1 ? "100%@30" : "100%@14",
                        true,
                        List.of(
                                "Tuning: " + r[2] + "|" + r[1] + "||" + r[3] + "|21",
                                "Travel|" + (18 + 7 * i) + "|km|0.62|21")));
                LocalDate paid = day.plusDays(i + (i == 1 ? 26 : 9 + month));
                if (paid.isBefore(LocalDate.of(2027, 3, 10))) {
                    acts.add(new Pays(
                            paid,
                            name,
                            "all",
                            i == 0 ? "TRANSFER" : i == 2 ? "approved" : i == 3 ? "CASH" : "TRANSFER"));
                }
            }
        }
    }

    private static void projects(List<Act> acts) {
        acts.add(bill(
                "varga-1",
                "2026-10-05",
                "I. & T. Varga",
                "restoration of an upright, strings",
                "d40%@0 rest@30",
                "Bass strings, wound by hand|32||24.50|21",
                "Fitting and chipping up|14.5|h|68.00|21|10%"));
        acts.add(new Pays(on("2026-10-07"), "varga-1", "first", "poor"));
        acts.add(new Pays(on("2026-10-07"), "varga-1", "first", "approved"));
        acts.add(new Pays(on("2026-11-20"), "varga-1", "all", "TRANSFER"));
        acts.add(bill(
                "brandt-1",
                "2026-10-19",
                "Nils & Ada Brandt",
                "hammers of a 1934 baby grand",
                "50%@0 50%@30",
                "Hammer heads, refelted|88||11.20|21",
                "Regulating and voicing|12|h|68.00|21"));
        acts.add(new Pays(on("2026-10-22"), "brandt-1", "first", "approved"));
        acts.add(new Pays(on("2026-11-16"), "brandt-1", "all", "approved"));
        acts.add(bill(
                "kestrel-1",
                "2026-11-02",
                "Kestrel Theatre",
                "pit piano, pedals",
                "100%@30",
                "Pedal lyre repaired|1||180.00|21"));
        acts.add(new Slip(on("2026-11-24"), "kestrel-1", "217.00"));
        acts.add(new Pays(on("2026-11-30"), "kestrel-1", "all", "TRANSFER"));
        acts.add(bill(
                "brannoc-1",
                "2026-11-18",
                "St Brannoc’s School",
                "four tunings",
                "100%@30",
                "Tuning, classroom upright|4||72.90|21"));
        acts.add(new TakenBack(on("2026-11-25"), "brannoc-1", "one of the four visits was not made", "brannoc-2"));
        acts.add(new Pays(on("2027-01-12"), "brannoc-2", "all", "TRANSFER"));
        acts.add(bill(
                "ashdown-1",
                "2026-12-01",
                "Rowan Ashdown",
                "soundboard of a 1911 upright, first stage",
                "d50%@0 rest@60",
                "Soundboard repair and re-crowning|1||1,650.00|21",
                "Method book, second hand|2||9.00|6"));
        acts.add(new Pays(on("2026-12-03"), "ashdown-1", "first", "approved"));
        acts.add(bill(
                "lune-1",
                "2026-12-14",
                "Captain Lune’s Boats",
                "saloon piano, moisture damage",
                "100%@30",
                "Drying and regulation|6|h|68.00|21"));
        acts.add(new Pays(on("2027-01-11"), "lune-1", "all", "CHEQUE"));
        acts.add(bill(
                "marsh-1",
                "2026-12-08",
                "Marsh Lane Choir",
                "Christmas tuning",
                "100%@14",
                "Tuning, hall upright|1||74.00|21"));
        acts.add(new Pays(on("2027-01-04"), "marsh-1", "100.00", "CASH"));
        acts.add(bill(
                "lind-1", "2027-01-08", "Dr A. Lindqvist", "voicing", "100%@14", "Voicing, salon grand|5|h|68.00|21"));
        acts.add(new Pays(on("2027-01-15"), "lind-1", "all", "approved"));
        acts.add(bill(
                "heron-1",
                "2027-01-11",
                "Blue Heron Rooms",
                "hire of an upright, January",
                "100%@14",
                "Hire, month|1||180.00|21"));
        acts.add(new TakenBack(on("2027-01-13"), "heron-1", "the hire began a month later", null));
        acts.add(bill(
                "ashdown-2",
                "2027-02-01",
                "Rowan Ashdown",
                "second stage, action",
                "100%@45",
                "Action parts|1||310.00|21",
                "Fitting|8|h|68.00|21"));
    }

    /** What is open on the demo's day: late, partly paid, due this week, later, and drafts. */
    private static void lately(List<Act> acts) {
        acts.add(bill(
                "hotel-1",
                "2027-01-29",
                "Captain’s House Hotel",
                "regulation of two grands",
                "d25%@0 50%@31 rest@57",
                "Full regulation, concert grand|1||1,620.00|21",
                "Full regulation, salon grand|1||1,280.00|21",
                "Travel|90|km|1.20|21"));
        acts.add(new Pays(on("2027-02-05"), "hotel-1", "first", "approved"));
        acts.add(bill(
                "heron-2",
                "2027-02-01",
                "Blue Heron Rooms",
                "hire of an upright, February",
                "100%@21",
                "Hire, month|1||180.00|21",
                "Delivery|1||246.45|21"));
        acts.add(new Pays(on("2027-02-26"), "heron-2", "100.00", "CASH"));
        acts.add(bill(
                "heron-3",
                "2027-02-22",
                "Blue Heron Rooms",
                "hire of an upright, March",
                "100%@14",
                "Hire, month|1||180.00|21",
                "Tuning after the move|1||74.00|21"));
        acts.add(bill(
                "varga-2",
                "2027-02-08",
                "I. & T. Varga",
                "restoration of an upright, action",
                "d40%@0 rest@30",
                "Action overhaul|1||920.00|21",
                "Key bushings|88||3.40|21|5%",
                "Sheet music, second hand|3||6.50|6"));
        acts.add(new Pays(on("2027-02-10"), "varga-2", "first", "refused"));
        acts.add(new Pays(on("2027-02-10"), "varga-2", "first", "keeps"));
        acts.add(bill(
                "marsh-2",
                "2027-02-24",
                "Marsh Lane Choir",
                "spring tuning",
                "100%@14",
                "Tuning, hall upright|1||74.00|21",
                "Sticking keys eased|1|h|68.00|21"));
        acts.add(bill(
                "cafe-9",
                "2027-02-16",
                "The Lantern Café",
                "new bass strings, house piano",
                "100%@14",
                "Bass string, wound by hand|12||24.50|21"));
        // Paid on the last day of grace, found in the bank's letter three days later: the fee should be waived.
        acts.add(new Pays(on("2027-03-12"), "cafe-9", "355.74", "TRANSFER", on("2027-03-09")));
        acts.add(bill(
                "halden-9",
                "2027-02-19",
                "Halden Bay Concert Hall",
                "the season’s tunings",
                "33.3333%@0 33.3333%@28 rest@59",
                "Concert tunings|18|visits|90.00|21",
                "Voicing before the festival|1||180.00|21"));
        acts.add(new Pays(on("2027-02-19"), "halden-9", "first", "approved"));
        acts.add(bill(
                "kestrel-2",
                "2027-03-02",
                "Kestrel Theatre",
                "restoration of a 1911 upright, No. 48820",
                "d40%@0 rest@30",
                "Soundboard repair and re-crowning|1||2,650.00|21",
                "Bass strings, wound by hand|32||24.50|21",
                "Regulating and voicing|14.5|h|68.00|21|10%",
                "Method book, second hand|2||9.00|6"));
        acts.add(new Pays(on("2027-03-04"), "kestrel-2", "first", "approved"));
        acts.add(bill(
                "lind-2",
                "2027-03-04",
                "Dr A. Lindqvist",
                "regulation, salon grand",
                "100%@14",
                "Full regulation|1||640.00|21"));
        acts.add(bill(
                "brannoc-3",
                "2027-03-05",
                "St Brannoc’s School",
                "three classroom pianos",
                "50%@14 50%@44",
                "Overhaul, classroom upright|3||300.00|21"));
        acts.add(bill(
                "lune-2",
                "2027-03-07",
                "Captain Lune’s Boats",
                "saloon piano, tuning",
                "100%@14",
                "Tuning|1||74.00|21",
                "Call-out by water|1||103.27|21"));
        acts.add(bill(
                "brandt-2",
                "2027-03-11",
                "Nils & Ada Brandt",
                "tuning and a new music desk",
                "100%@30",
                "Tuning|1||74.00|21",
                "Music desk, walnut|1||265.00|21"));
        acts.add(draft(
                "draft-1",
                "2027-03-12",
                "Kestrel Theatre",
                "stage piano, transport",
                "100%@30",
                "Transport, two men|3|h|95.00|21",
                "Tuning on stage|1||93.00|21"));
        acts.add(draft(
                "draft-2",
                "2027-03-12",
                "Marsh Lane Choir",
                "new bass strings",
                "d50%@0 rest@30",
                "Bass string, wound by hand|6||24.50|21"));
    }

    static Bill bill(String name, String on, String client, String subject, String terms, String... lines) {
        return new Bill(name, on(on), client, subject, terms, true, List.of(lines));
    }

    private static Bill draft(String name, String on, String client, String subject, String terms, String... lines) {
        return new Bill(name, on(on), client, subject, terms, false, List.of(lines));
    }

    static LocalDate on(String date) {
        return LocalDate.parse(date);
    }
}
