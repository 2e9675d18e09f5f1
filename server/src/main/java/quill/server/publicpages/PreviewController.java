package quill.server.publicpages;

import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** A client's page as the business sees it beforehand. */
@RestController
@RequestMapping("/api/invoices/{id}/client-page")
class PreviewController {
    private final ClientPages pages;
    private final InvoicesService invoices;
    private final TransactionTemplate transaction;

    PreviewController(ClientPages pages, InvoicesService invoices, TransactionTemplate transaction) {
        this.pages = pages;
        this.invoices = invoices;
        this.transaction = transaction;
    }

    record LookAtPage(int version) {}

    /** Exactly what the client would see; a draft's as if it were issued. Nobody is noted as having opened it. */
    @PostMapping
    ClientPages.PublicPage look(@PathVariable DocumentId id, @RequestBody LookAtPage request) {
        Document invoice = invoices.invoice(id);
        return invoice.isDraft() ? ofDraft(id, request.version()) : pages.of(invoice);
    }

    /**
     * What the page of a draft would say if it were issued now: it is issued, read, and all of it is taken back.
     *
     * @throws quill.core.RefusedException with every field that has to be mended first
     */
    private ClientPages.PublicPage ofDraft(DocumentId id, int version) {
        return transaction.execute(status -> {
            status.setRollbackOnly();
            return pages.of(invoices.issue(id, version));
        });
    }
}
