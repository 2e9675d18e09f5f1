package quill.server.invoices;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.IssueChecks;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.pay.WayToPay;
import quill.core.schedule.Installment;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.debts.Settling;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.DraftReckoner;
import quill.server.documents.Fixing;
import quill.server.documents.NumberSeries;
import quill.server.ways.WaysService;

/** Makes an invoice of a draft. */
@Component
class Issuing {
    private final Documents documents;
    private final DraftReckoner reckoner;
    private final NumberSeries numbers;
    private final Fixing fixing;
    private final ClientsService clients;
    private final Settling settling;
    private final WaysService ways;
    private final BusinessClock clock;

    Issuing(
            Documents documents,
            DraftReckoner reckoner,
            NumberSeries numbers,
            Fixing fixing,
            ClientsService clients,
            Settling settling,
            WaysService ways,
            BusinessClock clock) {
        this.documents = documents;
        this.reckoner = reckoner;
        this.numbers = numbers;
        this.fixing = fixing;
        this.clients = clients;
        this.settling = settling;
        this.ways = ways;
        this.clock = clock;
    }

    /** A draft that may be issued, with its client locked. */
    record Ready(Client client, TypedDraft typed, DraftReckoner.Reckoned reckoned, LocalDate today) {}

    /** @throws RefusedException with every field that has to be mended first */
    @Transactional(propagation = Propagation.MANDATORY)
    Ready ready(Document draft) {
        TypedDraft typed = documents.typed(draft);
        LocalDate today = clock.today();
        DraftReckoner.Reckoned reckoned = reckoner.toIssue(typed, today);
        checkWhole(typed, reckoned);
        return new Ready(lockWith(draft.id(), typed.clientId()), typed, reckoned, today);
    }

    /** All that has to be mended first. */
    List<Problem> problems(Document draft) {
        TypedDraft typed = documents.typed(draft);
        return IssueChecks.of(typed, reckoner.toIssue(typed, clock.today()).problems());
    }

    /** Gives it the next number, unless it keeps one, and fixes what it says. */
    @Transactional(propagation = Propagation.MANDATORY)
    void issue(Document draft, int version, Ready ready) {
        NumberSeries.Given given = draft.number() != null ? null : numbers.next(draft.kind(), ready.today());
        String number = given == null ? draft.number() : given.number();
        IssuedDocument fixed = fixing.invoice(number, ready.client(), ready.typed(), ready.reckoned(), ready.today());
        documents.issue(draft, version, given, isTransferable(draft, ready) ? fixed : fixed.withoutAccount());
    }

    /** Whether any part of it can be paid by transfer: else its paper names no account. */
    private boolean isTransferable(Document draft, Ready ready) {
        ClientId client = ready.client().id();
        return Stream.concat(
                        Stream.of(ready.reckoned().totals().due()),
                        ready.reckoned().schedule().stream().map(Installment::amount))
                .anyMatch(sum -> ways.isOffered(WayToPay.TRANSFER, sum, client, draft.id()));
    }

    /** Locks the client and, where credit of another one waits for this draft, that one too. */
    private Client lockWith(DocumentId draftId, ClientId clientId) {
        clients.lockBoth(clientId, settling.whoseCreditWaits(draftId).orElse(clientId));
        return clients.client(clientId);
    }

    private static void checkWhole(TypedDraft typed, DraftReckoner.Reckoned reckoned) {
        List<Problem> problems = IssueChecks.of(typed, reckoned.problems());
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }
}
