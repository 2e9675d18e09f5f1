package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.letter.Channel;
import quill.core.letter.TextLength;
import quill.server.QuillSettings;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.common.ConflictException;
import quill.server.common.Shown;

/**
 * Shows a letter before it is sent. The sending itself is done, looked at, and rolled back: what is shown is what would
 * go, with the number that the invoice would get and the credit that would count.
 */
@Component
public class LetterLook {
    private final MessageRepository repository;
    private final SentPapers papers;
    private final BusinessService business;
    private final Destinations destinations;
    private final DocumentWays ways;
    private final QuillSettings settings;
    private final TransactionTemplate transaction;

    LetterLook(
            MessageRepository repository,
            SentPapers papers,
            BusinessService business,
            Destinations destinations,
            DocumentWays ways,
            QuillSettings settings,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.papers = papers;
        this.business = business;
        this.destinations = destinations;
        this.ways = ways;
        this.settings = settings;
        this.transaction = transaction;
    }

    /**
     * A letter as it would go now.
     *
     * @param text all of it, as the plain part of the mail has it
     * @param files names of what is attached
     * @param notes which ways to pay are missing and why, each a sentence
     * @param seen to be given back in the slip, so that nothing else goes than what was looked at
     */
    public record ShownLetter(
            String to,
            String subject,
            String text,
            List<String> files,
            String seen,
            List<Channel> channels,
            List<String> notes,
            @Schema(nullable = true) AsText asText) {
        /** Without the address of the page, which a draft is given only once it is issued. */
        ShownLetter withoutAddress() {
            return asText != null
                    ? this
                    : new ShownLetter(
                            to, subject, text.replaceAll("/p/[\\w-]+", "/p/…"), files, seen, channels, notes, null);
        }
    }

    /**
     * How long a text message is.
     *
     * @param characters places that it takes
     * @param parts in which it goes, each paid for
     * @param cost of all parts, in the business's currency
     */
    public record AsText(int characters, int parts, String cost) {}

    /** Sends one letter to a client and returns its key; null where that very act was done before. */
    public interface Sending {
        String send(Slip slip);
    }

    /**
     * Looks at what an act would send.
     *
     * @param recipient whom it goes to where nothing else is typed
     * @param slip what was typed, or null; what is said to have been seen is the letter without it
     * @throws ConflictException where the act was done before
     */
    public ShownLetter at(Client.Recipient recipient, Slip slip, Sending act) {
        Slip typed = Slip.checked(slip);
        String to = typed.toOr(destinations.usual(recipient, typed));
        // Where there is no address yet the letter is shown all the same; it is typed beside it.
        String trial = to.isBlank() ? destinations.standIn(typed) : to;
        Undone plain = undone(act, typed.plain().toLook(trial));
        Undone shown = typed.changesNothing() ? plain : undone(act, typed.toLook(trial));
        return new ShownLetter(
                to,
                shown.letter().subject(),
                shown.letter().text(),
                shown.files(),
                Slip.digest(plain.letter().subject(), plain.letter().text()),
                destinations.channels(),
                shown.notes(),
                typed.isText() ? asText(shown.letter().text()) : null);
    }

    private AsText asText(String text) {
        TextLength length = TextLength.of(text);
        CurrencyUnit own = business.business().currencyUnit();
        return new AsText(
                length.characters(),
                length.parts(),
                Shown.money(length.cost(settings.texts().price(), own)));
    }

    /** A letter as it would go, and names of what is attached. */
    private record Undone(MessageRepository.Looked letter, List<String> files, List<String> notes) {}

    /** Sends, reads what would go, and takes all of it back. */
    private Undone undone(Sending act, Slip slip) {
        return transaction.execute(status -> {
            status.setRollbackOnly();
            String key = act.send(slip);
            if (key == null) {
                throw new ConflictException("That was done already; there is no letter left to look at.");
            }
            MessageRepository.Looked letter = repository.looked(key).orElseThrow();
            return new Undone(
                    letter,
                    papers.of(letter.id()).stream().map(p -> p.what().name()).toList(),
                    letter.letter().asksForMoney() && letter.documentId() != null
                            ? ways.notes(letter.documentId())
                            : List.of());
        });
    }
}
