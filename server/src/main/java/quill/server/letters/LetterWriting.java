package quill.server.letters;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.core.letter.FieldSet;
import quill.core.letter.Filled;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.core.letter.TextLength;
import quill.core.letter.Wording;
import quill.server.common.Texts;

/**
 * Writes a letter: the core fills the wording's fields in, templates of ours draw the frame around it. What the business
 * worded reaches a template only as a value, so that nothing in it is ever read as one.
 */
@Component
public class LetterWriting {
    /** A text message has no subject; in lists it is called as it begins. */
    private static final int SUBJECT = 90;

    private final Wordings wordings;
    private final Phrases phrases;
    private final ITemplateEngine templates;

    LetterWriting(Wordings wordings, Phrases phrases, ITemplateEngine templates) {
        this.wordings = wordings;
        this.phrases = phrases;
        this.templates = templates;
    }

    /** What a person changes who sends one letter. @param subject empty for the letter's own @param line may be empty */
    public record ThisOnce(String subject, String line) {
        /** Nothing. */
        public static final ThisOnce NOTHING = new ThisOnce("", "");
    }

    /** The letter's text, as the business words it now. @param payer whether it goes to a payer apart from the client */
    public Filled filled(LetterKind kind, boolean payer, LetterFacts facts, ThisOnce once) {
        return filled(kind, wordings.now(kind, payer), facts, once);
    }

    /** The same, of a wording that is only tried. */
    public Filled filled(LetterKind kind, Wording wording, LetterFacts facts, ThisOnce once) {
        FieldSet fields = wordings.fields(kind);
        Map<String, String> values = facts.values(wording, fields);
        values.put(LetterField.OWN_LINE.title(), once.line());
        Filled filled = wording.fill(values, facts.drawn(), fields, facts.from().name());
        List<Filled.Block> blocks = new ArrayList<>(filled.blocks());
        if (!once.line().isEmpty() && !wording.used(fields).contains(LetterField.OWN_LINE.title())) {
            // Whoever typed a line wants it read, wherever the wording has no place for it.
            blocks.add(0, new Filled.Block(List.of(new Filled.Run(once.line(), false)), null));
        }
        return new Filled(once.subject().isEmpty() ? filled.subject() : once.subject(), blocks);
    }

    /** Draws it as HTML and as text. */
    public Written draw(LetterKind kind, Filled letter, LetterFacts facts) {
        Map<String, Object> about = new HashMap<>();
        about.put("l", letter);
        about.put("f", facts);
        if (kind.isText()) {
            return text(kind, letter);
        }
        String html = templates.process("letter", new Context(Locale.UK, about));
        String code = facts.paying() != null && !facts.paying().iban().isEmpty() && letter.has(LetterField.HOW_TO_PAY)
                ? facts.paying().code()
                : null;
        return new Written(kind, letter.subject(), html, phrases.drawn("frame", about), code);
    }

    /** What goes to a telephone: its words in plain characters. The page around them is for whoever looks it up here. */
    private Written text(LetterKind kind, Filled letter) {
        String text = TextLength.plainer(letter.text().replaceAll("\\n+", "\n"));
        String html = templates.process("text-message", new Context(Locale.UK, Map.of("text", text)));
        return new Written(kind, Texts.fit(text.replace('\n', ' '), SUBJECT), html, text, null);
    }

    /** Writes and draws it. */
    public Written write(LetterKind kind, boolean payer, LetterFacts facts, ThisOnce once) {
        return draw(kind, filled(kind, payer, facts, once), facts);
    }
}
