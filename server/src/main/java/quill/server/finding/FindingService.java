package quill.server.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.document.TypedDraft;
import quill.core.finding.Words;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.server.catalogue.CatalogueService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Changes;
import quill.server.common.Findable;
import quill.server.common.NotFoundException;
import quill.server.common.ReadOnce;
import quill.server.common.Texts;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.documents.Document;
import quill.server.finding.FindingRepository.Entry;
import quill.server.finding.FindingRepository.Found;
import quill.server.finding.FindingRepository.Stale;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payment;
import quill.server.payments.Payments;
import quill.server.quotes.QuotesService;

/**
 * Finds anything by a few words of it. What changes is noted within the transaction that changes it, and read again
 * before anybody looks: nothing is ever missing, and no change waits for it.
 */
@Service
public class FindingService {
    private static final int OF_EACH_KIND = 6;
    private static final int MOST_ASKED = 6;
    private static final int BATCH = 100;
    private static final int LINES = 30;
    private final FindingRepository repository;
    private final ClientsService clients;
    private final InvoicesService invoices;
    private final QuotesService quotes;
    private final CreditNotes notes;
    private final Payments payments;
    private final CatalogueService catalogue;
    private final TransactionTemplate transaction;

    FindingService(
            FindingRepository repository,
            ClientsService clients,
            InvoicesService invoices,
            QuotesService quotes,
            CreditNotes notes,
            Payments payments,
            CatalogueService catalogue,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.clients = clients;
        this.invoices = invoices;
        this.quotes = quotes;
        this.notes = notes;
        this.payments = payments;
        this.catalogue = catalogue;
        this.transaction = transaction;
    }

    @EventListener
    void touched(Changes.Touched touched) {
        note(touched.kind(), touched.id());
    }

    @EventListener
    void changed(Changes.Change change) {
        if (change.words() && change.invoiceId() != null) {
            note(Findable.INVOICE, change.invoiceId().value());
        }
    }

    /** Once in a transaction: nobody reads it before that ends. */
    private void note(Findable kind, long id) {
        Stale stale = new Stale(kind, id);
        if (ReadOnce.isNew(stale)) {
            repository.stale(stale);
        }
    }

    /** What has all of these words, or words that begin so; a slip in one is forgiven. The newest first, by kinds. */
    @Transactional(readOnly = true)
    public List<Found> find(String typed, DecimalMark mark) {
        List<Set<Long>> words = Words.asked(typed, mark).stream()
                .limit(MOST_ASKED)
                .map(repository::like)
                .toList();
        if (words.isEmpty() || words.stream().anyMatch(Set::isEmpty)) {
            return List.of();
        }
        Map<Set<Long>, Integer> hits = new HashMap<>();
        words.forEach(set -> hits.computeIfAbsent(set, repository::hits));
        // The rarest says most, so it is looked for first.
        List<Set<Long>> rarestFirst =
                words.stream().sorted(Comparator.comparing(hits::get)).toList();
        boolean rare = hits.get(rarestFirst.get(0)) < FindingRepository.MANY;
        return Stream.of(Findable.values())
                .flatMap(kind -> repository.find(kind, rarestFirst, rare, OF_EACH_KIND).stream())
                .toList();
    }

    /** The latest change that was not read again yet, by its number; zero for none. */
    long lastChange() {
        return repository.lastStale();
    }

    /** Reads again what changed. @return whether there may be more */
    public synchronized boolean readAgain() {
        return Boolean.TRUE.equals(transaction.execute(status -> {
            FindingRepository.Taken taken = repository.takeStale(BATCH);
            taken.stale()
                    .forEach(s -> entry(s).ifPresentOrElse(e -> repository.write(s, e), () -> repository.remove(s)));
            return taken.more();
        }));
    }

