package quill.server.common;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** A state as it is stored and travels: the name of its constant in small letters, with blanks. */
public interface StoredWord {
    /** As an enum has it. */
    String name();

    /** As it is stored: {@code SET_ASIDE} is {@code set aside}. */
    @JsonValue
    default String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /** Read back. @throws IllegalArgumentException for a word that is no constant of it */
    static <E extends Enum<E> & StoredWord> E of(Class<E> type, String word) {
        return Enum.valueOf(type, word.toUpperCase(Locale.ROOT).replace(' ', '_'));
    }
}
