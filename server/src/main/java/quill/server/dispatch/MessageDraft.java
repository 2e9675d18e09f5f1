package quill.server.dispatch;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.letters.Written;

/** A letter before it is queued. @param whatKey what it is, once: a second one of the same key is not queued */
record MessageDraft(
        String whatKey,
        MessageKind kind,
        ClientId clientId,
        DocumentId invoiceId,
        String to,
        Written written,
        Enclosure enclosure,
        DocumentId noteId,
        String reminder,
        Collection<DocumentId> about,
        String keptBackAct,
        int holdSeconds) {
    /** What it is, and which letter says so, belong together: nothing goes that is none of the letters. */
    MessageDraft {
        if (!kind.says(written.letter())) {
            throw new IllegalArgumentException(kind + " is not said by the letter " + written.letter());
        }
    }

    /** A letter about an invoice that leaves at once. */
    static MessageDraft of(
            String key,
            MessageKind kind,
            ClientId client,
            DocumentId invoice,
            String to,
            Written written,
            Enclosure enclosure) {
        return new MessageDraft(key, kind, client, invoice, to, written, enclosure, null, null, List.of(), null, 0);
    }

    MessageDraft withNote(DocumentId creditNote) {
        return new MessageDraft(
                whatKey,
                kind,
                clientId,
                invoiceId,
                to,
                written,
                enclosure,
                creditNote,
                reminder,
                about,
                keptBackAct,
                holdSeconds);
    }

    /** A reminder. @param letter as JSON, for its paper @param invoices that it is about */
    MessageDraft reminding(String letter, Collection<DocumentId> invoices) {
        return new MessageDraft(
                whatKey,
                kind,
                clientId,
                invoiceId,
                to,
                written,
                enclosure,
                noteId,
                letter,
                invoices,
                keptBackAct,
                holdSeconds);
    }

    /** One that can be called back for a while. @param act that had been kept back before, or null */
    MessageDraft held(int seconds, String act) {
        return new MessageDraft(
                whatKey, kind, clientId, invoiceId, to, written, enclosure, noteId, reminder, about, act, seconds);
    }

    /** A copy of it to oneself: a message of its own, which says nothing of the client's. */
    MessageDraft copyTo(String own, String subject) {
        return new MessageDraft(
                "copy:" + whatKey + ":" + UUID.randomUUID().toString().substring(0, 8),
                MessageKind.COPY,
                clientId,
                invoiceId,
                own,
                new Written(written.letter(), subject, written.html(), written.text(), written.code()),
                enclosure,
                noteId,
                reminder,
                List.of(),
                null,
                holdSeconds);
    }
}
