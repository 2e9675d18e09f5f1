package quill.server.demo;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedOffer;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.clients.Client;
import quill.server.documents.Document;
import quill.server.quotes.Answering;
import quill.server.quotes.QuoteSending;
import quill.server.quotes.QuoteViews;
import quill.server.quotes.QuotesService;

/** Quotes of the demo: one in every state, played as its clients and its owner would. */
@Component
class DemoQuotes {
    private static final String CONDITIONS =
            "<p>Where a deposit is agreed, work begins when it has come. The instrument is insured while"
                    + " it is with us.</p><ul><li>Parts that are replaced are given back on request.</li><li>What is found"
                    + " while the action is out is told before it is done.</li></ul>";
    /** An address for examples (RFC 5737). */
    private static final String ADDRESS = "203.0.113.17";

    private final Map<String, DocumentId> byName = new HashMap<>();
    private final QuotesService quotes;
    private final QuoteSending sending;
    private final QuoteViews views;
    private final Answering answering;
    private DemoBeginning.Begun begun;

    DemoQuotes(QuotesService quotes, QuoteSending sending, QuoteViews views, Answering answering) {
        this.quotes = quotes;
        this.sending = sending;
        this.views = views;
        this.answering = answering;
    }

    /** @param what is done: {@code offer} and the name of a quote, or what became of it */
    void play(String what, DemoBeginning.Begun with) {
        begun = with;
        switch (what) {
            case "offer choir" -> choir();
            case "offer upright" -> upright();
            case "accept upright" -> asClient(() -> accept("upright", "Ada Brandt", 1));
            case "offer square" -> square();
            case "decline square" ->
                asClient(() -> answering.decline(quote("square"), "We will wait until the autumn.", ADDRESS));
            case "offer pit" -> pit();
            case "offer regulation" -> regulation("31 Mar", "1150.00");
            case "ask regulation" ->
                asClient(() -> answering.ask(quote("regulation"), "Would you come on a Saturday for it?"));
            case "revise regulation" -> revise();
            case "draft hire" -> hire();
            default -> throw new IllegalArgumentException(what);
        }
    }

    private static void asClient(Runnable act) {
        var owner = SecurityContextHolder.getContext().getAuthentication();
        SecurityContextHolder.clearContext();
        try {
            act.run();
        } finally {
            SecurityContextHolder.getContext().setAuthentication(owner);
        }
    }

    private Document quote(String name) {
        return quotes.quote(byName.get(name));
    }

    private void accept(String name, String signature, Integer... ticked) {
        Document quote = quote(name);
        String seal = views.page(quote, List.of(ticked)).seal();
        answering.accept(quote, new Answering.Acceptance(signature, List.of(ticked), seal), ADDRESS);
    }

    private TypedLine line(String what, String quantity, String unit, String price, String choice) {
        return new TypedLine(
                what,
                quantity,
                unit,
                price,
                "",
                List.of(begun.taxes().get("21")),
                null,
                null,
                null,
                DemoCatalogue.categoryOf(what),
                choice,
                null);
    }

    private TypedDraft draft(String client, String subject, String until, List<TypedLine> lines, TypedTerm... terms) {
        Client of = begun.clients().get(client);
        return TypedDraft.in("EUR")
                .client(of.id())
                .subject(subject)
                .lines(lines)
                .schedule(List.of(terms))
                .offer(new TypedOffer(until, CONDITIONS))
                .build();
    }

    private void send(String name, TypedDraft typed) {
        DocumentId id = quotes.begin(typed);
        sending.send(id, 1, "first", null);
        byName.put(name, id);
    }

    private void choir() {
        send(
                "choir",
                draft(
                        "Marsh Lane Choir",
                        "a new set of dampers",
                        "+21",
                        List.of(line("Dampers, refelted", "1", "set", "410.00", null)),
                        new TypedTerm(false, "rest", "30")));
    }

    private void upright() {
        send(
                "upright",
                draft(
                        "Nils & Ada Brandt",
                        "the restoration of your upright",
                        "+40",
                        List.of(
                                line("Action, cleaned and re-felted", "1", "", "980.00", null),
                                line("Castors with brakes", "1", "", "126.00", "ticked"),
                                line("Yearly tuning, first visit", "1", "", "93.00", "unticked")),
                        new TypedTerm(true, "40%", "0"),
                        new TypedTerm(false, "30%", "at strings on + 14"),
                        new TypedTerm(false, "rest", "at delivery")));
    }

    private void square() {
        send(
                "square",
                draft(
                        "Dr A. Lindqvist",
                        "the case of the square piano",
                        "+30",
                        List.of(line("Case, stripped and French polished", "1", "", "1640.00", null)),
                        new TypedTerm(true, "50%", "0"),
                        new TypedTerm(false, "rest", "30")));
    }

    private void pit() {
        send(
                "pit",
                draft(
                        "Kestrel Theatre",
                        "the pit piano, before the season",
                        "17 Mar",
                        List.of(
                                line("Regulation, whole", "6", "h", "84.00", null),
                                line("Hammer heads, reshaped", "1", "set", "190.00", "ticked")),
                        new TypedTerm(false, "rest", "30")));
    }

    private TypedDraft regulationDraft(String until, String price) {
        return draft(
                "I. & T. Varga",
                "regulation of the baby grand",
                until,
                List.of(line("Regulation, whole", "1", "", price, null)),
                new TypedTerm(false, "equal", "0"),
                new TypedTerm(false, "equal", "monthly"));
    }

    private void regulation(String until, String price) {
        send("regulation", regulationDraft(until, price));
    }

    private void revise() {
        DocumentId later = quotes.revise(byName.get("regulation"));
        quotes.keep(later, 1, regulationDraft("15 Apr", "1090.00"));
        sending.send(later, 2, "first", null);
        byName.put("regulation", later);
    }

    private void hire() {
        quotes.begin(draft(
                "Rowan Ashdown",
                "hire of an upright for the summer",
                "+30",
                List.of(line("Hire of an upright, a month", "3", "", "58.00", null)),
                new TypedTerm(false, "equal", "0"),
                new TypedTerm(false, "equal", "monthly"),
                new TypedTerm(false, "equal", "monthly")));
    }
}
