package quill.server.dispatch;

import quill.core.letter.Channel;
import quill.server.dispatch.MessageRepository.Outgoing;

/**
 * Takes messages of one channel out of the house. It marks a message as being sent before its first byte leaves, and
 * says what became of it; where no answer came it says so, and does not ask twice.
 */
interface Carrier {
    /** Which messages it takes. */
    Channel channel();

    /** Takes one out, if it may still leave. */
    void carry(Outgoing outgoing);
}
