package quill.server.letters;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.server.business.Business;
import quill.server.business.BusinessService;

/** A made-up occasion, for a letter of which the books have none yet. */
@Component
public class SampleFacts {
    private final BusinessService business;

    SampleFacts(BusinessService business) {
        this.business = business;
    }

    /** What each field of a letter might say. */
    public LetterFacts of(LetterKind kind) {
        Business own = business.business();
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
                new LetterFacts.Paying(
                        "See and pay",
                        LetterField.PAGE.example(),
                        "",
                        "",
                        LetterField.PAGE.example(),
                        false,
                        LetterField.TOTAL.example()));
    }
}
