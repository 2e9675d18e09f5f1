package quill.core.acts;

import java.util.Arrays;
import java.util.Optional;

/** The kinds of acts, in the order in which a day's run does them. */
public enum ActKind {
    /** Late fees, before the letters that ask for them. */
    FEE("fee"),
    /** Letters last: they say what is open after all else. */
    REMINDER("reminder");

    private final String word;

    ActKind(String word) {
        this.word = word;
    }

    /** As it is kept, and as keys begin. */
    public String word() {
        return word;
    }

    /** Read back; empty for a word of none. */
    public static Optional<ActKind> of(String word) {
        return Arrays.stream(values()).filter(k -> k.word.equals(word)).findFirst();
    }
}
