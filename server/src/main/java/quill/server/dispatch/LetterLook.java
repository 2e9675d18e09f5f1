package quill.server.dispatch;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import quill.server.business.BusinessService;
import quill.server.documents.Attachments;
import quill.server.invoices.InvoicesService;

/**
 * Shows a letter before it is sent. The sending itself is done, looked at, and rolled back: what is shown is what would
 * go, with the number that the invoice would get and the credit that would count.
 */
@Component
public class LetterLook {
    private final MessageRepository repository;
    private final InvoicesService invoices;
    private final Attachments attachments;
    private final BusinessService business;
    private final TransactionTemplate transaction;

    LetterLook(
            MessageRepository repository,
            InvoicesService invoices,
            Attachments attachments,
            BusinessService business,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.invoices = invoices;
        this.attachments = attachments;
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
        Undone plain = undone(act, new Slip(trial, null, null, false, null));
        Undone shown = typed.changesNothing()
                ? plain
                : undone(act, new Slip(trial, typed.subject(), typed.line(), false, null));
        return new ShownLetter(
                to,
                shown.letter().subject(),
                shown.letter().text(),
                files(shown),
                Slip.digest(plain.letter().subject(), plain.letter().text()));
    }

    /** A letter as it would go, and the number that its invoice would have. */
    private record Undone(MessageRepository.Looked letter, String number) {}

    /** Sends, reads what would go, and takes all of it back. */
    private Undone undone(Sending act, Slip slip) {
        return transaction.execute(status -> {
            status.setRollbackOnly();
            MessageRepository.Looked letter = repository.looked(act.send(slip)).orElseThrow();
            return new Undone(letter, invoices.invoice(letter.invoiceId()).number());
        });
    }

    private List<String> files(Undone undone) {
        MessageRepository.Looked letter = undone.letter();
        if (letter.kind() == MessageKind.REMINDER) {
            return List.of(SentPapers.ofReminder(letter.madeOn()));
        }
        List<String> names = new ArrayList<>();
        names.add(SentPapers.ofInvoice(undone.number()));
        attachments.sentWith(letter.invoiceId()).forEach(a -> names.add(a.file().name()));
        return names;
    }
}
