package quill.server.documents;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.document.Billed;
import quill.core.document.Continuing;
import quill.core.document.Creditable;
import quill.core.document.Deduction;
import quill.core.document.JobBefore;
import quill.core.document.Taken;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.document.TypedJob;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.issued.Job;
import quill.core.money.Amounts;
import quill.server.common.Json;
import quill.server.common.Texts;

/** What was billed of an accepted quote: its deposit invoices, its stages, its final invoice. */
@Component
public class Jobs {
    private final DocumentRepository repository;
    private final DocumentContents contents;
    private final Relations relations;
    private final Json json;

    Jobs(DocumentRepository repository, DocumentContents contents, Relations relations, Json json) {
        this.repository = repository;
        this.contents = contents;
        this.relations = relations;
        this.json = json;
    }

    /**
     * A document that bills some of a quote, as it stands.
     *
     * @param takenBack by credit notes
     * @param whole whether they took all of it back
     * @param deductedBy the invoice that takes it off; null for none, as for all that is no deposit invoice
     */
    public record Part(Document document, IssuedDocument said, Taken takenBack, boolean whole, DocumentId deductedBy) {
        /** What of it still counts. */
        public Billed billed() {
            return Billed.of(said.creditable(), takenBack);
        }

        /** The same in all, tax included. */
        public Money total() {
            return billed().total(said.currency());
        }

        /** Whether it is for a deposit. */
        public boolean isDeposit() {
            return document.kind() == DocumentKind.DEPOSIT_INVOICE;
        }
    }

    /**
     * A job before the next document of it.
     *
     * @param whole the quote as it was accepted
     * @param before what was billed of it
     * @param deducted what the next document takes off
     */
    public record SoFar(Document quote, IssuedDocument whole, List<Part> before, List<Part> deducted) {
        /** For the core. */
        JobBefore values() {
            return new JobBefore(
                    whole.creditable(),
                    before.stream().map(Part::billed).toList(),
                    deducted.stream()
                            .map(p -> new Deduction(
                                    "Less deposit invoice " + p.document.number() + " of "
                                            + Texts.day(p.document.issuedOn()),
                                    p.billed()))
                            .toList());
        }

        /** What is left of the quote before the next document; below zero where more is billed. */
        public Money left() {
            return whole.sums().total().amount().minus(sum(before));
        }

        /** What deposit invoices billed that nothing deducts yet. */
        Money undeducted() {
            return sum(before.stream()
                    .filter(p -> p.isDeposit() && p.deductedBy == null)
                    .toList());
        }

        private Money sum(List<Part> parts) {
            CurrencyUnit currency = whole.currency();
            return Amounts.sum(currency, parts.stream().map(Part::total).toList());
        }

        /** As the next document says it. @param deductedNets as the core reckoned it */
        public Job said(Money total, List<Money> deductedNets) {
            return new Job(
                    quote.number(),
                    quote.issuedOn(),
                    whole.sums().total().amount(),
                    before.stream()
                            .filter(p -> !p.total().isZero())
                            .map(p -> new Job.Earlier(
                                    p.document.number(),
                                    p.document.issuedOn(),
                                    p.document.kind().title(),
                                    deducted.contains(p),
                                    p.total()))
                            .toList(),
                    left().minus(total),
                    deductedNets);
        }

        /** Notes of an invoice that is issued which quote it bills, and which deposit invoices it deducts. */
        public void note(Relations relations, DocumentId invoice) {
            relations.addOnce(invoice, RelationKind.FROM_QUOTE, quote.id());
            deducted.forEach(p -> relations.addOnce(
                    invoice, RelationKind.DEDUCTS, p.document().id()));
        }

        /** What this document takes off for deposit invoices, without tax. */
        List<Money> deductedNets(Totals totals) {
            return Continuing.deducted(totals, values());
        }
    }

