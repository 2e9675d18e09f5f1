package quill.server.creditnotes;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.Taken;
import quill.core.id.DocumentId;
import quill.core.issued.CreditNoteWriting;
import quill.core.issued.IssuedDocument;
import quill.core.ledger.Appropriation;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;
import quill.server.business.DocumentSettings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.documents.NumberSeries;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.InvoicesService;

/** Takes invoices back by credit notes: the only way to correct one that was sent. */
@Service
public class Crediting {
    private final CreditNotes notes;
    private final Documents documents;
    private final InvoicesService invoices;
    private final NumberSeries numbers;
    private final DocumentSettings settings;
    private final ClientsService clients;
    private final CreditBooking booking;
    private final BusinessClock clock;

    Crediting(
            CreditNotes notes,
            Documents documents,
            InvoicesService invoices,
            NumberSeries numbers,
            DocumentSettings settings,
            ClientsService clients,
            CreditBooking booking,
            BusinessClock clock) {
        this.notes = notes;
        this.documents = documents;
        this.invoices = invoices;
        this.numbers = numbers;
        this.settings = settings;
        this.clients = clients;
        this.booking = booking;
        this.clock = clock;
    }

    /** A quantity of a line to be taken back, as typed. @param line its place from 0 */
    public record TypedPart(int line, String quantity) {}

    /**
     * What is to be taken back, as typed.
     *
     * @param what rest, lines or amount
     * @param charges places of charges to be taken back whole
     * @param replace whether a new draft with the same lines is wanted; the credit then waits for it
     */
    public record Wanted(
            String what, String reason, List<TypedPart> lines, List<Integer> charges, String amount, boolean replace) {
        /** All that is left. */
        public static Wanted rest(String reason, boolean replace) {
            return new Wanted("rest", reason, List.of(), List.of(), "", replace);
        }

        /** The same with its numbers as programs write them. @param mark with which they were typed */
        public Wanted plain(DecimalMark mark) {
            return new Wanted(
                    what,
                    reason,
                    lines == null
                            ? null
                            : lines.stream()
                                    .map(p -> new TypedPart(p.line(), mark.plain(p.quantity())))
                                    .toList(),
                    charges,
                    mark.plain(amount),
                    replace);
        }
    }

    /**
     * A note that was written.
     *
     * @param draftId the draft that replaces the invoice, or null
     * @param settled what else the credit settled that came of it
     */
    public record Written(CreditNote note, DocumentId draftId, List<Appropriation.Part> settled) {}

    /** What a note would say. Stores nothing. */
    public PrintedDocument preview(DocumentId invoiceId, Wanted wanted) {
        IssuedDocument document = documents.issued(issued(invoiceId));
        Creditable creditable = document.creditable();
        Taken before = notes.taken(invoiceId, creditable);
        CreditTotals totals = reckon(creditable, before, wanted);
        String reason = wanted.reason() == null ? "" : wanted.reason().strip();
        return documents.printed(
                DocumentKind.CREDIT_NOTE, note("", document, totals, totals.whole() && before.isNothing(), reason));
    }

    /**
     * Takes an invoice back, whole or in part. It lowers the open installments from the last one backwards; what no
     * installment takes becomes client credit. With the last of an invoice all that was paid on it becomes client
     * credit, its late fees are waived, and what was prepaid is a deposit again.
     *
     * @throws RefusedException naming the field, with the figure that would be allowed
     * @throws ConflictException for a draft, a voided invoice, or one that was taken back whole
     */
    @Transactional
    public Written write(DocumentId invoiceId, Wanted wanted) {
        String reason = Texts.reason("reason", wanted.reason());
        // Looked at once the client is locked: another window may be voiding it, or taking it back, at this moment.
        clients.lock(issued(invoiceId).clientId());
        Document invoice = issued(invoiceId);
        if (wanted.replace() && invoice.kind() == DocumentKind.DEPOSIT_INVOICE) {
            throw new RefusedException(
                    "replace", true, "a deposit invoice comes about with its money; it is not written anew");
        }
        IssuedDocument document = documents.issued(invoice);
        Creditable creditable = document.creditable();
        Taken before = notes.taken(invoiceId, creditable);
        CreditTotals totals = reckon(creditable, before, wanted);
        NumberSeries.Given given = numbers.next(DocumentKind.CREDIT_NOTE, clock.today());
        String number = given.number();
        booking.withdrawDiscount(invoice, totals);
        boolean mirror = totals.whole() && before.isNothing();
        IssuedDocument fixed = note(number, document, totals, mirror, reason);
        CreditNote note = notes.add(fixed, given, invoice, totals);
        CreditBooking.Gained gained = booking.book(note.id(), invoice, document, totals, fixed, mirror);
        DocumentId draft = null;
        if (wanted.replace()) {
            draft = invoices.replacement(invoice);
            booking.letWait(draft, invoice, gained);
        }
        List<Appropriation.Part> settled = booking.settle(
                invoice,
                (totals.whole() ? "Taken back" : Amounts.grouped(totals.total()) + " taken back") + " by credit note "
                        + number + ": " + reason);
        return new Written(note, draft, settled);
    }

    private IssuedDocument note(String number, IssuedDocument of, CreditTotals totals, boolean mirror, String reason) {
        return CreditNoteWriting.write(
                number,
                of,
                totals,
                mirror,
                reason,
                clock.today(),
                settings.setting().layout());
    }

    private Document issued(DocumentId id) {
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft needs no credit note: change it, or throw it away.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided; there is nothing to take back.");
        }
        if (notes.isTakenBack(id)) {
            throw new ConflictException("This invoice was taken back already.");
        }
        booking.checkNothingWrittenOff(invoice);
        return invoice;
    }

    private static CreditTotals reckon(Creditable invoice, Taken before, Wanted wanted) {
        List<Problem> problems = new ArrayList<>();
        CreditTotals totals = null;
        if ("rest".equals(wanted.what())) {
            return CreditReckoning.ofRest(invoice, before);
        } else if ("lines".equals(wanted.what())) {
            Map<Integer, BigDecimal> lines = new TreeMap<>();
            for (TypedPart part : wanted.lines() == null ? List.<TypedPart>of() : wanted.lines()) {
                lines.put(
                        part.line(),
                        TypedNumber.read("lines[" + part.line() + "].quantity", part.quantity(), 6, true, problems));
            }
            List<Integer> charges = wanted.charges() == null ? List.of() : wanted.charges();
            totals = problems.isEmpty() ? CreditReckoning.ofLines(invoice, before, lines, charges) : null;
        } else if ("amount".equals(wanted.what())) {
            Money amount = TypedNumber.amount("amount", wanted.amount(), invoice.currency(), problems);
            totals = problems.isEmpty() ? CreditReckoning.ofAmount(invoice, before, amount) : null;
        } else {
            problems.add(new Problem("what", wanted.what(), "must be rest, lines or amount"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return totals;
    }
}
