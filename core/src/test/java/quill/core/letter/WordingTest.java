package quill.core.letter;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;

/** What a business words is filled in, and never obeyed; what would be said of nothing is not said. */
public class WordingTest {
    private static final FieldSet FIRM = FieldSet.of(LetterKind.FIRM, List.of("Instrument", "Opus no. 3"));

    private static List<Problem> problems(String subject, String body) {
        List<Problem> problems = new ArrayList<>();
        assertThat(Wording.read(subject, body, FIRM, problems) == null).isEqualTo(!problems.isEmpty());
        return problems;
    }

    private static Filled fill(String subject, String body, Map<String, String> values, LetterField... drawn) {
        assertThat(problems(subject, body)).isEmpty();
        Set<LetterField> blocks = EnumSet.noneOf(LetterField.class);
        blocks.addAll(List.of(drawn));
        return new Wording(subject, body).fill(values, blocks, FIRM, "Fallback");
    }

    private static String text(Filled letter) {
        return String.join(
                "|",
                letter.blocks().stream()
                        .map(b -> b.drawn() == null ? b.text() : "<" + b.drawn() + ">")
                        .toList());
    }

    @Test
    public void fieldsAreFilledInWhateverTheirCapitalsAndBlanks() {
        Filled letter = fill(
                "{Document}: {amount  open}",
                "Dear {contact, or client},\n\n{instrument}, {Opus no. 3}: {AMOUNT OPEN}.",
                Map.of(
                        "document", "invoice 7",
                        "amount open", "€5.00",
                        "contact, or client", "Smith & Söhne",
                        "Instrument", "Grand",
                        "Opus no. 3", "in C"));
        assertThat(letter.subject()).isEqualTo("invoice 7: €5.00");
        assertThat(text(letter)).isEqualTo("Dear Smith & Söhne,|Grand, in C: €5.00.");
    }

    @DataProvider
    public Object[][] own() {
        return new Object[][] {
            {"{document}", "Dear {contact, or client},\n\n{sums}", false},
            {"{document}", "It is {instrument}.", true},
            {"{Opus no. 3}", "Hello", true},
            {"Late", "{a field that was there once}", true},
            {"Late", "{ not closed, {} and ${instrument}", false},
        };
    }

    @Test(dataProvider = "own")
    public void aFieldThatIsNoneOfOursIsTheBusinesss(String subject, String body, boolean own) {
        assertThat(new Wording(subject, body).hasOwn(FIRM)).isEqualTo(own);
    }

    @DataProvider
    public Object[][] leftOut() {
        return new Object[][] {
            // A sentence with an empty field goes, the ones beside it stay.
            {"One. It was due on {due date}. Two!", "One. Two!"},
            {"It was due on {due date}.", ""},
            {"A line\nIt was due on {due date}\nanother", "A line\nanother"},
            {"Was it {due date}? Yes.", "Yes."},
            // What a field says makes no sentence: two full stops in a name leave the sentence whole.
            {"From {client} since {due date}. Stays.", "Stays."},
            {"From {client}. Stays.", "From Dr. A. B. Sons. Stays."},
            // A field that is a sentence takes nothing with it.
            {"A word: {late fees agreed}", "A word:"},
            {"{late fees agreed} Stays.", "Stays."},
        };
    }

    @Test(dataProvider = "leftOut")
    public void aSentenceWithAnEmptyFieldIsLeftOut(String body, String left) {
        assertThat(text(fill("s", body, Map.of("client", "Dr. A. B. Sons")))).isEqualTo(left);
    }

    @Test
    public void ofASubjectThePartBetweenTwoCommasIsLeftOut() {
        Map<String, String> values = Map.of("business", "B", "amount open", "€1,234.00");
        assertThat(fill("{business}: {document}, {amount open}", "x", values).subject())
                .isEqualTo("B: €1,234.00");
        assertThat(fill("{business}: {amount open}, {due date}", "x", values).subject())
                .isEqualTo("B: €1,234.00");
        assertThat(fill("{document}", "x", values).subject()).isEqualTo("Fallback");
        assertThat(fill("{business}", "x", Map.of("business", "two\nlines")).subject())
                .isEqualTo("two lines");
    }

    @Test
    public void drawnBlocksStandWhereTheyAreWrittenAndOnlyWhereThereIsSomethingToDraw() {
        String body = "Before\n{sums}\nafter\n\n{measure}\n\n{how to pay}";
        assertThat(text(fill("s", body, Map.of(), LetterField.SUMS, LetterField.HOW_TO_PAY)))
                .isEqualTo("Before|<SUMS>|after|<HOW_TO_PAY>");
    }

    @Test
    public void theAddressOfAPageLeadsThere() {
        Filled letter = fill("s", "See it: {page}.", Map.of("page", "https://a.example/p/x"));
        assertThat(letter.blocks().get(0).runs())
                .containsExactly(
                        new Filled.Run("See it: ", false),
                        new Filled.Run("https://a.example/p/x", true),
                        new Filled.Run(".", false));
    }

