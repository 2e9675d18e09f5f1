package quill.server.invoices;

import java.util.List;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Why;
import quill.core.document.CreditTotals;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.money.Amounts;
import quill.core.money.Exchange;
import quill.core.schedule.Due;
import quill.core.schedule.Installment;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.catalogue.Stock;
import quill.server.debts.Debts;
import quill.server.debts.Settling;
import quill.server.documents.Document;
import quill.server.documents.DraftReckoner;
import quill.server.documents.Fixing;
import quill.server.latefees.FeePolicies;

/** What follows from an invoice that is issued, and from one that counts no more: entries, debts, stock. */
@Component
class InvoiceBooking {
    private final BooksService books;
    private final Debts debts;
    private final Settling settling;
    private final FeePolicies policies;
    private final Rates rates;
    private final Stock stock;
    private final BusinessService business;
    private final Happenings happenings;

    InvoiceBooking(
            BooksService books,
            Debts debts,
            Settling settling,
            FeePolicies policies,
            Rates rates,
            Stock stock,
            BusinessService business,
            Happenings happenings) {
        this.books = books;
        this.debts = debts;
        this.settling = settling;
        this.policies = policies;
        this.rates = rates;
        this.stock = stock;
        this.business = business;
        this.happenings = happenings;
    }

    /** What is prepaid comes out of deposits held; more than is held was never received. */
    void checkDeposits(ClientId clientId, Totals totals) {
        settling.checkDeposits(clientId, totals.prepaid());
    }

    /** Books an invoice of today, and settles it by client credit as far as that goes. */
    @Transactional(propagation = Propagation.MANDATORY)
    void issued(Document invoice, TypedDraft typed, DraftReckoner.Reckoned reckoned) {
        DocumentId id = invoice.id();
        Money total = reckoned.totals().total();
        String subject = Fixing.text(typed.subject());
        rates.noteFirst(
                total.getCurrencyUnit(), invoice.issuedOn(), reckoned.read().exchange());
        long entry = books.book(
                Bookings.issued(id, reckoned.totals(), reckoned.deducted()),
                "Invoice " + invoice.number() + (subject.isEmpty() ? "" : " · " + subject),
                about(invoice),
                null,
                reckoned.read().exchange());
        policies.fix(id, reckoned.lateFee(), reckoned.totals().feeTax());
        debts.add(invoice.clientId(), id, invoice.number(), reckoned.schedule());
        stock.issued(id, reckoned.sold());
        settling.deduct(invoice.clientId(), id, reckoned.totals().prepaid(), entry);
        settling.waitNoLonger(id);
        settling.useCredit(invoice.clientId(), total.getCurrencyUnit());
        tell(id, invoice.clientId(), "Issued as " + invoice.number() + ", " + inWords(total));
    }

    /** Books a deposit invoice of today: it is due at once, and money that is there settles it. */
    @Transactional(propagation = Propagation.MANDATORY)
    void depositIssued(Document invoice, Document quote, CreditTotals totals, Exchange exchange) {
        Money total = totals.total();
        rates.noteFirst(total.getCurrencyUnit(), invoice.issuedOn(), exchange);
        books.book(
                Bookings.depositInvoiced(invoice.id(), totals),
                "Deposit invoice " + invoice.number() + " · quote " + quote.number(),
                about(invoice),
                null,
                exchange);
        debts.add(
                invoice.clientId(),
                invoice.id(),
                invoice.number(),
                List.of(new Installment(
                        1,
                        true,
                        total,
                        invoice.issuedOn(),
                        new Due.AfterIssue(0),
                        Why.of("the deposit that was received", Amounts.grouped(total)))));
        tell(
                invoice.id(),
                invoice.clientId(),
                "Issued as " + invoice.number() + " for a deposit on quote " + quote.number() + ", " + inWords(total));
        tell(quote.id(), invoice.clientId(), "Deposit of " + inWords(total) + ": invoice " + invoice.number());
    }

    /** Undoes what an invoice did when it was issued. @param forGood whether it is void, rather than a draft again */
    @Transactional(propagation = Propagation.MANDATORY)
    void withdrawn(Document invoice, String why, boolean forGood) {
        DocumentId id = invoice.id();
        debts.remove(id);
        long entry = books.reverse(
                books.entryOf(Entry.Event.ISSUED, id).orElseThrow().id(),
                forGood ? Entry.Event.VOIDED : Entry.Event.TAKEN_BACK,
                "Invoice " + invoice.number() + (forGood ? " voided: " : " taken back, not sent yet: ") + why,
                about(invoice));
        settling.putBack(invoice.clientId(), id, entry);
        policies.unfix(id);
        stock.takenBack(id);
    }

    /** Tells what happened to an invoice. */
    void tell(DocumentId invoiceId, ClientId clientId, String what) {
        happenings.tell(invoiceId, clientId, what);
    }

    private static BooksService.About about(Document invoice) {
        return new BooksService.About(invoice.clientId(), invoice.id(), null);
    }

    /** In another currency than the business's own it says which. */
    private String inWords(Money total) {
        String code = total.getCurrencyUnit().getCode();
        return (code.equals(business.business().currency()) ? "" : code + " ") + Amounts.grouped(total);
    }
}
