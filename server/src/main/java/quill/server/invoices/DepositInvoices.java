package quill.server.invoices;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.Billed;
import quill.core.document.CreditTotals;
import quill.core.document.Taken;
import quill.core.id.DocumentId;
import quill.core.issued.DepositInvoiceWriting;
import quill.core.issued.IssuedDocument;
import quill.core.money.Exchange;
import quill.server.business.Rates;
import quill.server.common.BusinessClock;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;
import quill.server.documents.NumberSeries;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;

/** The tax document for a deposit that came on an accepted quote: its share of each set of taxes. */
@Component
public class DepositInvoices {
    private final Documents documents;
    private final Jobs jobs;
    private final NumberSeries numbers;
    private final Relations relations;
    private final InvoiceBooking booking;
    private final Rates rates;
    private final BusinessClock clock;

    DepositInvoices(
            Documents documents,
            Jobs jobs,
            NumberSeries numbers,
            Relations relations,
            InvoiceBooking booking,
            Rates rates,
            BusinessClock clock) {
        this.documents = documents;
        this.jobs = jobs;
        this.numbers = numbers;
        this.relations = relations;
        this.booking = booking;
        this.rates = rates;
        this.clock = clock;
    }

    /**
     * Issues one for money that is there; it is owed until that money is booked to it. The caller has locked the client.
     *
     * @param amount tax included; at most what is left of the quote
     * @return its id
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public DocumentId issue(Document quote, Money amount, LocalDate receivedOn) {
        Jobs.SoFar job = jobs.soFar(quote, false);
        List<Billed> before = job.before().stream().map(Jobs.Part::billed).toList();
        CreditTotals totals = DepositInvoiceWriting.reckon(
                job.whole(), Taken.billed(job.whole().creditable(), before), amount);
        LocalDate today = clock.today();
        NumberSeries.Given given = numbers.next(DocumentKind.DEPOSIT_INVOICE, today);
        Exchange exchange = rates.exchange(amount.getCurrencyUnit(), today)
                .orElse(job.whole().exchange());
        IssuedDocument fixed = DepositInvoiceWriting.write(
                given.number(),
                job.whole(),
                totals,
                today,
                receivedOn,
                exchange == null || exchange.own().equals(amount.getCurrencyUnit()) ? null : exchange,
                job.said(totals.total(), List.of()));
        DocumentId id = documents.write(DocumentKind.DEPOSIT_INVOICE, fixed, given, quote);
        relations.add(id, RelationKind.FROM_QUOTE, quote.id());
        booking.depositIssued(documents.find(id).orElseThrow(), quote, totals, exchange);
        return id;
    }
}
