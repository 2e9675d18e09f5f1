package quill.server.notices;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.News;
import quill.server.dispatch.OwnNotices;

/**
 * What the business hears of: written down in the transaction in which it happened, shown on open pages, and mailed each
 * by itself or as one letter of an evening. Nothing is mailed twice, and a day on which nothing happened has no letter.
 */
@Service
public class Notices {
    private static final int MOST = 200;
    private final NoticeRepository repository;
    private final OwnNotices letters;
    private final BusinessService business;
    private final Changes changes;
    private final BusinessClock clock;

    Notices(
            NoticeRepository repository,
            OwnNotices letters,
            BusinessService business,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.letters = letters;
        this.business = business;
        this.changes = changes;
        this.clock = clock;
    }

    @EventListener
    void happened(News news) {
        NoticeSetting setting = repository.setting();
        if (!setting.kinds().contains(news.kind())) {
            return;
        }
        long id = repository.add(news, clock.today(), clock.instant());
        changes.say(news.documentId(), news.clientId());
        if (setting.mail() == NoticeSetting.Mail.EACH) {
            mail(setting, "notice:" + id, repository.after(id - 1, 1));
        } else if (setting.mail() == NoticeSetting.Mail.NEVER) {
            repository.mailedUpTo(id);
        }
    }

    private void mail(NoticeSetting setting, String key, List<Notice> notices) {
        String to = setting.address().isEmpty() ? business.business().email() : setting.address();
        letters.tell(
                key,
                to,
                notices.stream()
                        .map(n -> new OwnNotices.Told(n.kind(), n.text(), n.amount()))
                        .toList());
        repository.mailedUpTo(notices.get(notices.size() - 1).id());
    }

    /** One letter of an evening, once its hour has come, of what was not mailed yet. */
    @Transactional
    public void evening() {
        if (business.find().isEmpty()) {
            return;
        }
        NoticeSetting setting = repository.setting();
        LocalDate today = clock.today();
        boolean hourHasCome = !LocalTime.now(clock).isBefore(LocalTime.parse(setting.evening()));
        List<Notice> all = repository.unmailed(hourHasCome ? today : today.minusDays(1), MOST);
        if (setting.mail() == NoticeSetting.Mail.EVENING && !all.isEmpty()) {
            mail(setting, "notices:" + all.get(all.size() - 1).id(), all);
        }
    }

    /** The newest after an id, newest first. @param after 0 for the newest of all */
    public List<Notice> after(long after, int most) {
        return repository.after(after, Math.max(1, Math.min(most, MOST)));
    }

    /** What holds now. */
    public NoticeSetting setting() {
        return repository.setting();
    }

    /** Changes it. @throws ConflictException if another window changed it first */
    @Transactional
    public NoticeSetting change(NoticeSetting typed) {
        if (!repository.keep(typed.checked())) {
            throw new ConflictException("This was changed in another window. Look at it again.");
        }
        return repository.setting();
    }
}