    private Optional<Entry> entry(Stale s) {
        try {
            return switch (s.kind()) {
                case CLIENT -> client(s.id());
                case INVOICE -> Optional.of(document("/invoices/", invoices.invoice(new DocumentId(s.id()))));
                case QUOTE -> Optional.of(document("/quotes/", quotes.quote(new DocumentId(s.id()))));
                case CREDIT_NOTE -> Optional.of(note(notes.find(new DocumentId(s.id()))));
                case PAYMENT -> Optional.of(payment(payments.find(s.id())));
                case ITEM -> catalogue.offered(s.id()).map(i -> entry("/catalogue/" + s.id(), i.name(), i.under()));
                case BUNDLE ->
                    catalogue
                            .bundle(s.id())
                            .map(b -> entry("/catalogue/bundle-" + s.id(), "Bundle: " + b.name(), b.under()));
            };
        } catch (NotFoundException e) {
            return Optional.empty();
        }
    }

    private static Entry entry(String place, String title, String under, String... more) {
        Set<String> words = new LinkedHashSet<>();
        Stream.concat(Stream.of(title, under), Stream.of(more)).forEach(t -> words.addAll(Words.of(t)));
        return new Entry(place, title, under, words);
    }

    private static Entry with(Entry e, Stream<Amount> amounts) {
        Set<String> words = new LinkedHashSet<>(e.words());
        amounts.forEach(a -> words.add(a.amount().replace("-", "")));
        return new Entry(e.place(), e.title(), e.under(), words);
    }

    private Optional<Entry> client(long id) {
        Client c = clients.client(new ClientId(id));
        if (c.id().value() != id) {
            return Optional.empty(); // It is a part of another one now.
        }
        String under = Stream.of(c.contact(), c.email(), c.address().replace('\n', ','))
                .filter(t -> !t.isEmpty())
                .collect(Collectors.joining(" · "));
        return Optional.of(entry(
                "/clients/" + id,
                c.name(),
                under,
                c.searchable(),
                c.more().phone().replaceAll("\\D", "")));
    }

    private Entry document(String place, Document i) {
        TypedDraft typed = invoices.typed(i);
        String title = (i.isDraft() ? "Draft" : i.number()) + (i.clientName().isEmpty() ? "" : " · " + i.clientName());
        List<Amount> amounts = new ArrayList<>();
        String sum = "";
        if (i.totalMinor() != null) {
            Amount total = Amount.ofMinor(i.currency(), i.totalMinor());
            amounts.add(total);
            amounts.add(Amount.ofMinor(i.currency(), i.openMinor()));
            sum = total.currency() + " " + Amounts.grouped(total.money());
        }
        String under = Stream.of(i.subject(), sum, i.voidedOn() == null ? "" : "void")
                .filter(t -> t != null && !t.isEmpty())
                .collect(Collectors.joining(" · "));
        String lines = typed.lines().stream()
                .limit(LINES)
                .map(l -> Texts.fit(l.description(), 200) + " " + l.serial())
                .collect(Collectors.joining(" "));
        return with(
                entry(
                        place + i.id(),
                        title,
                        under,
                        typed.reference(),
                        typed.project(),
                        String.join(" ", typed.fields().values()),
                        lines.replace(" null", "")),
                amounts.stream());
    }

    private Entry note(CreditNote n) {
        Document of = invoices.invoice(n.invoiceId());
        Amount total = Amount.of(n.total());
        return with(
                entry(
                        "/invoices/" + of.id() + "/credit-notes/" + n.id(),
                        "Credit note " + n.number() + " · " + of.clientName(),
                        "of " + of.number() + " · " + total.currency() + " " + Amounts.grouped(n.total()),
                        n.reason()),
                Stream.of(total));
    }

    private Entry payment(Payment p) {
        String name = clients.client(p.clientId()).name();
        return with(
                entry(
                        p.invoiceId() == null ? "/clients/" + p.clientId() : "/invoices/" + p.invoiceId(),
                        "Payment of " + p.amount().currency() + " "
                                + Amounts.grouped(p.amount().money()) + " · " + name,
                        Texts.day(p.valueOn()) + ", " + p.words() + (p.undone() == null ? "" : ", undone"),
                        p.means().reference()),
                Stream.of(p.amount()));
    }
}
