package quill.server.quotes;

import java.time.LocalDate;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.business.BusinessService;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Jobs;
import quill.server.invoices.DepositInvoices;
import quill.server.invoices.InvoicesService;
import quill.server.payments.QuoteMoney;
import quill.server.requests.Requests;

/**
 * Money that comes on an accepted quote. A business that charges tax issues a deposit invoice for it, since the tax is due
 * with the money; another holds it as a deposit. Where all of the quote comes at once, its invoice is issued.
 */
@Component
class QuoteReceiving implements QuoteMoney {
    private final QuotesService quotes;
    private final Requests requests;
    private final Jobs jobs;
    private final DepositInvoices deposits;
    private final QuoteInvoicing invoicing;
    private final InvoicesService invoices;
    private final BusinessService business;

    QuoteReceiving(
            QuotesService quotes,
            Requests requests,
            Jobs jobs,
            DepositInvoices deposits,
            QuoteInvoicing invoicing,
            InvoicesService invoices,
            BusinessService business) {
        this.quotes = quotes;
        this.requests = requests;
        this.jobs = jobs;
        this.deposits = deposits;
        this.invoicing = invoicing;
        this.invoices = invoices;
        this.business = business;
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public Becomes receive(DocumentId quoteId, Money amount, LocalDate receivedOn, boolean asked) {
        Document quote = quotes.quote(quoteId);
        if (quote.state() != DocumentState.ACCEPTED) {
            return new Becomes(null, false);
        }
        Money most = asked ? requests.missing(quote) : requests.left(quote);
        Money counts = Amounts.min(amount, most);
        if (!counts.isPositive()) {
            return new Becomes(null, false);
        }
        if (isWhole(quote, counts)) {
            DocumentId invoice = invoicing.begin(quoteId, QuoteInvoicing.ToBill.REST);
            if (invoices.canBeIssued(invoice)) {
                invoices.issue(invoice, invoices.invoice(invoice).version());
                return new Becomes(invoice, false);
            }
        }
        return business.business().registered()
                ? new Becomes(deposits.issue(quote, counts, receivedOn), false)
                : new Becomes(null, true);
    }

    /** Whether it is all of a quote of which nothing came, and nothing is billed. */
    private boolean isWhole(Document quote, Money counts) {
        return counts.isEqual(quote.total()) && jobs.billed(quote.id()).isEmpty();
    }

    @Override
    public Money missing(DocumentId quoteId) {
        return requests.missing(quotes.quote(quoteId));
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public void booked(DocumentId quoteId) {
        requests.changed(quotes.quote(quoteId));
    }
}
