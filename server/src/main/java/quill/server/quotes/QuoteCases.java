package quill.server.quotes;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.letter.LetterKind;
import quill.server.dispatch.DocumentFacts;
import quill.server.dispatch.LetterCases;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;

/** Quotes, to look at their letters with. */
@Component
class QuoteCases implements LetterCases {
    private final Documents documents;
    private final QuotesService quotes;
    private final DocumentFacts facts;

    QuoteCases(Documents documents, QuotesService quotes, DocumentFacts facts) {
        this.documents = documents;
        this.quotes = quotes;
        this.facts = facts;
    }

    @Override
    public boolean writes(LetterKind kind) {
        return kind == LetterKind.QUOTE || kind == LetterKind.ACCEPTED;
    }

    @Override
    public List<LetterCase> latest(LetterKind kind, ClientId clientId) {
        return documents.latest(DocumentKind.QUOTE, clientId, MOST).stream()
                .map(d -> new LetterCase(
                        d.clientId(),
                        "Quote " + d.number(),
                        () -> facts.quote(
                                d,
                                quotes.validUntil(d),
                                kind == LetterKind.ACCEPTED
                                        ? quotes.answer(d)
                                                .map(QuoteAnswer::name)
                                                .orElse(d.clientName())
                                        : null,
                                null)))
                .toList();
    }
}
