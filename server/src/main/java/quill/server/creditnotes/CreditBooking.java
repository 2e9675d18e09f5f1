package quill.server.creditnotes;

import java.math.BigDecimal;
import java.util.Map;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.CreditTotals;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.catalogue.Stock;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.latefees.LateFees;

/** What follows from a credit note: entries, debts, late fees, stock. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class CreditBooking {
    private final BooksService books;
    private final Debts debts;
    private final LateFees fees;
    private final Stock stock;
    private final BusinessService business;
    private final Happenings happenings;

    CreditBooking(
            BooksService books,
            Debts debts,
            LateFees fees,
            Stock stock,
            BusinessService business,
            Happenings happenings) {
        this.books = books;
        this.debts = debts;
        this.fees = fees;
        this.stock = stock;
        this.business = business;
        this.happenings = happenings;
    }

    /**
     * Books a note.
     *
     * @param mirror whether it reverses the whole of an invoice of which nothing was taken before
     * @return the credit that the client gained by it
     */
    Money book(Document invoice, IssuedDocument document, CreditTotals totals, IssuedDocument note, boolean mirror) {
        CurrencyUnit currency = document.currency();
        stock.credited(invoice.id(), pieces(note));
        Money before = books.creditOf(invoice.clientId(), currency);
        book(invoice, document, totals, mirror, note.number());
        return books.creditOf(invoice.clientId(), currency).minus(before);
    }

    /** Keeps what was gained for the draft that takes the invoice's place. */
    void letWait(DocumentId draft, Document invoice, Money gained) {
        debts.letWait(draft, invoice.clientId(), gained);
    }

    /** Settles what else is open by credit that nothing waits for, and tells what happened. */
    void settle(Document invoice, String what) {
        debts.useCredit(invoice.clientId(), CurrencyUnit.of(invoice.currency()));
        happenings.tell(invoice.id(), invoice.clientId(), what);
    }

    private static Map<Long, BigDecimal> pieces(IssuedDocument note) {
        Map<Long, BigDecimal> pieces = new TreeMap<>();
        note.lines().stream()
                .filter(l -> l.item() != null)
                .forEach(l -> pieces.merge(l.item(), l.quantity(), BigDecimal::add));
        return pieces;
    }

    private void book(Document invoice, IssuedDocument document, CreditTotals totals, boolean mirror, String number) {
        Money given = totals.total().plus(totals.rounding());
        Money zero = Money.zero(given.getCurrencyUnit());
        Money deposits = zero;
        Money lowered;
        if (totals.whole()) {
            fees.waiveAllOf(invoice.id(), "invoice taken back by credit note " + number);
            deposits = Amounts.min(document.sums().prepaid().amount(), given);
            lowered = debts.creditWhole(invoice.clientId(), invoice.id(), given.getCurrencyUnit());
        } else {
            lowered = debts.creditPart(invoice.clientId(), invoice.id(), given);
        }
        books.book(
                Bookings.creditNote(invoice.id(), totals, lowered, deposits),
                "Credit note " + number + " · takes back " + (totals.whole() ? "" : "part of ") + invoice.number(),
                new BooksService.About(invoice.clientId(), invoice.id(), null),
                mirror
                        ? books.entryOf(Entry.Event.ISSUED, invoice.id())
                                .orElseThrow()
                                .id()
                        : null,
                document.exchangeInto(business.business().currencyUnit()));
    }
}
