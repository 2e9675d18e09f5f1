package quill.server.letters;

import quill.core.letter.LetterKind;

/**
 * A letter before it is queued: the same in both forms.
 *
 * @param letter which of the letters it is
 * @param code what its square code carries; null where none is drawn
 */
public record Written(LetterKind letter, String subject, String html, String text, String code) {
    /** The same under another subject. */
    public Written called(String other) {
        return new Written(letter, other, html, text, code);
    }
}
