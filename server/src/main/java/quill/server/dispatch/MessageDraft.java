package quill.server.dispatch;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import quill.server.dispatch.Letters.Written;

/** A letter before it is queued. @param whatKey what it is, once: a second one of the same key is not queued */
record MessageDraft(
        String whatKey,
        String kind,
        long clientId,
        long invoiceId,
        String to,
        String subject,
        String html,
        String text,
        String attachment,
        Long noteId,
        String reminder,
        Collection<Long> about,
        String keptBackAct,
        int holdSeconds) {
    /** A letter about an invoice that leaves at once. */
    static MessageDraft of(
            String key, String kind, long client, long invoice, String to, Written written, String attachment) {
        return new MessageDraft(
                key,
                kind,
                client,
                invoice,
                to,
                written.subject(),
                written.html(),
                written.text(),
                attachment,
                null,
                null,
                List.of(),
                null,
                0);
    }

    MessageDraft withNote(long creditNote) {
        return new MessageDraft(
                whatKey,
                kind,
                clientId,
                invoiceId,
                to,
                subject,
                html,
                text,
                attachment,
                creditNote,
                reminder,
                about,
                keptBackAct,
                holdSeconds);
    }

    /** A reminder. @param letter as JSON, for its paper @param invoices that it is about */
    MessageDraft reminding(String letter, Collection<Long> invoices) {
        return new MessageDraft(
                whatKey,
                kind,
                clientId,
                invoiceId,
                to,
                subject,
                html,
                text,
                attachment,
                noteId,
                letter,
                invoices,
                keptBackAct,
                holdSeconds);
    }

    /** One that can be called back for a while. @param act that had been kept back before, or null */
    MessageDraft held(int seconds, String act) {
        return new MessageDraft(
                whatKey,
                kind,
                clientId,
                invoiceId,
                to,
                subject,
                html,
                text,
                attachment,
                noteId,
                reminder,
                about,
                act,
                seconds);
    }

    /** A copy of it to oneself: a message of its own, which says nothing of the client's. */
    MessageDraft copyTo(String own) {
        return new MessageDraft(
                "copy:" + whatKey + ":" + UUID.randomUUID().toString().substring(0, 8),
                "copy",
                clientId,
                invoiceId,
                own,
                "Copy, sent to " + to + ": " + subject,
                html,
                text,
                attachment,
                noteId,
                reminder,
                List.of(),
                null,
                holdSeconds);
    }
}
