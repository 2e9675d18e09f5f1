package quill.server.publicpages;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.links.Links;

/** What the business does with the link to a document's page: withdraws it, makes a new one, gives it an end. */
@Service
class PageLinks {
    private final Documents documents;
    private final Links links;
    private final ClientsService clients;
    private final Happenings happenings;
    private final BusinessClock clock;

    PageLinks(Documents documents, Links links, ClientsService clients, Happenings happenings, BusinessClock clock) {
        this.documents = documents;
        this.links = links;
        this.clients = clients;
        this.happenings = happenings;
        this.clock = clock;
    }

    /** Every link ends. The next letter about the document brings a new one. */
    @Transactional
    public void withdraw(DocumentId id) {
        Document document = issued(id);
        if (links.newest(id).isEmpty()) {
            throw new ConflictException("No link leads to it any more.");
        }
        links.withdrawAll(id);
        happenings.tell(id, document.clientId(), "The link to its page withdrawn");
    }

    /** Every link ends, and a new one leads there. */
    @Transactional
    public void renew(DocumentId id) {
        Document document = issued(id);
        links.withdrawAll(id);
        links.begin(id);
        happenings.tell(id, document.clientId(), "A new link to its page; the earlier ones end");
    }

    /** The last day on which the link leads there. @param typed as people type a day; empty for no end */
    @Transactional
    public void end(DocumentId id, String typed) {
        Document document = issued(id);
        Links.Standing now = links.newest(id).orElseThrow(() -> new ConflictException("No link leads to it any more."));
        List<Problem> problems = new ArrayList<>();
        LocalDate day = typed == null || typed.isBlank()
                ? null
                : LooseDate.read("endsOn", typed, clock.today(), LooseDate.Lean.COMING, problems);
        if (day != null && day.isBefore(clock.today())) {
            problems.add(new Problem("endsOn", typed, "must be today or later"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        links.endsOn(now.token(), day);
        happenings.tell(
                id,
                document.clientId(),
                day == null ? "The link to its page has no end" : "The link to its page ends on " + Texts.day(day));
    }

    private Document issued(DocumentId id) {
        Document found = documents
                .find(id)
                .filter(d -> !d.isDraft())
                .orElseThrow(() -> new NotFoundException("There is no issued document " + id + "."));
        clients.lock(found.clientId());
        return found;
    }
}
