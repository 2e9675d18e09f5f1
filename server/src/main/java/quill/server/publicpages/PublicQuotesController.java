package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.TypedNumber;
import quill.server.business.Logos;
import quill.server.cardorders.CardOrders;
import quill.server.common.Downloads;
import quill.server.common.NotFoundException;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.links.Links;
import quill.server.payments.Payer;
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
    private final CardOrders orders;

    PublicQuotesController(
            Documents documents,
            QuoteViews views,
            Answering answering,
            QuotePapers papers,
            Attachments attachments,
            Logos logos,
            Openings openings,
            CardOrders orders) {
        this.documents = documents;
        this.views = views;
        this.answering = answering;
        this.papers = papers;
        this.attachments = attachments;
        this.logos = logos;
        this.openings = openings;
        this.orders = orders;
    }

    /** @param seen the seal of what was on screen */
    record Accept(String name, List<Integer> ticked, String seen) {}

    record Decline(@Schema(nullable = true) String reason) {}

    record Ask(String text) {}

    /** @param amount that the payer saw */
    record PayAhead(
            String amount,
            @Schema(nullable = true) String payerName,
            @Schema(nullable = true) String payerEmail) {}

    /** @param outcome what came of paying @param declined why the card was declined; empty where it was not */
    record QuoteBack(QuoteViews.QuotePage page, CardOrders.Outcome outcome, String declined) {}

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

    /** Opens an order for what is asked for on an accepted quote, whole, if it is still that. */
    @PostMapping("/quote/orders")
    PublicController.PayAt pay(@PathVariable String token, @RequestBody PayAhead pay) {
        Document quote = quote(token);
        List<Problem> problems = new ArrayList<>();
        Money amount = TypedNumber.amount("amount", pay.amount(), CurrencyUnit.of(quote.currency()), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new PublicController.PayAt(
                orders.payAt(quote, Set.of(), amount, Payer.read(pay.payerName(), pay.payerEmail())));
    }

    /** The payer is back from the pay page: the processor is asked at once. */
    @PostMapping("/quote/back")
    QuoteBack back(@PathVariable String token) {
        CardOrders.Outcome outcome = orders.payerIsBack(quote(token).id());
        Document quote = quote(token);
        openings.note(quote);
        return new QuoteBack(
                views.page(quote, null),
                outcome,
                outcome == CardOrders.Outcome.NOT_PAID
                        ? orders.declinedOn(quote.id()).orElse("")
                        : "");
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
