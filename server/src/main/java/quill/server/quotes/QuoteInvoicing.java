package quill.server.quotes;

import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.TypedDraft;
import quill.core.id.DocumentId;
import quill.core.quote.Choices;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.invoices.InvoicesService;

/** Makes the invoice for what an accepted quote offered. */
@Service
class QuoteInvoicing {
    private final QuotesService quotes;
    private final InvoicesService invoices;
    private final Documents documents;
    private final Relations relations;
    private final Attachments attachments;
    private final BusinessClock clock;

    QuoteInvoicing(
            QuotesService quotes,
            InvoicesService invoices,
            Documents documents,
            Relations relations,
            Attachments attachments,
            BusinessClock clock) {
        this.quotes = quotes;
        this.invoices = invoices;
        this.documents = documents;
        this.relations = relations;
        this.attachments = attachments;
        this.clock = clock;
    }

    /**
     * Begins the draft of the invoice for an accepted quote: what was chosen of it, its files, its schedule. Where one was
     * begun or issued before, that is it.
     *
     * @return the invoice's id
     * @throws ConflictException unless the quote is accepted
     */
    @Transactional
    public DocumentId begin(DocumentId quoteId) {
        Document quote = quotes.lock(quoteId);
        if (quote.state() != DocumentState.ACCEPTED) {
            throw new ConflictException("Only an accepted quote becomes an invoice.");
        }
        Optional<DocumentId> before = relations.sources(quoteId, RelationKind.FROM_QUOTE).stream()
                .filter(id ->
                        documents.find(id).filter(d -> d.voidedOn() == null).isPresent())
                .findFirst();
        if (before.isPresent()) {
            return before.get();
        }
        QuoteAnswer answer = quotes.answer(quote).orElseThrow();
        TypedDraft offered = quotes.terms(quote).offered();
        TypedDraft chosen = Choices.chosen(Choices.choose(offered, answer.ticked()));
        TypedDraft typed = chosen.changed()
                .lines(chosen.lines().stream()
                        .filter(l -> !l.equals(TypedDraft.TypedLine.BLANK))
                        .toList())
                .offer(null)
                .supplyDate(clock.today().toString())
                .supplyEnd("")
                .build();
        DocumentId invoice = invoices.begin(typed);
        relations.add(invoice, RelationKind.FROM_QUOTE, quoteId);
        attachments.copy(quoteId, invoice);
        return invoice;
    }
}
