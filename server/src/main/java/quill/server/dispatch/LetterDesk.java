package quill.server.dispatch;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.letter.FieldSet;
import quill.core.letter.Filled;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.core.letter.TextLength;
import quill.core.letter.Wording;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.dispatch.LetterCases.LetterCase;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Phrases;
import quill.server.letters.SampleFacts;
import quill.server.letters.Wordings;
import quill.server.letters.Written;

/** Shows what a wording would say, with what is in the books today, before it is used. */
@Service
public class LetterDesk {
    private final List<LetterCases> sources;
    private final Wordings wordings;
    private final LetterWriting writing;
    private final WaysToPay ways;
    private final BusinessService business;
    private final ClientsService clients;
    private final MessageQueue queue;
    private final Phrases phrases;

    LetterDesk(
            List<LetterCases> sources,
            Wordings wordings,
            LetterWriting writing,
            WaysToPay ways,
            BusinessService business,
            ClientsService clients,
            MessageQueue queue,
            Phrases phrases) {
        this.sources = sources;
        this.wordings = wordings;
        this.writing = writing;
        this.ways = ways;
        this.business = business;
        this.clients = clients;
        this.queue = queue;
        this.phrases = phrases;
    }

    /** A client with whom a letter can be looked at. */
    public record ClientChoice(ClientId id, String name) {}

    /**
     * A wording with a real occasion.
     *
     * @param about which occasion; where there is none yet, that it is made up
     * @param choices clients of whom there is an occasion
     * @param notes what to know before it is used, each a sentence
     */
    public record LetterPreview(
            String about, List<ClientChoice> choices, String subject, String text, String html, List<String> notes) {}

    /**
     * Looks at a wording.
     *
     * @param clientId with whom; null for the latest occasion
     * @throws quill.core.RefusedException with everything that is wrong with the wording
     */
    @Transactional(readOnly = true, isolation = Isolation.SERIALIZABLE)
    public LetterPreview preview(LetterKind kind, String subject, String body, ClientId clientId) {
        Wording wording = wordings.read(kind, subject, body);
        List<LetterCase> all = source(kind).latest(kind, null);
        LetterCase one = clientId == null ? all.stream().findFirst().orElse(null) : occasion(kind, clientId);
        LetterFacts facts = facts(kind, one);
        Filled filled = writing.filled(kind, wording, facts, LetterWriting.ThisOnce.NOTHING);
        Written written = writing.draw(kind, filled, facts);
        return new LetterPreview(
                about(one, clientId),
                choices(all),
                kind.hasSubject() ? written.subject() : "",
                kind.isOnPage() ? filled.text() : written.text(),
                kind.isOnPage() ? "" : SquareCode.into(written.html(), written.code()),
                notes(kind, wording, all, written.text()));
    }

    private LetterCases source(LetterKind kind) {
        return sources.stream().filter(s -> s.writes(kind)).findFirst().orElseThrow();
    }

    private LetterCase occasion(LetterKind kind, ClientId clientId) {
        return source(kind).latest(kind, clientId).stream().findFirst().orElse(null);
    }

    private LetterFacts facts(LetterKind kind, LetterCase one) {
        return one == null
                ? SampleFacts.of(kind, business.business())
                : one.facts().get();
    }

    /**
     * Sends a wording to the business itself, as it would arrive; it is no letter to anybody.
     *
     * @throws quill.core.RefusedException with everything that is wrong with the wording, or for what is said on a page
     */
    @Transactional
    public void trial(LetterKind kind, String subject, String body, ClientId clientId) {
        if (kind.isOnPage()) {
            throw new RefusedException("kind", kind.name(), "is said on a page, and sent to nobody");
        }
        Wording wording = wordings.read(kind, subject, body);
        LetterFacts facts = facts(kind, occasion(kind, clientId));
        Written written =
                writing.draw(kind, writing.filled(kind, wording, facts, LetterWriting.ThisOnce.NOTHING), facts);
        String head = phrases.say("trial", Map.of("subject", written.subject()));
        queue.add(MessageDraft.toOneself(business.business().email(), head, written), Slip.PLAIN);
    }

    private String about(LetterCase one, ClientId clientId) {
        if (one != null) {
            return one.about();
        }
        return clientId == null
                ? "Made up: there is no occasion for this letter in the books yet."
                : "Made up: there is no occasion for this letter with "
                        + clients.client(clientId).name() + ".";
    }

    private List<ClientChoice> choices(List<LetterCase> cases) {
        Map<ClientId, Client> byId =
                clients.some(cases.stream().map(LetterCase::clientId).distinct().toList());
        return cases.stream()
                .map(LetterCase::clientId)
                .distinct()
                .filter(byId::containsKey)
                .map(id -> new ClientChoice(id, byId.get(id).name()))
                .toList();
    }

    private List<String> notes(LetterKind kind, Wording wording, List<LetterCase> cases, String text) {
        FieldSet fields = wordings.fields(kind);
        List<String> notes = new ArrayList<>();
        LetterField leads = kind.isText() ? LetterField.PAGE : LetterField.HOW_TO_PAY;
        boolean paying = wording.used(fields).contains(leads.title());
        if (kind.isText()) {
            notes.add(length(text));
        }
        if (kind.asksForMoney() && !paying) {
            notes.add("This letter asks for money and offers no way to pay it: {" + leads.title() + "} is missing.");
        } else if (kind.asksForMoney()
                && !ways.of(Money.of(CurrencyUnit.of(business.business().currency()), 1), null, null)
                        .any()) {
            notes.add("No way to pay is set up: its button leads to a page where nothing can be paid.");
        }
        Map<String, Integer> empty = empty(wording, fields, cases);
        empty.forEach((title, count) -> {
            List<String> without = wording.without(title, fields);
            notes.add("“" + title + "” is empty in " + count + " of the " + cases.size()
                    + (cases.size() == 1 ? " letter" : " letters")
                    + " that this would be now. Left out there: “" + String.join("”, “", without) + "”");
        });
        return notes;
    }

    private static String length(String text) {
        TextLength length = TextLength.of(text);
        String parts = length.parts() == 1 ? "one part" : length.parts() + " parts, each paid for";
        return "With this occasion it is " + length.characters() + " characters, in " + parts + "."
                + (length.plain()
                        ? ""
                        : " A character that is not in a telephone’s alphabet halves what a part holds.");
    }

    /** In how many of the letters a field is empty, of those within a sentence; what stands alone just is not there. */
    private static Map<String, Integer> empty(Wording wording, FieldSet fields, List<LetterCase> cases) {
        Map<String, Integer> empty = new LinkedHashMap<>();
        List<String> watched = fields.all().stream()
                .filter(f -> f.shape() == LetterField.Shape.WORDS && !f.oftenEmpty())
                .map(FieldSet.Offered::title)
                .filter(wording.used(fields)::contains)
                .toList();
        if (watched.isEmpty()) {
            return empty;
        }
        for (LetterCase c : cases) {
            Map<String, String> values = c.facts().get().values(wording, fields);
            watched.stream()
                    .filter(f -> values.getOrDefault(f, "").isBlank())
                    .forEach(f -> empty.merge(f, 1, Integer::sum));
        }
        return empty;
    }
}
