package quill.server.invoices;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.NumberPattern;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.catalogue.Stock;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;
import quill.server.latefees.FeePolicies;
import quill.server.links.Links;

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
    private final Rates rates;
    private final NumberSeries numbers;
    private final Fixing fixing;
    private final Attachments attachments;
    private final Links links;
    private final Stock stock;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;
    private final Json json;

    InvoicesService(
            InvoiceRepository repository,
            DraftReckoner reckoner,
            BusinessService business,
            ClientsService clients,
            BooksService books,
            Debts debts,
            FeePolicies policies,
            Rates rates,
            NumberSeries numbers,
            Fixing fixing,
            Attachments attachments,
            Links links,
            Stock stock,
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
        this.rates = rates;
        this.numbers = numbers;
        this.fixing = fixing;
        this.attachments = attachments;
        this.links = links;
        this.stock = stock;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
        this.json = json;
    }

    /** Reckons what was typed, as if it were issued today. Stores nothing. */
    public Reckoning reckon(TypedDraft typed) {
        return reckoner.reckon(typed, clock.today()).view();
    }

    /** Keeps a new draft, whatever was typed. @return its id */
    @Transactional
    public long begin(TypedDraft typed, Long replaces) {
        long id = repository.insertDraft(draft(0, 0, typed, replaces), clock.instant());
        links.begin(id);
        changes.touch(Findable.INVOICE, id);
        return id;
    }

    /** Keeps what was typed, readable or not. @throws ConflictException if another window kept something else first */
    @Transactional
    public int keep(long id, int version, TypedDraft typed) {
        Invoice before = invoice(id);
        if (repository.updateDraft(draft(id, version, typed, before.replacesId())) != 1) {
            throw new ConflictException(
                    before.isDraft()
                            ? "This draft was changed in another window. Nothing you typed is lost here; load the other"
                                    + " or copy yours over."
                            : "This invoice was issued meanwhile, as " + before.number() + ". It is fixed now.");
        }
        changes.touch(Findable.INVOICE, id);
        return version + 1;
    }

    private Invoice draft(long id, int version, TypedDraft asTyped, Long replaces) {
        // An old page may still name a client that became a part of another.
        Client client = asTyped.clientId() == null ? null : clients.client(asTyped.clientId());
        TypedDraft typed = client == null ? asTyped : asTyped.forClient(client.id());
        String text = json.write(typed);
        if (text.length() > MOST_TYPED) {
            throw new RefusedException("lines", typed.lines().size(), "this is more than one document can hold");
        }
        DraftReckoner.Reckoned reckoned = reckoner.reckon(typed, clock.today());
        String subject = typed.subject() == null ? "" : typed.subject().strip();
        return new Invoice(
                id,
                typed.clientId(),
                client == null ? "" : client.name(),
                Bucket.DRAFT,
                null,
                subject.length() > 200 ? subject.substring(0, 200) : subject,
                reckoned.read().currency().getCode(),
                reckoned.totals() == null ? null : reckoned.totals().total().getAmountMinorLong(),
                0,
                null,
                null,
                text,
                null,
                replaces,
                null,
                version);
    }

    /** Begins a draft with the same lines, supplied today. @return its id */
    @Transactional
    public long duplicate(long id) {
        Invoice of = invoice(id);
        TypedDraft typed = json.read(of.typed(), TypedDraft.class);
        long copy = begin(typed.suppliedOn(clock.today().toString()), null);
        attachments.copy(id, copy);
        return copy;
    }

    /** Begins the draft that takes an invoice's place: the same lines, files and terms. @return its id */
    @Transactional(propagation = Propagation.MANDATORY)
    long replacement(Invoice of) {
        long draft = begin(json.read(of.typed(), TypedDraft.class), of.id());
        attachments.copy(of.id(), draft);
        return draft;
    }

    /** Throws a draft away. @throws ConflictException for one that keeps the number of an invoice */
    @Transactional
    public void discard(long id, int version) {
        Invoice draft = invoice(id);
        if (draft.isDraft() && draft.number() != null) {
            throw new ConflictException("This draft keeps the number " + draft.number()
                    + ", and numbers have no gaps. Issue it again, or void it.");
        }
        attachments.removeAll(id);
        debts.whoseCreditWaits(id).ifPresent(clients::lock);
        debts.waitNoLonger(id);
        if (repository.deleteDraft(id, version) != 1) {
            throw new ConflictException("This draft was changed or issued meanwhile; it was not thrown away.");
        }
        changes.touch(Findable.INVOICE, id);
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
        DraftReckoner.Reckoned reckoned = reckoner.toIssue(typed, today);
        checkWhole(typed, reckoned);
        Client client = lockWith(id, typed.clientId());
        Business own = business.business();
        checkDeposits(client, reckoned.totals());
        NumberSeries.Given given = draft.number() != null
                ? null
                : numbers.next(DocumentKind.INVOICE, new NumberPattern(own.invoicePattern()), today);
        String number = given == null ? draft.number() : given.number();
        FixedDocument fixed = fixing.invoice(number, client, typed, reckoned, today);
        Money total = reckoned.totals().total();
        if (repository.issue(id, version, number, today, total.getAmountMinorLong(), json.write(fixed)) != 1) {
            throw new ConflictException("This draft was changed in another window. Look at it again before issuing.");
        }
        if (given != null) {
            repository.place(id, given);
        }
        rates.noteFirst(total.getCurrencyUnit(), today, reckoned.read().exchange());
        books.book(
                Bookings.issued(id, reckoned.totals()),
                "Invoice " + number + (fixed.subject().isEmpty() ? "" : " · " + fixed.subject()),
                new BooksService.About(client.id(), id, null),
                null,
                reckoned.read().exchange());
        policies.fix(
                id,
                client.id(),
                typed.lateFee(),
                total.getCurrencyUnit(),
                reckoned.read().exchange(),
                reckoned.totals().feeTax());
        debts.add(client.id(), id, number, reckoned.schedule());
        stock.issued(id, reckoned.sold());
        debts.waitNoLonger(id);
        debts.useCredit(client.id(), total.getCurrencyUnit());
        happenings.note(id, client.id(), "Issued as " + number + ", " + inWords(total, own));
        changes.say(id, client.id());
        return invoice(id);
    }

    /** Locks the client and, where credit of another one waits for this draft, that one too: always in the same order. */
    private Client lockWith(long draftId, long clientId) {
        Long other = debts.whoseCreditWaits(draftId).orElse(clientId);
        clients.lock(Math.min(other, clientId));
        clients.lock(Math.max(other, clientId));
        return clients.client(clientId);
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

    /** What is prepaid comes out of deposits held; more than is held was never received. */
    private void checkDeposits(Client client, Totals totals) {
        Money held = books.depositsOf(client.id(), totals.total().getCurrencyUnit());
        if (totals.prepaid().isGreaterThan(held)) {
            throw new RefusedException(
                    "prepaid",
                    Amounts.plain(totals.prepaid()),
                    "at most " + Amounts.grouped(held)
                            + " is held as deposits for this client; record the deposit first");
        }
    }

    /**
     * Takes an issued invoice back to a draft that keeps its number, or voids it. The caller has made sure that it was
     * never sent or opened.
     *
     * @throws ConflictException where anything is booked against it
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void withdraw(long id, String why, boolean forGood) {
        Invoice invoice = invoice(id);
        if (invoice.isDraft() && !(forGood && invoice.number() != null)) {
            throw new ConflictException("This is a draft already.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided already.");
        }
        clients.lock(invoice.clientId());
        if (invoice.isDraft()) {
            voidDraft(invoice, why);
            return;
        }
        debts.remove(id);
        books.reverse(
                books.entryOf(Entry.Event.ISSUED, id).orElseThrow().id(),
                forGood ? Entry.Event.VOIDED : Entry.Event.TAKEN_BACK,
                "Invoice " + invoice.number() + (forGood ? " voided: " : " taken back, not sent yet: ") + why,
                new BooksService.About(invoice.clientId(), id, null));
        policies.unfix(id);
        stock.takenBack(id);
        if (forGood) {
            repository.markVoid(id, clock.today());
        } else {
            repository.takeBack(invoice, why, Happenings.who(), clock.today());
        }
        happenings.note(id, invoice.clientId(), (forGood ? "Voided: " : "Taken back to a draft, not sent yet: ") + why);
        changes.say(id, invoice.clientId());
    }

    /** A draft that keeps a number is voided as the invoice that it last was; its entry is reversed already. */
    private void voidDraft(Invoice draft, String why) {
        List<InvoiceRepository.EarlierText> texts = repository.earlierTexts(draft.id());
        InvoiceRepository.EarlierText last = texts.get(texts.size() - 1);
        repository.issue(
                draft.id(),
                draft.version(),
                draft.number(),
                last.issuedOn(),
                json.read(last.fixed(), FixedDocument.class).total().money().getAmountMinorLong(),
                last.fixed());
        repository.markVoid(draft.id(), clock.today());
        happenings.note(draft.id(), draft.clientId(), "Voided: " + why);
        changes.say(draft.id(), draft.clientId());
    }

    /** What an invoice said before it was taken back. */
    public record Earlier(FixedDocument document, LocalDate takenBackOn, String why, String who) {}

    /** What an invoice said before it was taken back, oldest first. */
    public List<Earlier> earlier(long id) {
        return repository.earlierTexts(id).stream()
                .map(t -> new Earlier(json.read(t.fixed(), FixedDocument.class), t.takenBackOn(), t.why(), t.who()))
                .toList();
    }

    /** One invoice. @throws NotFoundException if there is none of that id */
    public Invoice invoice(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no invoice " + id + "."));
    }

    /** Several invoices by id, without their texts. */
    public Map<Long, Invoice> some(Collection<Long> ids) {
        return ids.isEmpty() ? Map.of() : repository.some(ids).stream().collect(Collectors.toMap(Invoice::id, i -> i));
    }

    /** Open ones of the latest that were not given to their client otherwise than by mail from here, latest first. */
    public List<Long> latestOpenNotGiven() {
        return repository.latestOpenNotGiven();
    }

    /** Notes that it was given to its client otherwise, today. @return whether it was issued, and nobody had said so */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean give(long id) {
        return repository.give(id, clock.today());
    }

    /** The issued invoice of a client's link. @throws NotFoundException for a link that leads nowhere */
    public Invoice byToken(String token) {
        return repository.find(links.leadsTo(token)).filter(i -> !i.isDraft()).orElseThrow(Links::unknown);
    }

    /** What an issued invoice says. */
    public FixedDocument document(Invoice invoice) {
        return json.read(invoice.fixed(), FixedDocument.class);
    }

    /** What was typed into a draft. */
    public TypedDraft typed(Invoice invoice) {
        return json.read(invoice.typed(), TypedDraft.class);
    }

    /** In another currency than the business's own it says which. */
    private static String inWords(Money total, Business own) {
        String code = total.getCurrencyUnit().getCode();
        return (code.equals(own.currency()) ? "" : code + " ") + Amounts.grouped(total);
    }
}
