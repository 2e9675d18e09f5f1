package quill.server.paylinks;

import io.swagger.v3.oas.annotations.Hidden;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.server.common.Downloads;

/** Payment links, over HTTP, as their business makes them. */
@RestController
@RequestMapping("/api/payment-links")
class PaymentLinksController {
    private final PaymentLinks links;
    private final LinkViews views;
    private final LinkInvoicing invoicing;
    private final CardAtHand atHand;

    PaymentLinksController(PaymentLinks links, LinkViews views, LinkInvoicing invoicing, CardAtHand atHand) {
        this.atHand = atHand;
        this.links = links;
        this.views = views;
        this.invoicing = invoicing;
    }

    /** @param key of the request, new for each link */
    record MakeLink(String key, TypedPaymentLink link) {}

    record CloseLink(int version, boolean closed) {}

    /** @param paymentId what came through a link */
    record InvoiceOfLink(long paymentId) {}

    record BegunInvoice(DocumentId id) {}

    @GetMapping
    List<LinkViews.LinkGroup> paymentLinks() {
        return views.groups();
    }

    @GetMapping("/{id}")
    LinkViews.LinkRecord paymentLink(@PathVariable long id) {
        return views.record(id);
    }

    @PostMapping
    LinkViews.LinkRecord makePaymentLink(@RequestBody MakeLink make) {
        return views.record(links.make(make.key(), whole(make.link())).id());
    }

    @PutMapping("/{id}")
    LinkViews.LinkRecord changePaymentLink(@PathVariable long id, @RequestBody TypedPaymentLink typed) {
        links.change(id, typed);
        return views.record(id);
    }

    /** Closes it, or opens it again. */
    @PostMapping("/{id}/close")
    LinkViews.LinkRecord closePaymentLink(@PathVariable long id, @RequestBody CloseLink close) {
        links.close(id, close.version(), close.closed());
        return views.record(id);
    }

    /** Where it is paid. @param code the same as a square code, an image */
    record CardPage(String address, String code) {}

    /** Opens the card company's page for a card that is at hand, with no invoice behind it. */
    @PostMapping("/at-hand")
    CardPage takeCard(@RequestBody CardAtHand.TakeCard take) {
        String address = atHand.open(take);
        return new CardPage(address, LinkCodes.inline(address));
    }

    /** Makes a draft of an invoice of what came. */
    @PostMapping("/invoices")
    BegunInvoice invoiceOfLink(@RequestBody InvoiceOfLink of) {
        return new BegunInvoice(invoicing.begin(of.paymentId()));
    }

    @Hidden
    @GetMapping(path = "/{id}/code.png", produces = "image/png")
    ResponseEntity<byte[]> png(@PathVariable long id) {
        return Downloads.file(LinkCodes.png(links.page(links.find(id))), "image/png", "payment-link-" + id + ".png");
    }

    @Hidden
    @GetMapping(path = "/{id}/code.svg", produces = "image/svg+xml")
    ResponseEntity<byte[]> svg(@PathVariable long id) {
        byte[] drawn = LinkCodes.svg(links.page(links.find(id))).getBytes(StandardCharsets.UTF_8);
        return Downloads.file(drawn, "image/svg+xml", "payment-link-" + id + ".svg");
    }

    private static TypedPaymentLink whole(TypedPaymentLink typed) {
        if (typed == null) {
            throw new RefusedException("link", "", "send the whole link as it is typed");
        }
        return typed;
    }
}
