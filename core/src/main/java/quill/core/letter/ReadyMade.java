package quill.core.letter;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Wordings of ours, three for each letter: what goes until the business words it otherwise, and what it can begin from. */
public final class ReadyMade {
    private ReadyMade() {}

    /** How a letter sounds. */
    public enum Tone {
        /** Warm, and longer. */
        FRIENDLY("Friendly"),
        /** What goes where the business says nothing else. */
        PLAIN("Plain"),
        /** Short, and without asides. */
        FIRM("Firm");

        private final String words;

        Tone(String words) {
            this.words = words;
        }

        /** For people. */
        public String words() {
            return words;
        }
    }

    /** Each is read once: nearly every letter that goes is one of them. */
    private static final Map<String, Wording> READ = new ConcurrentHashMap<>();

    /** The wording of a letter in a tone; its first line is the subject. */
    public static Wording of(LetterKind kind, Tone tone) {
        return READ.computeIfAbsent(kind + "-" + tone, ReadyMade::read);
    }

    private static Wording read(String which) {
        String name = which.toLowerCase(Locale.ROOT).replace('_', '-') + ".txt";
        try (InputStream in = ReadyMade.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("there is no " + name);
            }
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            int end = text.indexOf('\n');
            return new Wording(
                    text.substring(0, end).strip(), text.substring(end).strip());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
