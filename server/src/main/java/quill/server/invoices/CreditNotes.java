package quill.server.invoices;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.NumberPattern;
import quill.core.document.Taken;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.catalogue.Stock;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.latefees.LateFees;

/** Credit notes: the only way to correct an invoice that was sent. */
@Service
public class CreditNotes {
    private final CreditNoteRepository repository;
    private final InvoicesService invoices;
    private final NumberSeries numbers;
    private final CreditFixing fixing;
    private final BusinessService business;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final LateFees fees;
    private final Stock stock;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;
    private final Json json;

    CreditNotes(
            CreditNoteRepository repository,
            InvoicesService invoices,
            NumberSeries numbers,
            CreditFixing fixing,
            BusinessService business,
            ClientsService clients,
            BooksService books,
            Debts debts,
            LateFees fees,
            Stock stock,
            Happenings happenings,
            Changes changes,
            BusinessClock clock,
            Json json) {
        this.repository = repository;
        this.invoices = invoices;
        this.numbers = numbers;
        this.fixing = fixing;
        this.business = business;
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.fees = fees;
        this.stock = stock;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
        this.json = json;
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

    /** A note that was written. @param draftId the draft that replaces the invoice, or null */
    public record Written(CreditNote note, Long draftId) {}

    /** What a note would say. Stores nothing. */
    public FixedDocument preview(long invoiceId, Wanted wanted) {
        Invoice invoice = issued(invoiceId);
        FixedDocument document = invoices.document(invoice);
        Creditable creditable = CreditFixing.creditable(document);
        Taken before = taken(invoiceId, creditable);
        CreditTotals totals = reckon(creditable, before, wanted);
        String reason = wanted.reason() == null ? "" : wanted.reason().strip();
        return fixing.creditNote("", document, totals, totals.whole() && before.isNothing(), reason, clock.today());
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
    public Written write(long invoiceId, Wanted wanted) {
        String reason = Texts.reason("reason", wanted.reason());
        // Looked at once the client is locked: another window may be voiding it, or taking it back, at this moment.
        clients.lock(issued(invoiceId).clientId());
        Invoice invoice = issued(invoiceId);
        FixedDocument document = invoices.document(invoice);
        Creditable creditable = CreditFixing.creditable(document);
        Taken before = taken(invoiceId, creditable);
        CreditTotals totals = reckon(creditable, before, wanted);
        LocalDate today = clock.today();
        NumberSeries.Given given = numbers.next(
                DocumentKind.CREDIT_NOTE, new NumberPattern(business.business().creditNotePattern()), today);
        String number = given.number();
        boolean mirror = totals.whole() && before.isNothing();
        FixedDocument fixed = fixing.creditNote(number, document, totals, mirror, reason, today);
        CreditNote note = new CreditNote(
                0,
                number,
                invoiceId,
                today,
                reason,
                totals.total(),
                totals.whole(),
                json.write(fixed),
                json.write(totals.after()));
        long id = repository.insert(note);
        stock.credited(invoiceId, pieces(fixed));
        changes.touch(Findable.CREDIT_NOTE, id);
        CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
        Money creditBefore = books.creditOf(invoice.clientId(), currency);
        book(invoice, document, totals, mirror, number);
        Long draft = null;
        if (wanted.replace()) {
            draft = invoices.replacement(invoice);
            Money gained = books.creditOf(invoice.clientId(), currency).minus(creditBefore);
            debts.letWait(draft, invoice.clientId(), gained);
        }
        debts.useCredit(invoice.clientId(), currency);
        happenings.note(
                invoiceId,
                invoice.clientId(),
                (totals.whole() ? "Taken back" : Amounts.grouped(totals.total()) + " taken back") + " by credit note "
                        + number + ": " + reason);
        changes.say(invoiceId, invoice.clientId());
        return new Written(find(id), draft);
    }

    private static Map<Long, BigDecimal> pieces(FixedDocument note) {
        Map<Long, BigDecimal> pieces = new TreeMap<>();
        note.lines().stream()
                .filter(l -> l.item() != null)
                .forEach(l -> pieces.merge(l.item(), new BigDecimal(l.quantity()), BigDecimal::add));
        return pieces;
    }

    private void book(Invoice invoice, FixedDocument document, CreditTotals totals, boolean mirror, String number) {
        Money given = totals.total().plus(totals.rounding());
        Money zero = Money.zero(given.getCurrencyUnit());
        Money deposits = zero;
        Money lowered;
        if (totals.whole()) {
            fees.waiveAllOf(invoice.id(), "invoice taken back by credit note " + number);
            deposits = Amounts.min(document.prepaid().money(), given);
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
                Fixing.exchange(document, business.business().currencyUnit()));
    }

    private Invoice issued(long id) {
        Invoice invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft needs no credit note: change it, or throw it away.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided; there is nothing to take back.");
        }
        if (of(id).stream().anyMatch(CreditNote::whole)) {
            throw new ConflictException("This invoice was taken back already.");
        }
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

    private Taken taken(long invoiceId, Creditable invoice) {
        List<CreditNote> notes = of(invoiceId);
        return notes.isEmpty()
                ? Taken.nothing(invoice)
                : json.read(notes.get(notes.size() - 1).taken(), Taken.class);
    }

    /** What credit notes may still take of an invoice, and what is left of each line. */
    public Left left(Invoice invoice) {
        FixedDocument document = invoices.document(invoice);
        Creditable creditable = CreditFixing.creditable(document);
        List<CreditNote> notes = of(invoice.id());
        if (notes.stream().anyMatch(CreditNote::whole)) {
            return new Left(Money.zero(creditable.currency()), List.of(), List.of());
        }
        Taken before = taken(invoice.id(), creditable);
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < creditable.lines().size(); i++) {
            lines.add(creditable
                    .lines()
                    .get(i)
                    .quantity()
                    .subtract(before.lines().get(i))
                    .stripTrailingZeros()
                    .toPlainString());
        }
        return new Left(
                CreditReckoning.left(creditable, before),
                lines,
                before.charges().stream().map(c -> c.signum() == 0).toList());
    }

    /** @param lines the quantity left of each line @param charges whether each charge is still there */
    public record Left(Money amount, List<String> lines, List<Boolean> charges) {}

    /** An invoice's credit notes, oldest first. */
    public List<CreditNote> of(long invoiceId) {
        return repository.of(invoiceId);
    }

    /** One credit note. @throws NotFoundException if there is none of that id */
    public CreditNote find(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no credit note " + id + "."));
    }

    /** What a credit note says. */
    public FixedDocument document(CreditNote note) {
        return json.read(note.fixed(), FixedDocument.class);
    }

    /** The credit note that took the last of an invoice, if one did. */
    public Optional<CreditNote> wholeOf(long invoiceId) {
        return of(invoiceId).stream().filter(CreditNote::whole).findFirst();
    }
}
