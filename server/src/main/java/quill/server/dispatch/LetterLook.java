package quill.server.dispatch;

import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import quill.server.business.BusinessService;

/**
 * Shows a letter before it is sent. The sending itself is done, looked at, and rolled back: what is shown is what would
 * go, with the number that the invoice would get and the credit that would count.
 */
@Component
public class LetterLook {
    private final MessageRepository repository;
    private final SentPapers papers;
    private final BusinessService business;
    private final TransactionTemplate transaction;

    LetterLook(
            MessageRepository repository,
            SentPapers papers,
            BusinessService business,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.papers = papers;
        this.business = business;
        this.transaction = transaction;
    }

    /**
     * A letter as it would go now.
     *
     * @param text all of it, as the plain part of the mail has it
     * @param files names of what is attached
     * @param seen to be given back in the slip, so that nothing else goes than what was looked at
     */
    public record ShownLetter(String to, String subject, String text, List<String> files, String seen) {
        /** Without the address of the page, which a draft is given only once it is issued. */
        ShownLetter withoutAddress() {
            return new ShownLetter(to, subject, text.replaceAll("/p/[\\w-]+", "/p/…"), files, seen);
        }
    }

    /** Sends one letter to a client and returns its key. */
    public interface Sending {
        String send(Slip slip);
    }

    /**
     * Looks at what an act would send.
     *
     * @param usual the address that it goes to where none is typed; empty where there is none yet
     * @param slip what was typed, or null; what is said to have been seen is the letter without it
     */
    public ShownLetter at(String usual, Slip slip, Sending act) {
        Slip typed = Slip.checked(slip);
        String to = typed.toOr(usual);
        // Where there is no address yet the letter is shown all the same; it is typed beside it.
        String trial = to.isEmpty() ? business.business().email() : to;
        Undone plain = undone(act, Slip.PLAIN.toLook(trial));
        Undone shown = typed.changesNothing() ? plain : undone(act, typed.toLook(trial));
        return new ShownLetter(
                to,
                shown.letter().subject(),
                shown.letter().text(),
                shown.files(),
                Slip.digest(plain.letter().subject(), plain.letter().text()));
    }

    /** A letter as it would go, and names of what is attached. */
    private record Undone(MessageRepository.Looked letter, List<String> files) {}

    /** Sends, reads what would go, and takes all of it back. */
    private Undone undone(Sending act, Slip slip) {
        return transaction.execute(status -> {
            status.setRollbackOnly();
            MessageRepository.Looked letter = repository.looked(act.send(slip)).orElseThrow();
            return new Undone(
                    letter,
                    papers.of(letter.id()).stream().map(p -> p.what().name()).toList());
        });
    }
}
