package quill.server.dispatch;

import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.server.audit.Happenings;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;

/** Puts letters into the outbox, once for each key, within the transaction that gives the reason for them. */
@Component
class MessageQueue {
    private final MessageRepository repository;
    private final Letters letters;
    private final BusinessService business;
    private final BusinessClock clock;

    MessageQueue(MessageRepository repository, Letters letters, BusinessService business, BusinessClock clock) {
        this.repository = repository;
        this.letters = letters;
        this.business = business;
        this.clock = clock;
    }

    /** Adds a letter, and a copy of it where the slip wants one. @return whether its key was new */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean add(MessageDraft draft, Slip slip) {
        boolean added = insert(draft);
        if (added && slip.copy()) {
            insert(draft.copyTo(business.business().email()));
        }
        return added;
    }

    /** The letter that was added under a key. */
    public long idOf(String key) {
        return repository.idOf(key);
    }

    private boolean insert(MessageDraft draft) {
        String by = Happenings.person().orElse(Happenings.BY_ITSELF);
        return repository.queue(draft, letters.newMessageId(), by, clock.today(), clock.instant());
    }
}
