package quill.server.quotes;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.IssueChecks;
import quill.core.document.TypedDraft;
import quill.core.quote.OfferReading;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.DraftReckoner;
import quill.server.documents.Fixing;
import quill.server.documents.NumberSeries;

/** Makes a quote of a draft. */
@Component
class QuoteIssuing {
    private final Documents documents;
    private final DraftReckoner reckoner;
    private final NumberSeries numbers;
    private final Fixing fixing;
    private final QuoteRepository repository;
    private final ClientsService clients;
    private final BusinessClock clock;

    QuoteIssuing(
            Documents documents,
            DraftReckoner reckoner,
            NumberSeries numbers,
            Fixing fixing,
            QuoteRepository repository,
            ClientsService clients,
            BusinessClock clock) {
        this.documents = documents;
        this.reckoner = reckoner;
        this.numbers = numbers;
        this.fixing = fixing;
        this.repository = repository;
        this.clients = clients;
        this.clock = clock;
    }

    /** Gives a draft the next number, and fixes what it says. @throws RefusedException with all that has to be mended */
    @Transactional(propagation = Propagation.MANDATORY)
    void issue(Document draft, int version) {
        TypedDraft typed = documents.typed(draft);
        LocalDate today = clock.today();
        DraftReckoner.Reckoned reckoned = reckoner.toIssue(typed, today);
        List<Problem> problems = new ArrayList<>(IssueChecks.ofQuote(typed, reckoned.problems()));
        LocalDate until = OfferReading.validUntil(typed.offer(), today, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        clients.lock(typed.clientId());
        Client client = clients.client(typed.clientId());
        NumberSeries.Given given = numbers.next(draft.kind(), today);
        documents.issue(draft, version, given, fixing.invoice(given.number(), client, typed, reckoned, today));
        String conditions = typed.offer() == null ? "" : typed.offer().conditions();
        repository.insert(draft.id(), new QuoteRepository.Terms(until, conditions, typed));
    }
}
