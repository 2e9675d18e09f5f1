package quill.server.asking;

import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.letter.LetterKind;
import quill.server.dispatch.DepositFacts;
import quill.server.dispatch.LetterCases;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;

/** Quotes and invoices on which money could be asked for, to look at that letter with. */
@Component
class RequestCases implements LetterCases {
    private final Documents documents;
    private final DepositFacts facts;

    RequestCases(Documents documents, DepositFacts facts) {
        this.documents = documents;
        this.facts = facts;
    }

    @Override
    public boolean writes(LetterKind kind) {
        return kind == LetterKind.REQUEST;
    }

    @Override
    public List<LetterCase> latest(LetterKind kind, ClientId clientId) {
        return Stream.of(DocumentKind.QUOTE, DocumentKind.INVOICE)
                .flatMap(k -> documents.latest(k, clientId, MOST / 2).stream())
                .map(d -> new LetterCase(
                        d.clientId(),
                        d.kind().title() + " " + d.number(),
                        () -> facts.request(d, new DepositFacts.Asking(d.total(), "", false))))
                .toList();
    }
}
