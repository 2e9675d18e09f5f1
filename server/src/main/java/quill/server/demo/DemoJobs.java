package quill.server.demo;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedInstallmentOffer;
import quill.core.document.TypedOffer;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.arranging.Arrangements;
import quill.server.common.BusinessClock;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Slip;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.PaymentsService;
import quill.server.publicpages.Picking;
import quill.server.quotes.Answering;
import quill.server.quotes.QuoteInvoicing;
import quill.server.quotes.QuoteSending;
import quill.server.quotes.QuotesService;

/** Larger work of the demo: a restoration in stages after a deposit, twelve installments that were picked, some rearranged. */
@Component
class DemoJobs {
    /** An address for examples (RFC 5737). */
    private static final String ADDRESS = "203.0.113.21";

    private final Map<String, DocumentId> byName = new HashMap<>();
    private final Quoting quoting;
    private final InvoicesService invoices;
    private final DispatchService dispatch;
    private final PaymentsService payments;
    private final Picking picking;
    private final Arrangements arrangements;
    private final BusinessClock clock;
    private DemoBeginning.Begun begun;

    DemoJobs(
            Quoting quoting,
            InvoicesService invoices,
            DispatchService dispatch,
            PaymentsService payments,
            Picking picking,
            Arrangements arrangements,
            BusinessClock clock) {
        this.quoting = quoting;
        this.invoices = invoices;
        this.dispatch = dispatch;
        this.payments = payments;
        this.picking = picking;
        this.arrangements = arrangements;
        this.clock = clock;
    }

    /** All of it, by days. */
    static List<DemoScript.Act> acts() {
        return Stream.of(
                        "2027-02-03 offer player",
                        "2027-02-05 accept player",
                        "2027-02-05 six",
                        "2027-02-09 deposit player",
                        "2027-02-12 first of six",
                        "2027-02-12 twelve",
                        "2027-02-14 picks twelve",
                        "2027-02-15 rest of the deposit for player",
                        "2027-02-24 reed organ",
                        "2027-02-26 first of twelve",
                        "2027-03-08 stage of player",
                        "2027-03-09 more time for the reed organ",
                        "2027-03-12 part of the second of six")
                .<DemoScript.Act>map(a -> new DemoScript.Job(LocalDate.parse(a.substring(0, 10)), a.substring(11)))
                .toList();
    }

    /** What is done with quotes. */
    @Component
    record Quoting(QuotesService quotes, QuoteSending sending, Answering answering, QuoteInvoicing invoicing) {}

    /** @param what is done */
    void play(String what, DemoBeginning.Begun with) {
        begun = with;
        switch (what) {
            case "offer player" -> offerPlayer();
            case "accept player" ->
                quoting.answering()
                        .acceptByHand(
                                quote("player"),
                                new Answering.Acceptance("Rowan Ashdown, on the telephone", List.of(), null));
            case "deposit player" -> pay("player", "2000.00");
            case "rest of the deposit for player" -> pay("player", "1236.48");
            case "stage of player" -> stage();
            case "twelve" -> twelve();
            case "picks twelve" -> pick();
            case "first of twelve" -> pay("twelve", "157.50");
            case "six" -> six();
            case "first of six" -> pay("six", "314.60");
            case "part of the second of six" -> pay("six", "150.00");
            case "reed organ" -> reed();
            case "more time for the reed organ" -> rearrange();
            default -> throw new IllegalArgumentException(what);
        }
    }

    private Document quote(String name) {
        return quoting.quotes().quote(byName.get(name));
    }

    private static TypedTerm term(boolean deposit, String share, String days) {
        return new TypedTerm(deposit, share, days);
    }

    private TypedLine line(String what, String quantity, String unit, String price, String tax) {
        return new TypedLine(
                what,
                quantity,
                unit,
                price,
                "",
                List.of(begun.taxes().get(tax)),
                null,
                null,
                null,
                DemoCatalogue.categoryOf(what));
    }

