package quill.server.collections;

import java.time.LocalDate;
import java.util.Map;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.StoredWord;

/**
 * What is to be taken on a day from what is kept, as its client wants it.
 *
 * @param parts what it brings for which debt
 * @param why nothing came of it; empty while it is planned, and where it was taken
 */
public record PlannedPayment(
        long id,
        DocumentId documentId,
        ClientId clientId,
        long methodId,
        Money amount,
        Map<Long, Money> parts,
        LocalDate on,
        State state,
        String why) {
    /** How it stands. */
    public enum State implements StoredWord {
        PLANNED,
        TAKEN,
        /** Taken back, or paid otherwise before its day. */
        OVER,
        /** Its day came, and nothing could be taken. */
        FAILED
    }
}
