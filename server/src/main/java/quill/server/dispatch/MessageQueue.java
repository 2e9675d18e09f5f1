package quill.server.dispatch;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.acts.Act;
import quill.core.reminder.ReminderStep.Tone;
import quill.server.audit.Actor;
import quill.server.audit.Happenings;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.letters.Phrases;

/** Puts letters into the outbox, once for each key, within the transaction that gives the reason for them. */
@Component
class MessageQueue {
    private final MessageRepository repository;
    private final AskedDebts asked;
    private final SentPapers papers;
    private final Letters letters;
    private final BusinessService business;
    private final BusinessClock clock;
    private final Changes changes;
    private final Phrases phrases;

    MessageQueue(
            MessageRepository repository,
            AskedDebts asked,
            SentPapers papers,
            Letters letters,
            BusinessService business,
            BusinessClock clock,
            Changes changes,
            Phrases phrases) {
        this.repository = repository;
        this.asked = asked;
        this.papers = papers;
        this.letters = letters;
        this.business = business;
        this.clock = clock;
        this.changes = changes;
        this.phrases = phrases;
    }

    /** Adds a letter, and a copy of it where the slip wants one. @return whether its key was new */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean add(MessageDraft draft, Slip slip) {
        boolean added = insert(draft);
        if (added && slip.copy()) {
            String subject = phrases.say(
                    "copy", Map.of("to", draft.to(), "subject", draft.written().subject()));
            insert(draft.copyTo(business.business().email(), subject));
        }
        if (added) {
            changes.letter(draft.main(), draft.clientId());
        }
        return added;
    }

    /** Notes what a letter asks for of which debt. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void asks(long messageId, List<Act.Item> items, Tone tone) {
        asked.add(messageId, items, tone);
    }

    /** The letter that was added under a key. */
    public long idOf(String key) {
        return repository.idOf(key);
    }

    private boolean insert(MessageDraft draft) {
        // What follows from what a client does is written by the product.
        Actor by = Happenings.actor() instanceof Actor.Person person ? person : Actor.PRODUCT;
        boolean queued = repository.queue(draft, letters.newMessageId(), by, clock.today(), clock.instant());
        if (queued) {
            papers.enclose(draft.whatKey(), draft.enclosed());
        }
        return queued;
    }
}
