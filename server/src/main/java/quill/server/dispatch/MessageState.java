package quill.server.dispatch;

import java.util.EnumSet;
import java.util.Set;
import quill.server.common.StoredWord;

/** How a letter stands. */
public enum MessageState implements StoredWord {
    /** To be sent. */
    WAITING,
    /** Its first byte may have left. */
    SENDING,
    /** The mail server took it. */
    SENT,
    /** The page that it leads to was opened since. */
    OPENED,
    /** The mail server's answer never came. */
    UNCERTAIN,
    /** It was refused for good. */
    FAILED,
    /** The mail server took it, and it came back. */
    BOUNCED,
    /** A person, or what was paid meanwhile, decided that it does not go. */
    SET_ASIDE;

    /** In which somebody outside may have read it: from its first byte on, wherever it ended. */
    static final Set<MessageState> LEFT = EnumSet.of(SENDING, SENT, OPENED, UNCERTAIN, BOUNCED);
}
