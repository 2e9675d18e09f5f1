package quill.server.publicpages;

import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;

/** A client's page as the business sees it beforehand. */
@RestController
@RequestMapping("/api/invoices/{id}/client-page")
class PreviewController {
    private final ClientPages pages;
    private final InvoicesService invoices;

    PreviewController(ClientPages pages, InvoicesService invoices) {
        this.pages = pages;
        this.invoices = invoices;
    }

    record LookAtPage(int version) {}

    /** Exactly what the client would see; a draft's as if it were issued. Nobody is noted as having opened it. */
    @PostMapping
    ClientPages.PublicPage look(@PathVariable long id, @RequestBody LookAtPage request) {
        Invoice invoice = invoices.invoice(id);
        return invoice.isDraft() ? pages.ofDraft(id, request.version()) : pages.of(invoice);
    }
}
