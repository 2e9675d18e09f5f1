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

    /** What changed: an invoice and whose it is; either may be null. */
    public record Change(DocumentId invoiceId, ClientId clientId) {}

    /** Something that can be found changed, came or went; told at once, within the running transaction. */
    public record Touched(Findable kind, long id) {}

    /** Notes that something is to be found by other words from now on, or not at all. */
    public void touch(Findable kind, long id) {
        publisher.publishEvent(new Touched(kind, id));
    }

    /** Told to listeners after the running transaction commits, or at once where none runs. */
    public void say(DocumentId invoiceId, ClientId clientId) {
        publisher.publishEvent(new Change(invoiceId, clientId));
    }
}
