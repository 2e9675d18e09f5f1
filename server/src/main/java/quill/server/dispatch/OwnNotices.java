package quill.server.dispatch;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.News;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** Letters to the business itself that say what happened. */
@Service
public class OwnNotices {
    private final LetterWriting writing;
    private final LetterBasics basics;
    private final MessageQueue queue;
    private final BusinessService business;

    OwnNotices(LetterWriting writing, LetterBasics basics, MessageQueue queue, BusinessService business) {
        this.writing = writing;
        this.basics = basics;
        this.queue = queue;
        this.business = business;
    }

    /** One thing that happened. @param amount null where it is about no sum */
    public record Told(News.Kind kind, String text, Amount amount) {}

    /** Queues a letter about one thing or several, once for its key. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void tell(String key, String to, List<Told> all) {
        Written written = writing.write(LetterKind.NOTICE, false, facts(all), LetterWriting.ThisOnce.NOTHING);
        queue.add(MessageDraft.own(key, MessageKind.NOTICE, to, written), Slip.PLAIN);
    }

    /** What such a letter says. @param all at least one thing */
    LetterFacts facts(List<Told> all) {
        Business own = business.business();
        LetterFacts.Values values = basics.values(own, own.name(), "")
                .put(LetterField.WHAT_HAPPENED, basics.say("what-happened", Map.of("all", all)))
                .put(LetterField.IN_SHORT, basics.say("in-short", Map.of("all", all)));
        return new LetterFacts(
                own,
                values.all(),
                all.size() == 1
                        ? List.of()
                        : all.stream()
                                .map(t -> LetterFacts.Row.plain(t.text(), ""))
                                .toList(),
                "",
                List.of(),
                List.of());
    }
}