    private void offerPlayer() {
        DocumentId id = quoting.quotes()
                .begin(TypedDraft.in("EUR")
                        .client(begun.clients().get("Rowan Ashdown").id())
                        .subject("the restoration of your player piano")
                        .lines(List.of(
                                line("Pneumatic stack, re-covered", "1", "", "4260.00", "21"),
                                line("Keybed levelled, keys re-bushed", "1", "", "1150.00", "21"),
                                line("Music rolls, copied", "12", "pc", "38.50", "6")))
                        .schedule(List.of(
                                term(true, "46%", "0"),
                                term(false, "30%", "at stack on + 14"),
                                term(false, "rest", "at delivery + 14")))
                        .offer(new TypedOffer("+30", "<p>Where a deposit is agreed, work begins when it has come.</p>"))
                        .build());
        quoting.sending().send(id, 1, "first", null);
        byName.put("player", id);
    }

    private void stage() {
        DocumentId draft = quoting.invoicing()
                .begin(byName.get("player"), new QuoteInvoicing.ToBill("percent", "30%", new ArrayList<>()));
        dispatch.issueAndSend(draft, 1);
    }

    private void pay(String name, String amount) {
        DocumentId id = byName.get(name);
        payments.record(new PaymentsService.Recorded(
                "demo-jobs-" + name + "-" + clock.today(),
                invoiceOrQuote(name).clientId(),
                id,
                "TRANSFER",
                amount,
                clock.today().toString(),
                ""));
    }

    private Document invoiceOrQuote(String name) {
        return name.equals("player") ? quote(name) : invoices.invoice(byName.get(name));
    }

    private void bill(String name, TypedDraft typed) {
        DocumentId id = invoices.begin(typed);
        dispatch.issueAndSend(id, 1);
        byName.put(name, id);
    }

    private void twelve() {
        bill(
                "twelve",
                TypedDraft.in("EUR")
                        .client(begun.clients().get("Nils & Ada Brandt").id())
                        .subject("the new action of the practice piano")
                        .supplyDate(clock.today().minusDays(4).toString())
                        .lines(List.of(line("Action, renewed", "1", "", "1561.98", "21")))
                        .schedule(List.of(term(false, "rest", "30")))
                        .plan(new TypedInstallmentOffer("12", "28 Feb", "5%", false))
                        .build());
    }

    /** As the client, on its page. */
    private void pick() {
        var owner = SecurityContextHolder.getContext().getAuthentication();
        SecurityContextHolder.clearContext();
        try {
            Document invoice = invoices.invoice(byName.get("twelve"));
            picking.pick(invoice, 12, Money.ofMinor(CurrencyUnit.EUR, invoice.openMinor()), ADDRESS);
        } finally {
            SecurityContextHolder.getContext().setAuthentication(owner);
        }
    }

    private void six() {
        List<TypedTerm> terms = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            terms.add(term(false, "equal", i == 0 ? "12 Feb" : "monthly"));
        }
        bill(
                "six",
                TypedDraft.in("EUR")
                        .client(begun.clients().get("Dr A. Lindqvist").id())
                        .subject("new strings and pins for the salon grand")
                        .supplyDate(clock.today().minusDays(1).toString())
                        .lines(List.of(
                                line("Restringing, bass and treble", "1", "", "1180.00", "21"),
                                line("Tuning pins, renewed", "1", "set", "380.00", "21")))
                        .schedule(terms)
                        .build());
    }

    private void reed() {
        bill(
                "reed",
                TypedDraft.in("EUR")
                        .client(begun.clients().get("Marsh Lane Choir").id())
                        .subject("the bellows of the reed organ")
                        .supplyDate(clock.today().minusDays(2).toString())
                        .lines(List.of(line("Bellows, re-leathered", "1", "", "720.00", "21")))
                        .schedule(List.of(term(false, "50%", "14"), term(false, "rest", "44")))
                        .build());
    }

    private void rearrange() {
        arrangements.rearrange(
                byName.get("reed"),
                new Arrangements.Rearrangement(
                        List.of(
                                term(false, "equal", "20 Mar"),
                                term(false, "equal", "monthly"),
                                term(false, "equal", "at delivery + 14")),
                        "asked for by the treasurer",
                        null),
                Slip.PLAIN);
    }
}
