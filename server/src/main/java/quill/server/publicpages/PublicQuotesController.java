package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.business.Logos;
import quill.server.common.Downloads;
import quill.server.common.NotFoundException;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.links.Links;
import quill.server.quotes.Answering;
import quill.server.quotes.QuotePapers;
import quill.server.quotes.QuoteViews;

/** A quote's page for its client: read, ask, tick, accept or decline. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicQuotesController {
    private final Documents documents;
    private final QuoteViews views;
    private final Answering answering;
    private final QuotePapers papers;
    private final Attachments attachments;
    private final Logos logos;
    private final Openings openings;

    PublicQuotesController(
            Documents documents,
            QuoteViews views,
            Answering answering,
            QuotePapers papers,
            Attachments attachments,
            Logos logos,
            Openings openings) {
        this.documents = documents;
        this.views = views;
        this.answering = answering;
        this.papers = papers;
        this.attachments = attachments;
        this.logos = logos;
        this.openings = openings;
    }

    /** What a link leads to. @param kind quote or invoice */
    record LinkKind(String kind) {}

    /** @param seen the seal of what was on screen */
    record Accept(String name, List<Integer> ticked, String seen) {}

    record Decline(@Schema(nullable = true) String reason) {}

    record Ask(String text) {}

    @GetMapping("/kind")
    LinkKind kind(@PathVariable String token) {
        return new LinkKind(documents.byToken(token).kind() == DocumentKind.QUOTE ? "quote" : "invoice");
    }

    private Document quote(String token) {
        Document found = documents.byToken(token);
        if (found.kind() != DocumentKind.QUOTE) {
            throw Links.unknown();
        }
        return found;
    }

    /** The page, with these lines chosen; without any said, with those that it begins with. */
    @GetMapping("/quote")
    QuoteViews.QuotePage show(
            @PathVariable String token, @RequestParam(required = false) @Schema(nullable = true) String ticked) {
        Document quote = quote(token);
        openings.note(quote);
        return views.page(quote, ticked == null ? null : Ticked.of(ticked));
    }

    @PostMapping("/quote/acceptance")
    QuoteViews.QuotePage accept(@PathVariable String token, @RequestBody Accept a, HttpServletRequest request) {
        Document accepted = answering.accept(
                quote(token), new Answering.Acceptance(a.name(), a.ticked(), a.seen()), request.getRemoteAddr());
        return views.page(accepted, null);
    }

    @PostMapping("/quote/declining")
    QuoteViews.QuotePage decline(@PathVariable String token, @RequestBody Decline d, HttpServletRequest request) {
        return views.page(answering.decline(quote(token), d.reason(), request.getRemoteAddr()), null);
    }

    @PostMapping("/quote/questions")
    void ask(@PathVariable String token, @RequestBody Ask asked) {
        answering.ask(quote(token), asked.text());
    }

    @Hidden
    @GetMapping(path = "/quote/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable String token) {
        Document quote = quote(token);
        return Downloads.pdf(papers.forClient(quote), "quote-" + quote.number());
    }

    @Hidden
    @GetMapping("/quote/files/{id}")
    ResponseEntity<byte[]> file(@PathVariable String token, @PathVariable long id) {
        Attachments.Content content = attachments.content(quote(token).id(), id);
        if (!content.file().sent()) {
            throw new NotFoundException("There is no such file of this quote.");
        }
        return Downloads.file(
                content.bytes(), content.file().type(), content.file().name());
    }

    @Hidden
    @GetMapping(path = "/quote/logo", produces = "image/png")
    byte[] logo(@PathVariable String token) {
        return logos.png(documents.document(quote(token)).look().logo())
                .orElseThrow(() -> new NotFoundException("There is no logo on this quote."));
    }
}
