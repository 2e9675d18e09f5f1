package quill.server.quotes;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.document.TypedJob;
import quill.core.id.DocumentId;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.payments.Payments;

/** What was billed of a quote, and what is begun, or held for it. */
@Component
class QuoteJobs {
    private final Jobs jobs;
    private final Relations relations;
    private final Documents documents;
    private final Payments payments;

    QuoteJobs(Jobs jobs, Relations relations, Documents documents, Payments payments) {
        this.jobs = jobs;
        this.relations = relations;
        this.documents = documents;
        this.payments = payments;
    }

    List<Jobs.Part> billed(DocumentId quoteId) {
        return jobs.billed(quoteId);
    }

    Jobs.SoFar soFar(Document quote, boolean last) {
        return jobs.soFar(quote, last);
    }

    /** The draft of an invoice that was begun for it; null for none. */
    DocumentId draft(DocumentId quoteId) {
        return relations.sources(quoteId, RelationKind.FROM_QUOTE).stream()
                .filter(id -> documents.find(id).filter(Document::isDraft).isPresent())
                .findFirst()
                .orElse(null);
    }

    /** Whether a draft is to be the final invoice. */
    boolean isLast(DocumentId draft) {
        TypedJob job = documents.typed(documents.find(draft).orElseThrow()).job();
        return job == null || job.last();
    }

    void begun(DocumentId invoice, DocumentId quoteId) {
        relations.add(invoice, RelationKind.FROM_QUOTE, quoteId);
    }

    /** What was paid ahead that its final invoice deducts, or counts as prepaid. */
    Money ahead(Document quote) {
        return jobs.soFar(quote, true).deducted().stream().map(Jobs.Part::total).reduce(held(quote), Money::plus);
    }

    /** Deposits that are held for it, and not deducted yet. */
    Money held(Document quote) {
        CurrencyUnit currency = CurrencyUnit.of(quote.currency());
        return jobs.billed(quote.id()).stream()
                        .anyMatch(p -> !p.isDeposit()
                                && !p.whole()
                                && p.said().sums().prepaid().amount().isPositive())
                ? Money.zero(currency)
                : payments.heldFor(quote.id(), currency);
    }
}
