package quill.server.quotes;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.document.TypedDraft;
import quill.core.id.DocumentId;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Downloads;
import quill.server.dispatch.LetterLook;
import quill.server.dispatch.Slip;
import quill.server.documents.Document;
import quill.server.documents.KeepDraft;
import quill.server.documents.Kept;

/** Quotes, over HTTP. */
@RestController
@RequestMapping("/api/quotes")
class QuotesController {
    private final QuotesService service;
    private final QuoteSending sending;
    private final QuoteViews views;
    private final QuoteIndex index;
    private final QuotePapers papers;
    private final LetterLook look;
    private final BusinessClock clock;

    QuotesController(
            QuotesService service,
            QuoteSending sending,
            QuoteViews views,
            QuoteIndex index,
            QuotePapers papers,
            LetterLook look,
            BusinessClock clock) {
        this.service = service;
        this.sending = sending;
        this.views = views;
        this.index = index;
        this.papers = papers;
        this.look = look;
        this.clock = clock;
    }

    record IssueQuote(int version, @Schema(nullable = true) Slip slip) {}

    record SendQuote(String key, @Schema(nullable = true) Slip slip) {}

    record WithdrawQuote(String reason) {}

    @GetMapping
    List<QuoteIndex.QuoteGroup> groups(@RequestParam(defaultValue = "") String filter) {
        return index.groups(filter);
    }

    @GetMapping("/{id}")
    QuoteViews.QuoteView show(@PathVariable DocumentId id) {
        return views.of(service.quote(id));
    }

    @PostMapping
    Kept begin(@RequestBody TypedDraft typed) {
        return kept(service.begin(typed), 1);
    }

    private Kept kept(DocumentId id, int version) {
        return Kept.now(id, version, clock);
    }

    @PutMapping("/{id}")
    Kept keep(@PathVariable DocumentId id, @RequestBody KeepDraft keep) {
        return kept(id, service.keep(id, keep.version(), keep.whole()));
    }

    @DeleteMapping("/{id}")
    void discard(@PathVariable DocumentId id, @RequestParam int version) {
        service.discard(id, version);
    }

    @PostMapping("/{id}/duplicate")
    Kept duplicate(@PathVariable DocumentId id) {
        return kept(service.duplicate(id), 1);
    }

    /** Begins a later version. */
    @PostMapping("/{id}/revision")
    Kept revise(@PathVariable DocumentId id) {
        DocumentId draft = service.revise(id);
        return kept(draft, service.quote(draft).version());
    }

    @PostMapping("/{id}/withdrawal")
    void withdraw(@PathVariable DocumentId id, @RequestBody WithdrawQuote why) {
        service.withdraw(id, why.reason());
    }

    @PostMapping("/{id}/issue")
    Kept issue(@PathVariable DocumentId id, @RequestBody IssueQuote issue) {
        return kept(id, service.issue(id, issue.version()).version());
    }

    /** The letter with which it would be sent now; a draft's as if it were issued. */
    @PostMapping("/{id}/letter")
    LetterLook.ShownLetter letter(@PathVariable DocumentId id, @RequestBody IssueQuote request) {
        return look.at(
                sending.recipient(service.quote(id)),
                request.slip(),
                slip -> sending.send(id, request.version(), "look", slip));
    }

    @PostMapping("/{id}/issue-and-send")
    Kept issueAndSend(@PathVariable DocumentId id, @RequestBody IssueQuote request) {
        sending.send(id, request.version(), "first", request.slip());
        return kept(id, service.quote(id).version());
    }

    @PostMapping("/{id}/sendings")
    void sendAgain(@PathVariable DocumentId id, @RequestBody SendQuote request) {
        sending.again(id, request.key(), request.slip());
    }

    @Hidden
    @GetMapping("/{id}/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable DocumentId id) {
        Document quote = service.quote(id);
        if (quote.isDraft()) {
            throw new ConflictException("A draft is printed once it is issued.");
        }
        return Downloads.pdf(papers.forBusiness(quote), "quote-" + quote.number());
    }
}
