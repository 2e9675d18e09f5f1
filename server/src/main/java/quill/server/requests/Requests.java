package quill.server.requests;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.dispatch.AskedOnQuotes;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;
import quill.server.payments.Payments;

/**
 * What clients are asked for before it falls due. Asking books nothing: what came of it is read off the books each time, so
 * that a request closes by itself when its money comes, by whatever way.
 */
@Service
public class Requests implements AskedOnQuotes {
    private final RequestRepository repository;
    private final Documents documents;
    private final Jobs jobs;
    private final Payments payments;
    private final Changes changes;
    private final BusinessClock clock;
    private final ApplicationEventPublisher publisher;

    Requests(
            RequestRepository repository,
            Documents documents,
            Jobs jobs,
            Payments payments,
            Changes changes,
            BusinessClock clock,
            ApplicationEventPublisher publisher) {
        this.repository = repository;
        this.documents = documents;
        this.jobs = jobs;
        this.payments = payments;
        this.changes = changes;
        this.clock = clock;
        this.publisher = publisher;
    }

    /** Told within the transaction that changes what is asked for on a quote, or what came of it. */
    public record Changed(DocumentId quoteId) {}

    /**
     * A request, as it stands.
     *
     * @param came of it
     * @param words for what, in the business's words; may be empty
     * @param withdrawnOn null unless somebody withdrew it
     */
    public record Asked(
            long id,
            DocumentId documentId,
            Money amount,
            Money came,
            LocalDate on,
            String words,
            LocalDate withdrawnOn) {
        /** What is still to come; nothing of one that was withdrawn. */
        public Money missing() {
            return withdrawnOn == null ? amount.minus(came) : Money.zero(amount.getCurrencyUnit());
        }
    }

    /**
     * What is asked for on a quote, and what came.
     *
     * @param asked oldest first
     * @param received before an invoice of its work: deposit invoices, whatever was credited since, and deposits held
     * @param left what can still come before all of it is billed, or held
     */
    public record OnQuote(List<Asked> asked, Money received, Money left) {
        /** What did not come; nothing once its work is billed. */
        public Money missing() {
            return asked.stream()
                    .map(Asked::missing)
                    .reduce(Money::plus)
                    .map(m -> Amounts.min(m, left))
                    .orElse(Money.zero(left.getCurrencyUnit()));
        }

        /** What more can be asked for. */
        public Money askable() {
            return left.minus(missing());
        }

        /** One of them, if something of it is open. */
        private Optional<Asked> open(long id) {
            return missing().isPositive()
                    ? asked.stream()
                            .filter(a -> a.id() == id && a.missing().isPositive())
                            .findFirst()
                    : Optional.empty();
        }
    }

    /** All that is asked for on a quote. */
    public OnQuote on(Document quote) {
        Jobs.SoFar job = jobs.soFar(quote, false);
        CurrencyUnit currency = CurrencyUnit.of(quote.currency());
        Money held = payments.heldFor(quote.id(), currency);
        Money invoiced = Amounts.sum(
                currency,
                job.before().stream()
                        .filter(Jobs.Part::isDeposit)
                        .map(p -> p.said().sums().total().amount())
                        .toList());
        Money received = invoiced.plus(held);
        Money left = job.left().minus(held);
        return new OnQuote(
                ofQuote(repository.of(quote.id()), received),
                received,
                left.isNegative() ? Money.zero(currency) : left);
    }

    /** What was asked for on a document, oldest first. */
    public List<Asked> of(Document document) {
        List<RequestRepository.Row> rows = repository.of(document.id());
        if (rows.isEmpty()) {
            return List.of();
        }
        return document.kind() == DocumentKind.QUOTE ? on(document).asked() : ofInvoice(rows, document.open());
    }

