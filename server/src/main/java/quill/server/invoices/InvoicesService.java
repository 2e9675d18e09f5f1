package quill.server.invoices;

import java.security.SecureRandom;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.CreditorReference;
import quill.core.document.NumberPattern;
import quill.core.document.TypedDraft;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Figure;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;
import quill.server.debts.Debts.StoredInstallment;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;

/** Invoices from the first keystroke to the credit note. */
@Service
public class InvoicesService {
    private static final int MOST_TYPED = 400_000;
    private final InvoiceRepository repository;
    private final DraftReckoner reckoner;
    private final BusinessService business;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final FeePolicies policies;
    private final LateFees fees;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;
    private final Json json;
    private final SecureRandom random = new SecureRandom();

    InvoicesService(
            InvoiceRepository repository,
            DraftReckoner reckoner,
            BusinessService business,
            ClientsService clients,
            BooksService books,
            Debts debts,
            FeePolicies policies,
            LateFees fees,
            Happenings happenings,
            Changes changes,
            BusinessClock clock,
            Json json) {
        this.repository = repository;
        this.reckoner = reckoner;
        this.business = business;
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.policies = policies;
        this.fees = fees;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
        this.json = json;
    }

    /** A credit note of the whole of an invoice. */
    public record Credited(String number, LocalDate issuedOn, String reason, Money total) {}

    /** Reckons what was typed, as if it were issued today. Stores nothing. */
    public Reckoning reckon(TypedDraft typed) {
        return reckoner.reckon(typed, clock.today()).view();
    }

    /** Keeps a new draft, whatever was typed. @return its id */
    @Transactional
    public long begin(TypedDraft typed, Long replaces) {
        byte[] token = new byte[24];
        random.nextBytes(token);
        String text = Base64.getUrlEncoder().withoutPadding().encodeToString(token);
        return repository.insertDraft(draft(0, 0, typed, text, replaces), LocalDateTime.now(clock));
    }

    /** Keeps what was typed, readable or not. @throws ConflictException if another window kept something else first */
    @Transactional
    public int keep(long id, int version, TypedDraft typed) {
        Invoice before = invoice(id);
        if (repository.updateDraft(draft(id, version, typed, before.token(), before.replacesId())) != 1) {
            throw new ConflictException(
                    before.isDraft()
                            ? "This draft was changed in another window. Nothing you typed is lost here; load the other"
                                    + " or copy yours over."
                            : "This invoice was issued meanwhile, as " + before.number() + ". It is fixed now.");
        }
        return version + 1;
    }

    private Invoice draft(long id, int version, TypedDraft typed, String token, Long replaces) {
        String text = json.write(typed);
        if (text.length() > MOST_TYPED) {
            throw new RefusedException("lines", typed.lines().size(), "this is more than one document can hold");
        }
        String name =
                typed.clientId() == null ? "" : clients.client(typed.clientId()).name();
        DraftReckoner.Reckoned reckoned = reckoner.reckon(typed, clock.today());
        String subject = typed.subject() == null ? "" : typed.subject().strip();
        return new Invoice(
                id,
                typed.clientId(),
                name,
                "draft",
                null,
                subject.length() > 200 ? subject.substring(0, 200) : subject,
                reckoned.read().currency().getCode(),
                reckoned.totals() == null ? null : reckoned.totals().total().getAmountMinorLong(),
                0,
                null,
                null,
                text,
                null,
                token,
                replaces,
                version);
    }

    /** Throws a draft away. */
    @Transactional
    public void discard(long id, int version) {
        if (repository.deleteDraft(id, version) != 1) {
            throw new ConflictException("This draft was changed or issued meanwhile; it was not thrown away.");
        }
    }