    @DataProvider
    public Object[][] text() {
        return new Object[][] {
            {"${client}"}, {"[[${client}]] and [(${client})]"}, {"#{client} *{client} @{client} ~{client}"},
            {"th:text=\"x\" <script>alert(1)</script>"}, {"{7*7} {} { } {{client}}"}, {"an open { brace"},
        };
    }

    @Test(dataProvider = "text")
    public void whatLooksLikeALanguageStaysText(String body) {
        assertThat(text(fill(body.replace("\n", " "), body, Map.of("client", "READ"))))
                .isEqualTo(body)
                .doesNotContain("READ");
    }

    @Test
    public void aFieldsOwnWordsAreNeverReadAsFields() {
        assertThat(text(fill("s", "{client}.", Map.of("client", "{business}", "business", "B"))))
                .isEqualTo("{business}.");
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {"s", "Of {instrment}.", "body", "the nearest is {Instrument}"},
            {"{docment}", "x", "subject", "the nearest is {document}"},
            {"s", "{credit note}", "body", "there is no such field in this letter"},
            {"two\nlines", "x", "subject", "one line"},
            {"", "x", "subject", "must not be empty"},
            {"s", "  \n ", "body", "must not be empty"},
            {"x".repeat(201), "x", "subject", "at most 200"},
            {"s", "x".repeat(5001), "body", "at most 5,000"},
            {"s", "Here: {sums}", "body", "on a line of its own"},
            {"{how to pay}", "x", "subject", "on a line of its own"},
        };
    }

    @Test(dataProvider = "refused")
    public void whatCannotBeIsRefusedBesideItsField(String subject, String body, String field, String words) {
        assertThat(problems(subject, body)).hasSize(1);
        assertThat(problems(subject, body).get(0).field()).isEqualTo(field);
        assertThat(problems(subject, body).get(0).message()).contains(words);
    }

    @Test
    public void whatWouldBeLeftOutIsSaidAsItWasTyped() {
        Wording w = new Wording("{business}, {due date}", "It is {amount open}. Due on {due date}, yes. Bye.");
        assertThat(w.without("due date", FIRM)).containsExactly("{due date}", "Due on {due date}, yes.");
        assertThat(w.used(FIRM)).containsExactly("business", "due date", "amount open");
    }

    @Test
    public void anOwnFieldThatIsCalledAsOneOfOursGivesWay() {
        FieldSet set = FieldSet.of(LetterKind.INVOICE, List.of("Total", "A {brace}", "Made in"));
        assertThat(set.all().stream().filter(f -> f.title().equalsIgnoreCase("total")))
                .hasSize(1);
        assertThat(set.all().stream().map(FieldSet.Offered::title))
                .contains("Made in")
                .doesNotContain("A {brace}");
    }

    @Test
    public void aFieldThatIsThereNoMoreSaysNothing() {
        FieldSet without = FieldSet.of(LetterKind.FIRM, List.of());
        Filled letter = new Wording("{business}: {Instrument}", "Your {Instrument} waits. Stays.")
                .fill(Map.of("business", "B"), Set.of(), without, "-");
        assertThat(letter.subject()).isEqualTo("B");
        assertThat(text(letter)).isEqualTo("Stays.");
    }

    @DataProvider
    public Object[][] ours() {
        List<Object[]> all = new ArrayList<>();
        for (LetterKind kind : LetterKind.values()) {
            for (ReadyMade.Tone tone : ReadyMade.Tone.values()) {
                all.add(new Object[] {kind, tone});
            }
        }
        return all.toArray(Object[][]::new);
    }

    @Test(dataProvider = "ours")
    public void eachWordingOfOursCanBeReadAndSaysHowToPay(LetterKind kind, ReadyMade.Tone tone) {
        FieldSet fields = FieldSet.of(kind, List.of());
        Wording ours = ReadyMade.of(kind, tone);
        List<Problem> problems = new ArrayList<>();
        assertThat(Wording.read(ours.subject(), ours.body(), fields, problems)).isEqualTo(ours);
        assertThat(problems).isEmpty();
        assertThat(ours.subject().isEmpty()).isEqualTo(!kind.hasSubject());
        Set<String> needed = kind.isText()
                ? Set.of("business", "page")
                : kind == LetterKind.NOTICE ? Set.of("what happened") : Set.of("contact, or client", "business");
        assertThat(kind.isOnPage() || ours.used(fields).containsAll(needed)).isTrue();
        assertThat(ours.used(fields).contains("how to pay")).isEqualTo(kind.asksForMoney() && !kind.isText());
        // With nothing but what every occasion has, no broken sentence is left.
        Map<String, String> values = new HashMap<>();
        kind.fields().forEach(f -> values.put(f.title(), f.example()));
        Filled letter = ours.fill(values, EnumSet.noneOf(LetterField.class), fields, "");
        assertThat(letter.subject().isEmpty()).isEqualTo(!kind.hasSubject());
        assertThat(text(letter)).doesNotContain("{").doesNotContain("  ").doesNotContain(" .");
    }

    @Test
    public void noTwoFieldsOfALetterHaveOneName() {
        Set<String> titles = new TreeSet<>();
        for (LetterField f : LetterField.values()) {
            assertThat(titles.add(f.title())).as(f.title()).isTrue();
            assertThat(Wording.isTitle(f.title())).isTrue();
        }
    }
}
