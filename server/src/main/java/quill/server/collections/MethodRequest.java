package quill.server.collections;

import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.server.common.StoredWord;
import quill.server.savedmethods.Agreed;

/**
 * A card or mandate that a client is asked for before anything is due.
 *
 * @param token of its page
 * @param begun what was begun at a processor; null before that
 * @param agreed what the client ticked when it began; null before that
 * @param given the saved method that it came to; null before that
 */
record MethodRequest(
        long id,
        ClientId clientId,
        String token,
        State state,
        LocalDate askedOn,
        Begun begun,
        Agreed agreed,
        Long given) {
    /** How it stands. */
    enum State implements StoredWord {
        ASKED,
        GIVEN,
        WITHDRAWN
    }

    /** A page at a processor. @param key of ours @param number the processor's own; null before it answered */
    record Begun(long processor, String key, String number) {}
}