    /**
     * Issues a draft: it gets the next number, is fixed, booked, and settled by client credit as far as that goes.
     *
     * @throws RefusedException with every field that has to be mended first
     * @throws ConflictException if it changed since it was read, or was issued already
     */
    @Transactional
    public Invoice issue(long id, int version) {
        Invoice draft = invoice(id);
        if (!draft.isDraft()) {
            throw new ConflictException("This invoice was issued already, as " + draft.number() + ".");
        }
        TypedDraft typed = json.read(draft.typed(), TypedDraft.class);
        LocalDate today = clock.today();
        DraftReckoner.Reckoned reckoned = reckoner.reckon(typed, today);
        checkWhole(typed, reckoned);
        Client client = clients.lock(typed.clientId());
        Business own = business.business();
        NumberPattern pattern = new NumberPattern(own.invoicePattern());
        int sequence = repository.nextNumber("invoice", pattern.seriesOf(today.getYear()));
        String number = pattern.format(today.getYear(), sequence);
        FixedDocument fixed = fix(number, own, client, typed, reckoned, today);
        Money total = reckoned.totals().total();
        if (repository.issue(id, version, number, today, total.getAmountMinorLong(), json.write(fixed)) != 1) {
            throw new ConflictException("This draft was changed in another window. Look at it again before issuing.");
        }
        books.book(
                Bookings.issued(id, reckoned.read().lines(), reckoned.totals()),
                "Invoice " + number + (fixed.subject().isEmpty() ? "" : " · " + fixed.subject()),
                new BooksService.About(client.id(), id, null),
                null);
        policies.fix(id, client.id(), typed.lateFee());
        debts.add(client.id(), id, reckoned.schedule());
        debts.useCredit(client.id(), total.getCurrencyUnit());
        happenings.note(id, client.id(), "Issued as " + number + ", " + Amounts.grouped(total));
        changes.say(id, client.id());
        return invoice(id);
    }

