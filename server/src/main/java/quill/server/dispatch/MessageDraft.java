package quill.server.dispatch;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/**
 * A message before it is queued.
 *
 * @param whatKey what it is, once: a second one of the same key is not queued
 * @param clientId to whom; null for one to the business itself
 * @param documents that it names, the one whose page it leads to first; may be none
 * @param to an address of e-mail, or a telephone number, as its channel has it
 * @param copiesTo further addresses
 */
record MessageDraft(
        String whatKey,
        MessageKind kind,
        ClientId clientId,
        List<DocumentId> documents,
        Channel channel,
        String to,
        List<String> copiesTo,
        Written written,
        List<Enclosed> enclosed,
        String reminder,
        Held held) {
    /**
     * How long it can be called back.
     *
     * @param keptBackAct the act that had been kept back before it, or null
     * @param leaveAt by the business's clock; null for at once
     * @param once what its sender changed, for one that is written anew when it leaves
     */
    record Held(int seconds, String keptBackAct, LocalDateTime leaveAt, LetterWriting.ThisOnce once) {
        private static final Held NOT = new Held(0, null, null, LetterWriting.ThisOnce.NOTHING);
    }

    /** What it is, and which letter says so, belong together: nothing goes that is none of the letters. */
    MessageDraft {
        if (!kind.says(written.letter())) {
            throw new IllegalArgumentException(kind + " is not said by the letter " + written.letter());
        }
        documents = List.copyOf(documents);
        copiesTo = List.copyOf(copiesTo);
        enclosed = List.copyOf(enclosed);
    }

    /** A letter about a document that leaves at once. */
    static MessageDraft of(
            String key, MessageKind kind, ClientId client, DocumentId document, String to, Written written) {
        return new MessageDraft(
                key, kind, client, List.of(document), Channel.MAIL, to, List.of(), written, List.of(), null, Held.NOT);
    }

    /** A letter to a client, about no document. */
    static MessageDraft about(String key, MessageKind kind, ClientId client, String to, Written written) {
        return new MessageDraft(
                key, kind, client, List.of(), Channel.MAIL, to, List.of(), written, List.of(), null, Held.NOT);
    }

    /** One to the business itself, to be looked at. */
    static MessageDraft toOneself(String own, String subject, Written written) {
        return own("tried:" + UUID.randomUUID(), MessageKind.COPY, own, written.called(subject));
    }

    /** One to the business itself, about no document, of no client. */
    static MessageDraft own(String key, MessageKind kind, String to, Written written) {
        return new MessageDraft(
                key, kind, null, List.of(), Channel.MAIL, to, List.of(), written, List.of(), null, Held.NOT);
    }

    /** The document whose page it leads to; null where it is about none. */
    DocumentId main() {
        return documents.isEmpty() ? null : documents.get(0);
    }

    /** With what goes along. */
    MessageDraft with(List<Enclosed> all) {
        return new MessageDraft(
                whatKey, kind, clientId, documents, channel, to, copiesTo, written, all, reminder, held);
    }

    /** Of these documents too. */
    MessageDraft about(Collection<DocumentId> others) {
        Set<DocumentId> all = new LinkedHashSet<>(documents);
        all.addAll(others);
        return new MessageDraft(
                whatKey,
                kind,
                clientId,
                new ArrayList<>(all),
                channel,
                to,
                copiesTo,
                written,
                enclosed,
                reminder,
                held);
    }

    /** A reminder. @param letter as JSON, for its paper */
    MessageDraft reminding(String letter) {
        return new MessageDraft(
                whatKey, kind, clientId, documents, channel, to, copiesTo, written, enclosed, letter, held);
    }

    /** One that can be called back for a while. @param act that had been kept back before, or null */
    MessageDraft held(int seconds, String act) {
        return with(new Held(seconds, act, null, LetterWriting.ThisOnce.NOTHING));
    }

    /** One that leaves at a moment, and is written anew then; null for at once. */
    MessageDraft leaving(LocalDateTime at, LetterWriting.ThisOnce once) {
        return at == null ? this : with(new Held(0, held.keptBackAct(), at, once));
    }

    private MessageDraft with(Held how) {
        return new MessageDraft(
                whatKey, kind, clientId, documents, channel, to, copiesTo, written, enclosed, reminder, how);
    }

    /** By text message: it has no papers, and no copies but one to oneself. */
    MessageDraft byText() {
        return new MessageDraft(
                whatKey, kind, clientId, documents, Channel.TEXT, to, List.of(), written, List.of(), reminder, held);
    }

    /** With copies to further addresses. */
    MessageDraft copiedTo(List<String> addresses) {
        return new MessageDraft(
                whatKey, kind, clientId, documents, channel, to, addresses, written, enclosed, reminder, held);
    }

    /** A copy of it to oneself: a message of its own, which says nothing of the client's. */
    MessageDraft copyTo(String own, String subject) {
        return new MessageDraft(
                "copy:" + whatKey + ":" + UUID.randomUUID().toString().substring(0, 8),
                MessageKind.COPY,
                clientId,
                documents.stream().limit(1).toList(),
                Channel.MAIL,
                own,
                List.of(),
                written.called(subject),
                enclosed,
                reminder,
                new Held(held.seconds(), null, held.leaveAt(), held.once()));
    }
}
