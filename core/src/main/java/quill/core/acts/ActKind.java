package quill.core.acts;

import java.util.Arrays;
import java.util.Optional;

/** The kinds of acts, in the order in which a day's run does them. */
public enum ActKind {
    /** Late fees, before the letters that ask for them. */
    FEE("fee", true),
    /** Letters last: they say what is open after all else. */
    REMINDER("reminder", false);

    private final String word;
    private final boolean doneLate;

    ActKind(String word, boolean doneLate) {
        this.word = word;
        this.doneLate = doneLate;
    }

    /** Whether it is done on a later day too, when the machine was off on its own: a letter says what is open then. */
    public boolean isDoneLate() {
        return doneLate;
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