    private void checkWhole(TypedDraft typed, DraftReckoner.Reckoned reckoned) {
        List<Problem> problems = new java.util.ArrayList<>(reckoned.problems());
        if (typed.clientId() == null) {
            problems.add(0, new Problem("clientId", "", "choose the client whom this invoice is for"));
        }
        if (typed.supplyDate() == null || typed.supplyDate().isBlank()) {
            problems.add(new Problem("supplyDate", "", "say when the work was or will be done"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    private FixedDocument fix(
            String number,
            Business own,
            Client client,
            TypedDraft typed,
            DraftReckoner.Reckoned reckoned,
            LocalDate today) {
        var totals = reckoned.totals();
        return new FixedDocument(
                number,
                new FixedDocument.Party(own.name(), own.tagline(), own.address(), own.email(), own.taxNumber()),
                new FixedDocument.Party(
                        client.name(), client.contact(), client.address(), client.email(), client.taxNumber()),
                text(typed.subject()),
                text(typed.reference()),
                today,
                reckoned.read().supplyDate(),
                reckoned.read().supplyEnd(),
                typed.taxInside(),
                own.currency(),
                DraftReckoner.printed(typed, reckoned),
                totals.taxes().stream()
                        .map(t -> new FixedDocument.PrintedTax(
                                t.tax().name(),
                                t.tax().rate().toString(),
                                t.tax().category().name(),
                                t.tax().reason(),
                                quill.server.common.Amount.of(t.base()),
                                quill.server.common.Amount.of(t.amount()),
                                t.why()))
                        .toList(),
                Figure.of(totals.net(), totals.netWhy()),
                Figure.of(totals.tax(), totals.taxWhy()),
                Figure.of(totals.total(), totals.totalWhy()),
                text(typed.notes()),
                own.footer(),
                own.iban(),
                own.bic(),
                CreditorReference.of(number),
                reckoned.lateFee().words());
    }

    /**
     * Takes an issued invoice back whole by a credit note. What was paid on it becomes client credit.
     *
     * @param replace whether a new draft with the same lines is wanted; the credit then waits for it
     * @return the id of the new draft, or empty
     */
    @Transactional
    public Optional<Long> credit(long id, String reason, boolean replace) {
        Invoice invoice = invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft needs no credit note: change it, or throw it away.");
        }
        String why = reason == null ? "" : reason.strip();
        if (why.isEmpty() || why.length() > 300) {
            throw new RefusedException("reason", reason, "say why in up to 300 characters; it is printed");
        }
        clients.lock(invoice.clientId());
        if (repository.creditNoteOf(id).isPresent()) {
            throw new ConflictException("This invoice was taken back already.");
        }
        Entry issued = storedEntry(id);
        LocalDate today = clock.today();
        NumberPattern pattern = new NumberPattern(business.business().creditNotePattern());
        String number = pattern.format(
                today.getYear(), repository.nextNumber("credit note", pattern.seriesOf(today.getYear())));
        books.book(
                Bookings.creditedWhole(issued),
                "Credit note " + number + " · takes back " + invoice.number(),
                new BooksService.About(invoice.clientId(), id, null),
                books.entryOf(Entry.Event.ISSUED, id).orElseThrow().id());
        repository.insertCreditNote(
                id, new InvoiceRepository.CreditNote(number, today, why, invoice.currency(), invoice.totalMinor()));
        fees.waiveAllOf(id, "invoice taken back by credit note " + number);
        debts.creditWhole(invoice.clientId(), id);
        if (!replace) {
            debts.useCredit(invoice.clientId(), CurrencyUnit.of(invoice.currency()));
        }
        happenings.note(id, invoice.clientId(), "Taken back by credit note " + number + ": " + why);
        changes.say(id, invoice.clientId());
        return replace ? Optional.of(begin(json.read(invoice.typed(), TypedDraft.class), id)) : Optional.empty();
    }

    private Entry storedEntry(long invoiceId) {
        var booked = books.entryOf(Entry.Event.ISSUED, invoiceId).orElseThrow();
        return new Entry(
                booked.event(),
                booked.postings().stream()
                        .map(p -> new quill.core.ledger.Posting(p.account(), p.detail(), invoiceId, p.amount()))
                        .toList());
    }

    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        List<StoredInstallment> installments = debts.of(change.invoiceId());
        long open = installments.stream()
                .mapToLong(i -> i.open().getAmountMinorLong())
                .sum();
        LocalDate nextDue = installments.stream()
                .filter(i -> i.open().isPositive())
                .map(StoredInstallment::dueOn)
                .min(LocalDate::compareTo)
                .orElse(null);
        repository.refresh(change.invoiceId(), open, nextDue, clock.today());
        changes.say(change.invoiceId(), null);
    }

    /** One invoice. @throws NotFoundException if there is none of that id */
    public Invoice invoice(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no invoice " + id + "."));
    }

    /** Several invoices by id, without their texts. */
    public Map<Long, Invoice> some(Collection<Long> ids) {
        return ids.isEmpty() ? Map.of() : repository.some(ids).stream().collect(Collectors.toMap(Invoice::id, i -> i));
    }

    /** The issued invoice of a client's link. @throws NotFoundException for a link that leads nowhere */
    public Invoice byToken(String token) {
        return repository
                .byToken(token)
                .orElseThrow(() -> new NotFoundException(
                        "This link leads to no invoice. Ask the sender for a new one; nothing was charged."));
    }

    /** What an issued invoice says. */
    public FixedDocument document(Invoice invoice) {
        return json.read(invoice.fixed(), FixedDocument.class);
    }

    /** What was typed into a draft. */
    public TypedDraft typed(Invoice invoice) {
        return json.read(invoice.typed(), TypedDraft.class);
    }

    /** The credit note that took an invoice back, if one did. */
    public Optional<Credited> creditNoteOf(long invoiceId) {
        return repository
                .creditNoteOf(invoiceId)
                .map(n -> new Credited(
                        n.number(),
                        n.issuedOn(),
                        n.reason(),
                        Money.ofMinor(CurrencyUnit.of(n.currency()), n.totalMinor())));
    }

    private static String text(String typed) {
        return typed == null ? "" : typed.strip();
    }
}
