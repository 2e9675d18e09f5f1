package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.common.NotFoundException;
import quill.server.common.Shown;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.documents.Reckoning;
import quill.server.ways.WayChoice;
import quill.server.ways.WaysService;
import quill.server.ways.WaysService.WayOffer;

/** In which ways a document can be paid: the sum that its page asks for first, or would if it were issued now. */
@Service
public class DocumentWays {
    private final Documents documents;
    private final LetterBasics basics;
    private final WaysService ways;
    private final AskedOnQuotes onQuotes;
    private final ApplicationEventPublisher publisher;

    DocumentWays(
            Documents documents,
            LetterBasics basics,
            WaysService ways,
            AskedOnQuotes onQuotes,
            ApplicationEventPublisher publisher) {
        this.publisher = publisher;
        this.documents = documents;
        this.basics = basics;
        this.ways = ways;
        this.onQuotes = onQuotes;
    }

    /**
     * The ways of a document.
     *
     * @param choice what the document is limited to
     * @param hold whether its page only holds a card's money
     * @param sum that is asked for first; null where nothing is asked for
     * @param none whether there is no way at all to pay what is asked for
     */
    public record WaysOfDocument(
            WayChoice choice,
            boolean hold,
            @Schema(nullable = true) Amount sum,
            List<WayOffer> offers,
            boolean none) {}

    /** An invoice, or a quote: what is asked for on it is paid before there is an invoice. */
    private Document document(DocumentId id) {
        return documents
                .find(id)
                .filter(d -> d.kind() == DocumentKind.QUOTE || d.kind().asksForMoney())
                .orElseThrow(() -> new NotFoundException("There is no invoice or quote " + id + "."));
    }

    /** As they are now. */
    public WaysOfDocument of(DocumentId id) {
        return of(document(id));
    }

    private WaysOfDocument of(Document document) {
        Money sum = asked(document);
        List<WayOffer> offers = sum == null ? List.of() : ways.offers(sum, document.clientId(), document.id());
        return new WaysOfDocument(
                WayChoice.of(ways.ofDocument(document.id())),
                ways.holds(document.id()),
                sum == null ? null : Amount.of(sum),
                offers,
                sum != null && offers.stream().noneMatch(WayOffer::offered));
    }

    /** Limits a document to some ways, or takes that away. */
    public WaysOfDocument choose(DocumentId id, WayChoice choice) {
        ways.chooseForDocument(id, document(id).clientId(), choice.set());
        return of(id);
    }

    /** Lets its page only hold a card's money, or take it. */
    @Transactional
    public WaysOfDocument hold(DocumentId id, boolean holds) {
        ways.hold(id, document(id).clientId(), holds);
        publisher.publishEvent(new WaysService.HoldChanged(id));
        return of(id);
    }

    private Money asked(Document document) {
        if (document.kind() == DocumentKind.QUOTE) {
            Money missing = onQuotes.missing(document);
            return missing.isPositive() ? missing : null;
        }
        if (!document.isDraft()) {
            return basics.askedNow(basics.about(document));
        }
        Reckoning reckoned = documents.reckon(documents.typed(document));
        return reckoned.installments().stream()
                .findFirst()
                .map(i -> i.amount().money())
                .orElseGet(() -> Money.of(CurrencyUnit.of(document.currency()), 1));
    }

    /** What to know of the ways before a letter about a document goes, each a sentence; empty where all is offered. */
    List<String> notes(DocumentId id) {
        WaysOfDocument all = of(documents.find(id).orElseThrow());
        List<String> missing = all.offers().stream()
                .filter(o -> o.on() && !o.offered())
                .map(o -> "Not by " + o.words() + ": " + o.missing() + ".")
                .toList();
        return all.none()
                ? java.util.stream.Stream.concat(
                                java.util.stream.Stream.of("There is no way to pay "
                                        + Shown.money(all.sum().money())
                                        + ": the letter asks for it, and its page can take nothing."),
                                missing.stream())
                        .toList()
                : missing;
    }
}
