package quill.server.savedmethods;

import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.core.pay.CardExpiry;
import quill.core.pay.WayToPay;
import quill.server.common.StoredWord;

/**
 * A card or a mandate that a client lets us use again. The number is the processor's alone.
 *
 * @param token as the processor knows it
 */
public record SavedMethod(
        long id, ClientId clientId, long processor, String token, With with, State state, Agreed agreed, LocalDate on) {
    /** What it is. @param name the card's brand, or what stands for the bank @param expires null for a bank account */
    public record With(WayToPay way, String name, String lastFour, CardExpiry expires) {
        /** As its holder knows it. */
        public String words() {
            return name + " ending " + lastFour;
        }
    }

    /** Whether it can be used. */
    public enum State implements StoredWord {
        USABLE,
        /** Not used any more; the processor is yet to forget it. */
        REMOVING,
        REMOVED
    }

    /** Whether something can be taken from it on a day. */
    public boolean isUsable(LocalDate today) {
        return state == State.USABLE
                && (with.expires() == null || !with.expires().isOver(today));
    }
}
