package quill.server.creditnotes;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.ToLongFunction;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.CreditTotals;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.ledger.Appropriation;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.Entry;
import quill.core.ledger.Step;
import quill.core.ledger.TakingBack;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.catalogue.Stock;
import quill.server.common.ConflictException;
import quill.server.debts.Settling;
import quill.server.documents.Document;
import quill.server.invoices.EarlySettling;
import quill.server.latefees.LateFees;

/** What follows from a credit note: entries, debts, late fees, stock. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class CreditBooking {
    private final BooksService books;
    private final Settling settling;
    private final LateFees fees;
    private final Stock stock;
    private final BusinessService business;
    private final Happenings happenings;
    private final EarlySettling early;

    CreditBooking(
            BooksService books,
            Settling settling,
            LateFees fees,
            Stock stock,
            BusinessService business,
            Happenings happenings,
            EarlySettling early) {
        this.books = books;
        this.settling = settling;
        this.fees = fees;
        this.stock = stock;
        this.business = business;
        this.happenings = happenings;
        this.early = early;
    }

    /**
     * The discount for paying early is owed again before an invoice is taken back whole.
     *
     * @throws ConflictException where only a part is to be taken back of one that was paid with a discount
     */
    void withdrawDiscount(Document invoice, CreditTotals totals) {
        if (early.stands(invoice)) {
            if (!totals.whole()) {
                throw new ConflictException("This invoice was paid early, with a discount. A credit note takes it back"
                        + " whole; write another invoice for what is left.");
            }
            early.beforeTakingBack(invoice);
        }
    }

    /** What the client gained by a note, lot by lot, and how all stands after it. */
    record Gained(ClientLedger now, List<ClientLedger.OfLot> credit) {}

    /**
     * Books a note.
     *
     * @param id of the note
     * @param mirror whether it reverses the whole of an invoice of which nothing was taken before
     */
    Gained book(
            DocumentId id,
            Document invoice,
            IssuedDocument document,
            CreditTotals totals,
            IssuedDocument note,
            boolean mirror) {
        CurrencyUnit currency = document.currency();
        stock.credited(invoice.id(), pieces(note));
        ClientLedger before = settling.ledger(invoice.clientId(), currency);
        book(id, invoice, document, totals, mirror, note.number());
        ClientLedger now = settling.ledger(invoice.clientId(), currency);
        return new Gained(now, now.gainedSince(before));
    }

    /** @throws ConflictException where some of it was given up: what a note gives back would be owed, and given up, at once */
    @Transactional(propagation = Propagation.SUPPORTS)
    void checkNothingWrittenOff(Document invoice) {
        if (settling.writtenOff(invoice.id(), CurrencyUnit.of(invoice.currency()))
                .isPositive()) {
            throw new ConflictException("Some of this invoice was written off. Say first that it is owed again.");
        }
    }

    /** Keeps what was gained for the draft that takes the invoice's place. */
    void letWait(DocumentId draft, Document invoice, Gained gained) {
        settling.letWait(draft, invoice.clientId(), gained.now(), gained.credit());
    }

    /** Settles what else is open by credit that nothing waits for, and tells what happened. @return what it settled */
    List<Appropriation.Part> settle(Document invoice, String what) {
        List<Appropriation.Part> settled = settling.useCredit(invoice.clientId(), CurrencyUnit.of(invoice.currency()));
        happenings.tell(invoice.id(), invoice.clientId(), what);
        return settled;
    }

    private static Map<Long, BigDecimal> pieces(IssuedDocument note) {
        Map<Long, BigDecimal> pieces = new TreeMap<>();
        note.lines().stream()
                .filter(l -> l.item() != null)
                .forEach(l -> pieces.merge(l.item(), l.quantity(), BigDecimal::add));
        return pieces;
    }

    private void book(
            DocumentId id,
            Document invoice,
            IssuedDocument document,
            CreditTotals totals,
            boolean mirror,
            String number) {
        Money given = totals.total().plus(totals.rounding());
        ToLongFunction<Step> entry = step -> books.book(
                step.entry(),
                "Credit note " + number + " · takes back " + (totals.whole() ? "" : "part of ") + invoice.number(),
                new BooksService.About(invoice.clientId(), invoice.id(), null),
                mirror
                        ? books.entryOf(Entry.Event.ISSUED, invoice.id())
                                .orElseThrow()
                                .id()
                        : null,
                document.exchangeInto(business.business().currencyUnit()));
        if (totals.whole()) {
            fees.waiveAllOf(invoice.id(), "invoice taken back by credit note " + number);
            Money deposits = Amounts.min(document.sums().prepaid().amount(), given);
            settling.creditWhole(invoice.clientId(), new TakingBack.Note(id, invoice.id(), totals, deposits), entry);
        } else {
            Money none = Money.zero(given.getCurrencyUnit());
            settling.creditPart(invoice.clientId(), new TakingBack.Note(id, invoice.id(), totals, none), entry);
        }
    }
}
