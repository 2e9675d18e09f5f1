package quill.server.common;

import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/** Says that something changed, so that open pages can look again once it is committed. */
@Component
public class Changes {
    private final ApplicationEventPublisher publisher;

    Changes(ApplicationEventPublisher publisher) {
        this.publisher = publisher;
    }

    /**
     * What changed: an invoice and whose it is; either may be null.
     *
     * @param words whether the invoice may be found by other words from now on
     */
    public record Change(DocumentId invoiceId, ClientId clientId, boolean words) {}

    /** Something that can be found changed, came or went; told at once, within the running transaction. */
    public record Touched(Findable kind, long id) {}

    /** Notes that something is to be found by other words from now on, or not at all. */
    public void touch(Findable kind, long id) {
        publisher.publishEvent(new Touched(kind, id));
    }

    /** Told to listeners after the running transaction commits, or at once where none runs. */
    public void say(DocumentId invoiceId, ClientId clientId) {
        publisher.publishEvent(new Change(invoiceId, clientId, true));
    }

    /** The same of a letter about it that was written, left or came back: by which words the invoice is found stays. */
    public void letter(DocumentId invoiceId, ClientId clientId) {
        publisher.publishEvent(new Change(invoiceId, clientId, false));
    }

    /** The same of a payment that its processor's account proves: what is to come in its next payout is more. */
    public void proved(DocumentId invoiceId, ClientId clientId) {
        letter(invoiceId, clientId);
    }
}
