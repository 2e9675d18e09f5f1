package quill.server.quotes;

import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import quill.core.issued.IssuedDocument;
import quill.server.audit.Happenings;
import quill.server.common.Amount;
import quill.server.common.News;
import quill.server.common.Shown;
import quill.server.documents.Document;

/** Tells the business, and the record, what became of a quote. */
@Component
class QuoteNews {
    private final Happenings happenings;
    private final ApplicationEventPublisher publisher;

    QuoteNews(Happenings happenings, ApplicationEventPublisher publisher) {
        this.happenings = happenings;
        this.publisher = publisher;
    }

    void accepted(Document quote, String name, boolean byHand, IssuedDocument as) {
        String what = "Accepted by " + name + (byHand ? ", noted by hand" : "") + ": "
                + Shown.money(as.sums().total().amount());
        tell(quote, byHand, what);
        if (!byHand) {
            publish(quote, quote.clientName() + " accepted quote " + quote.number(), as);
        }
    }

    void declined(Document quote, String name, String reason, boolean byHand) {
        String why = reason.isEmpty() ? "" : ": " + reason;
        tell(quote, byHand, (byHand ? "Declined by " + name + ", noted by hand" : "Declined on its page") + why);
        if (!byHand) {
            publish(quote, quote.clientName() + " declined quote " + quote.number() + why, null);
        }
    }

    void asked(Document quote, String text) {
        tell(quote, false, "Asked on its page: " + text);
        publish(quote, quote.clientName() + " asks about quote " + quote.number() + ": " + text, null);
    }

    private void tell(Document quote, boolean byHand, String what) {
        Runnable note = () -> happenings.tell(quote.id(), quote.clientId(), what);
        if (byHand) {
            note.run();
        } else {
            Happenings.asClient(quote.clientName(), note);
        }
    }

    private void publish(Document quote, String text, IssuedDocument as) {
        publisher.publishEvent(new News(
                News.Kind.QUOTE,
                text,
                as == null ? null : Amount.of(as.sums().total().amount()),
                quote.clientId(),
                quote.id()));
    }
}