    /** What was billed of a quote and still stands, oldest first. */
    public List<Part> billed(DocumentId quoteId) {
        List<Part> parts = new ArrayList<>();
        List<DocumentId> ids = relations.sources(quoteId, RelationKind.FROM_QUOTE);
        List<Document> documents = ids.isEmpty() ? List.of() : repository.some(ids);
        documents.stream()
                .filter(d -> !d.isDraft() && d.voidedOn() == null)
                .sorted(Comparator.comparing(Document::id))
                .forEach(d -> parts.add(part(d)));
        return parts;
    }

    /** The quote for which a deposit invoice says what came. @throws java.util.NoSuchElementException for another document */
    public Document quoteOf(Document deposit) {
        return relations
                .target(deposit.id(), RelationKind.FROM_QUOTE)
                .flatMap(repository::find)
                .orElseThrow();
    }

    /** What credit notes took of an issued document so far. */
    public Taken takenBack(DocumentId id, Creditable document) {
        return takenBack(relations.corrections(id), document);
    }

    private Taken takenBack(List<Relations.Correction> notes, Creditable document) {
        return notes.isEmpty()
                ? Taken.nothing(document)
                : json.read(notes.get(notes.size() - 1).taking().taken(), Taken.class);
    }

    private Part part(Document d) {
        IssuedDocument said = contents.issued(d.id(), d.issue().version());
        List<Relations.Correction> notes = relations.corrections(d.id());
        return new Part(d, said, takenBack(notes, said.creditable()), isWhole(notes), deductedBy(d));
    }

    private static boolean isWhole(List<Relations.Correction> notes) {
        return notes.stream().anyMatch(n -> n.taking().whole());
    }

    /** The invoice that deducts a deposit invoice, which nothing else ever is: one that counts, and was not taken back whole. */
    private DocumentId deductedBy(Document deposit) {
        if (deposit.kind() != DocumentKind.DEPOSIT_INVOICE) {
            return null;
        }
        return relations.sources(deposit.id(), RelationKind.DEDUCTS).stream()
                .filter(id -> repository
                        .find(id)
                        .filter(d -> !d.isDraft() && d.voidedOn() == null)
                        .isPresent())
                .filter(id -> !isWhole(relations.corrections(id)))
                .findFirst()
                .orElse(null);
    }

    /** A quote with all that was billed of it. @param last whether the next document deducts the deposit invoices */
    public SoFar soFar(Document quote, boolean last) {
        List<Part> before = billed(quote.id());
        return new SoFar(
                quote,
                contents.issued(quote.id(), quote.issue().version()),
                before,
                last
                        ? before.stream()
                                .filter(p -> p.isDeposit()
                                        && p.deductedBy() == null
                                        && !p.total().isZero())
                                .toList()
                        : List.of());
    }

    /** The job that a draft bills some of, if it does. Problems are added to the list. */
    Optional<SoFar> of(TypedDraft typed, String currency, List<Problem> problems) {
        TypedJob job = typed.job();
        if (job == null || job.quote() == null) {
            return Optional.empty();
        }
        Optional<Document> quote = repository
                .find(job.quote())
                .filter(q -> q.kind() == DocumentKind.QUOTE && q.state() == DocumentState.ACCEPTED);
        if (quote.isEmpty()) {
            problems.add(new Problem("job", job.quote().toString(), "must be an accepted quote"));
            return Optional.empty();
        }
        if (!quote.get().currency().equals(currency)) {
            problems.add(new Problem(
                    "currency",
                    currency,
                    "must be " + quote.get().currency() + ", as the quote that it bills, "
                            + quote.get().number()));
            return Optional.empty();
        }
        if (typed.clientId() != null && !typed.clientId().equals(quote.get().clientId())) {
            problems.add(new Problem(
                    "clientId",
                    typed.clientId().toString(),
                    "must be the client of quote " + quote.get().number()));
        }
        return Optional.of(soFar(quote.get(), job.last()));
    }
}
