package quill.server.processor;

import java.net.http.HttpHeaders;
import java.util.List;
import java.util.Optional;

/** One kind of card processor: what it wants to know, and how it is spoken to. Holds no state of its own. */
public interface ProcessorAdapter {
    /** What it is kept as; never changed afterwards. */
    String kind();

    /** What it is called. */
    String title();

    /**
     * One thing that it wants to know.
     *
     * @param secret whether it is shown to nobody afterwards
     */
    record CredentialField(String name, String label, String hint, boolean secret) {}

    /** All that it wants to know. */
    List<CredentialField> fields();

    /** What is wrong with what was typed into a field; empty where nothing is. It must not repeat it: it may be a secret. */
    String wrong(CredentialField field, String typed);

    /** A processor to ask. @param test for trial: then no money moves */
    CardProcessor connect(Credentials credentials, boolean test);

    /** An event as it came. */
    record Event(HttpHeaders headers, String body) {}

    /** What an event tells. @param id the same each time it is sent @param order at the processor; empty for none */
    record Heard(String id, String order) {}

    /** Reads an event; empty where its signature is not the processor's, or where it is too old. */
    Optional<Heard> heard(Credentials credentials, Event event);
}
