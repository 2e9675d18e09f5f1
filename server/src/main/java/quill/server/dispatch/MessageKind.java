package quill.server.dispatch;

import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;
import quill.core.letter.LetterKind;
import quill.server.common.StoredWord;

/** What a message is, and which letters say it. */
public enum MessageKind implements StoredWord {
    /** It brings a quote. */
    QUOTE(Set.of(LetterKind.QUOTE)),
    /** It says that a quote was accepted. */
    ACCEPTED(Set.of(LetterKind.ACCEPTED)),
    /** It brings an invoice. */
    INVOICE(Set.of(LetterKind.INVOICE, LetterKind.TEXT_INVOICE)),
    /** It brings a credit note. */
    CREDIT_NOTE(Set.of(LetterKind.CREDIT_NOTE)),
    /** It asks for money before it falls due. */
    REQUEST(Set.of(LetterKind.REQUEST)),
    /** It says that installments are agreed anew. */
    ARRANGED(Set.of(LetterKind.ARRANGED)),
    /** It asks for a card or mandate to keep. */
    ASK_TO_KEEP(Set.of(LetterKind.ASK_TO_KEEP)),
    /** It says that money came. */
    RECEIPT(Set.of(LetterKind.RECEIPT)),
    /** It says that an earlier letter was a mistake. */
    CORRECTION(Set.of(LetterKind.CORRECTION)),
    /** It says that a payment did not come through. */
    CAME_BACK(Set.of(LetterKind.CAME_BACK)),
    /** It asks for what is late, or soon due. */
    REMINDER(Set.of(
            LetterKind.AHEAD,
            LetterKind.FRIENDLY,
            LetterKind.FIRM,
            LetterKind.FINAL,
            LetterKind.TEXT_AHEAD,
            LetterKind.TEXT_FRIENDLY,
            LetterKind.TEXT_FIRM,
            LetterKind.TEXT_FINAL)),
    /** It tells the business what happened. */
    NOTICE(Set.of(LetterKind.NOTICE)),
    /** It shows the business what a client got: any letter. */
    COPY(Arrays.stream(LetterKind.values()).filter(k -> !k.isOnPage()).collect(Collectors.toSet()));

    private final Set<LetterKind> letters;

    MessageKind(Set<LetterKind> letters) {
        this.letters = letters;
    }

    /** Whether a letter says this. */
    boolean says(LetterKind letter) {
        return letters.contains(letter);
    }

    /** Whether it can be called back before it leaves; the others say what is booked. */
    boolean canBeCalledBack() {
        return this == QUOTE
                || this == INVOICE
                || this == ARRANGED
                || this == REQUEST
                || this == REMINDER
                || this == COPY;
    }
}
