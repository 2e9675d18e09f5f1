package quill.server.letters;

import java.util.List;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.server.business.Business;

/** A made-up occasion, for a letter of which the books have none yet. */
public final class SampleFacts {
    private SampleFacts() {}

    /** What each field of a letter might say. @param own whose letter it is */
    public static LetterFacts of(LetterKind kind, Business own) {
        LetterFacts.Values values = new LetterFacts.Values();
        kind.fields().stream()
                .filter(f -> f.shape() != LetterField.Shape.BLOCK && f != LetterField.OWN_LINE)
                .forEach(f -> values.put(f, f.example()));
        values.put(LetterField.BUSINESS, own.name());
        return new LetterFacts(
                own,
                values.all(),
                List.of(new LetterFacts.Row(
                        LetterField.DOCUMENT.example(),
                        "due " + LetterField.DUE.example(),
                        false,
                        LetterField.TOTAL.example(),
                        "")),
                "",
                List.of(),
                List.of(new LetterFacts.Paying(
                        "See and pay",
                        LetterField.PAGE.example(),
                        "",
                        "",
                        LetterField.PAGE.example(),
                        false,
                        LetterField.TOTAL.example())));
    }
}