    /**
     * What was paid after one was asked for is for the first that still misses any, then for the next; what is open again
     * is missing of the latest. Between two requests it is known how far what is open fell.
     */
    static List<Asked> ofInvoice(List<RequestRepository.Row> rows, Money open) {
        Money none = Money.zero(open.getCurrencyUnit());
        List<Money> came = new ArrayList<>(Collections.nCopies(rows.size(), none));
        for (int i = 0; i < rows.size(); i++) {
            Money then = i + 1 < rows.size() ? rows.get(i + 1).open() : open;
            Money paid = rows.get(i).open().minus(then);
            for (int j = 0; j <= i; j++) {
                int at = paid.isNegative() ? i - j : j;
                Money room = rows.get(at).withdrawnOn() != null
                        ? none
                        : paid.isNegative()
                                ? came.get(at)
                                : rows.get(at).amount().minus(came.get(at));
                Money part = Amounts.min(paid.abs(), room);
                came.set(
                        at,
                        paid.isNegative()
                                ? came.get(at).minus(part)
                                : came.get(at).plus(part));
                paid = paid.isNegative() ? paid.plus(part) : paid.minus(part);
            }
        }
        List<Asked> all = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            all.add(asked(rows.get(i), came.get(i)));
        }
        return all;
    }

    /** What came is for the first that was asked for, then for the next. */
    private static List<Asked> ofQuote(List<RequestRepository.Row> rows, Money received) {
        List<Asked> all = new ArrayList<>();
        Money left = received;
        for (RequestRepository.Row row : rows) {
            Asked asked = asked(row, row.withdrawnOn() == null ? left : Money.zero(received.getCurrencyUnit()));
            left = left.minus(asked.came());
            all.add(asked);
        }
        return all;
    }

    private static Asked asked(RequestRepository.Row row, Money came) {
        Money none = Money.zero(row.amount().getCurrencyUnit());
        return new Asked(
                row.id(),
                row.documentId(),
                row.amount(),
                Amounts.min(row.amount(), came.isNegative() ? none : came),
                row.askedOn(),
                row.words(),
                row.withdrawnOn());
    }

    /** What can still come on an accepted quote before all of it is billed, or held. */
    public Money left(Document quote) {
        return on(quote).left();
    }

    @Override
    public Money missing(Document quote) {
        return quote.state() != DocumentState.ACCEPTED
                        || repository.of(quote.id()).isEmpty()
                ? Money.zero(CurrencyUnit.of(quote.currency()))
                : on(quote).missing();
    }

    /**
     * Asks for money; the caller has locked the client, and tells it. The same key twice is one request.
     *
     * @throws RefusedException naming {@code amount}, with the figure that would be allowed
     * @throws ConflictException for a document of which nothing can be asked
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Asked ask(String key, Document document, Money amount, String words) {
        Money most = most(document);
        if (!amount.isPositive() || amount.isGreaterThan(most)) {
            throw new RefusedException(
                    "amount",
                    Amounts.plain(amount),
                    most.isPositive()
                            ? "must be above zero and at most " + Amounts.grouped(most)
                            : "nothing more can be asked for: all of it is asked for, or paid");
        }
        long id = repository.insert(
                key,
                document.id(),
                amount,
                document.kind() == DocumentKind.QUOTE ? null : document.open(),
                words,
                clock.today(),
                clock.instant());
        changed(document);
        return of(document).stream().filter(a -> a.id() == id).findFirst().orElseThrow();
    }

    /** Whether exactly this was asked for before. @throws ConflictException where the key was used for something else */
    public boolean isAsked(String key, Document document, Money amount, String words) {
        Optional<RequestRepository.Row> before = repository.byKey(key);
        if (before.filter(r -> !(r.documentId().equals(document.id())
                        && r.amount().equals(amount)
                        && r.words().equals(words)))
                .isPresent()) {
            throw new ConflictException(
                    "This request's key was used for another one. Nothing was asked for; use a new key.");
        }
        return before.isPresent();
    }

    private Money most(Document document) {
        if (document.kind() == DocumentKind.QUOTE) {
            if (document.state() != DocumentState.ACCEPTED) {
                throw new ConflictException("Only on an accepted quote can money be asked for.");
            }
            return on(document).askable();
        }
        if (document.isDraft() || document.voidedOn() != null) {
            throw new ConflictException("Only on an invoice that is issued can money be asked for.");
        }
        return document.open();
    }

    /** One request, as it stands. @throws NotFoundException if there is none of that id */
    public Asked find(long id) {
        return repository
                .find(id)
                .flatMap(row -> of(documents.find(row.documentId()).orElseThrow()).stream()
                        .filter(a -> a.id() == id)
                        .findFirst())
                .orElseThrow(() -> new NotFoundException("There is no request " + id + "."));
    }

    /** It is asked for no more; what came of it stays. @throws ConflictException where nothing of it is open */
    @Transactional(propagation = Propagation.MANDATORY)
    public void withdraw(Document document, long id) {
        if (!find(id).missing().isPositive() || !repository.withdraw(id, clock.today())) {
            throw new ConflictException("Nothing of this request is open any more.");
        }
        changed(document);
    }

    /** Says that what is asked for on a document, or what came of it, has changed. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void changed(Document document) {
        changes.say(document.id(), document.clientId());
        if (document.kind() == DocumentKind.QUOTE) {
            publisher.publishEvent(new Changed(document.id()));
        }
    }

    /** Requests on accepted quotes of which something is open, the latest first. */
    public List<Asked> open(int most) {
        List<RequestRepository.Row> standing = repository.standingOnQuotes(5 * most);
        Map<DocumentId, Document> quotes = documents.some(
                standing.stream().map(RequestRepository.Row::documentId).collect(Collectors.toSet()));
        Map<DocumentId, OnQuote> known = new HashMap<>();
        return standing.stream()
                .filter(row -> quotes.get(row.documentId()).state() == DocumentState.ACCEPTED)
                .map(row -> known.computeIfAbsent(row.documentId(), id -> on(quotes.get(id)))
                        .open(row.id()))
                .flatMap(Optional::stream)
                .limit(most)
                .toList();
    }
}
