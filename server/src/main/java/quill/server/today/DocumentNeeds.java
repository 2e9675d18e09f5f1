package quill.server.today;

import java.time.LocalDate;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.server.common.Amount;
import quill.server.common.Shown;
import quill.server.debts.AgreedTerms;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.quotes.QuoteWaits;

/** Quotes and milestones that only a person can decide about. */
@Component
class DocumentNeeds {
    private final QuoteWaits quotes;
    private final AgreedTerms terms;
    private final InvoicesService invoices;

    DocumentNeeds(QuoteWaits quotes, AgreedTerms terms, InvoicesService invoices) {
        this.quotes = quotes;
        this.terms = terms;
        this.invoices = invoices;
    }

    /** Work that goes on to a milestone before anything more is due. */
    void milestones(List<Needs.Need> needs) {
        for (AgreedTerms.Milestone m : terms.next()) {
            Document invoice = invoices.invoice(m.documentId());
            needs.add(new Needs.Need(
                    "milestone",
                    m.id(),
                    invoice.id(),
                    invoice.clientId(),
                    null,
                    "Waits for “" + m.name() + "”: " + invoice.number() + ", " + invoice.clientName(),
                    Shown.money(Amount.ofMinor(invoice.currency(), invoice.openMinor())
                                    .money())
                            + " is open, and nothing more is due before that. Say on its record when it is reached."));
        }
    }

    /** Days of quotes up to one. */
    List<QuoteWaits.QuoteDay> quoteDays(LocalDate to) {
        return quotes.days(to);
    }

    /** What of quotes waits for the business. */
    void quotes(List<Needs.Need> needs) {
        quotes.all()
                .forEach(w -> needs.add(new Needs.Need(
                        w.kind(),
                        w.id(),
                        null,
                        w.quote().clientId(),
                        null,
                        w.title(),
                        w.text(),
                        w.quote().id())));
    }
}
