package quill.server.letters;

import java.time.LocalDate;
import java.util.Locale;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.util.ConcurrentLruCache;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.server.common.Amount;
import quill.server.common.Shown;
import quill.server.common.Texts;

/** What letters say in words of ours, from templates of text: one file for each phrase, in {@code resources/letters}. */
@Component
public class Phrases {
    private static final Words WORDS = new Words();
    private static final int SAID_BEFORE = 500;
    private final ITemplateEngine templates;
    /** A phrase says the same of the same things: a run of letters says most of its phrases over and over. */
    private final ConcurrentLruCache<Said, String> said;

    Phrases(ITemplateEngine templates) {
        this.templates = templates;
        this.said = new ConcurrentLruCache<>(
                SAID_BEFORE, s -> drawn(s.phrase(), s.about()).strip());
    }

    private record Said(String phrase, Map<String, Object> about) {}

    /** A phrase, on one line. @param about what it speaks of, by the names that its file uses */
    public String say(String phrase, Map<String, Object> about) {
        return said.get(new Said(phrase, about));
    }

    String drawn(String name, Map<String, Object> about) {
        Context context = new Context(Locale.UK, about);
        context.setVariable("words", WORDS);
        return templates.process(LetterTemplates.FOLDER + name, context);
    }

    /** Figures and days, for the files; papers have more of them. */
    public static class Words {
        /** Money with its sign. */
        public String money(Money money) {
            return Shown.money(money);
        }

        /** An amount with its sign. */
        public String money(Amount amount) {
            return Shown.money(amount.money());
        }

        /** A date in words. */
        public String day(LocalDate date) {
            return Texts.day(date);
        }
    }
}
