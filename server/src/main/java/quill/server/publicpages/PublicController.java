package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.TransactionException;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.TypedNumber;
import quill.server.business.Logos;
import quill.server.common.Downloads;
import quill.server.common.LiveUpdates;
import quill.server.common.NotFoundException;
import quill.server.dispatch.PdfMaking;
import quill.server.invoices.Attachments;
import quill.server.invoices.CreditNote;
import quill.server.invoices.CreditNotes;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.PageOpenings;
import quill.server.processor.CardOrders;
import quill.server.running.DiskSpace;

/** The client's page, reached by an unguessable address. It shows one invoice and takes payment for it. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicController {
    private static final Logger LOG = LoggerFactory.getLogger(PublicController.class);
    private final PageOpenings openings;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final Attachments attachments;
    private final CardOrders orders;
    private final PdfMaking pdf;
    private final LiveUpdates live;
    private final DiskSpace disk;
    private final ClientPages pages;
    private final Logos logos;

    PublicController(
            PageOpenings openings,
            InvoicesService invoices,
            CreditNotes notes,
            Attachments attachments,
            CardOrders orders,
            PdfMaking pdf,
            LiveUpdates live,
            DiskSpace disk,
            ClientPages pages,
            Logos logos) {
        this.openings = openings;
        this.invoices = invoices;
        this.notes = notes;
        this.attachments = attachments;
        this.orders = orders;
        this.pdf = pdf;
        this.live = live;
        this.disk = disk;
        this.pages = pages;
        this.logos = logos;
    }

    record Pay(List<Long> installments, String amount, String currency) {}

    record PayAt(String address) {}

    @GetMapping
    ClientPages.PublicPage show(@PathVariable String token) {
        Invoice invoice = invoices.byToken(token);
        noteOpening(invoice);
        return pages.of(invoice);
    }

    /** The page is shown whether or not this can be noted: two tabs at the same moment, or no room on the disk. */
    private void noteOpening(Invoice invoice) {
        if (!disk.isEnough()) {
            return;
        }
        try {
            openings.opened(invoice);
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("opening of the page of {} not noted", invoice.number(), e);
        }
    }

    /** Opens an order for what the payer chose, if it is still what is open. */
    @PostMapping("/orders")
    PayAt pay(@PathVariable String token, @RequestBody Pay pay) {
        Invoice invoice = invoices.byToken(token);
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = TypedNumber.currency("currency", pay.currency(), problems);
        if (currency != null && !currency.getCode().equals(invoice.currency())) {
            problems.add(new Problem("currency", pay.currency(), "must be " + invoice.currency()));
        }
        Money amount = currency == null ? null : TypedNumber.amount("amount", pay.amount(), currency, problems);
        if (pay.installments() == null || pay.installments().isEmpty()) {
            problems.add(new Problem("installments", "", "name what is to be paid"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new PayAt(orders.payAt(invoice, Set.copyOf(pay.installments()), amount));
    }

    /** The payer is back from the pay page: the processor is asked at once. */
    @PostMapping("/back")
    ClientPages.PublicPage back(@PathVariable String token) {
        orders.payerIsBack(invoices.byToken(token).id());
        return show(token);
    }

    @GetMapping(path = "/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> pdf(@PathVariable String token) {
        Invoice invoice = invoices.byToken(token);
        return Downloads.pdf(pdf.invoiceForClient(invoice), "invoice-" + invoice.number());
    }

    @GetMapping(path = "/credit-notes/{id}/pdf", produces = "application/pdf")
    ResponseEntity<byte[]> creditNotePdf(@PathVariable String token, @PathVariable long id) {
        CreditNote note = notes.of(invoices.byToken(token).id()).stream()
                .filter(n -> n.id() == id)
                .findFirst()
                .orElseThrow(() -> new NotFoundException("There is no such credit note of this invoice."));
        return Downloads.pdf(pdf.creditNoteForClient(note), "credit-note-" + note.number());
    }

    @Hidden
    @GetMapping("/files/{id}")
    ResponseEntity<byte[]> file(@PathVariable String token, @PathVariable long id) {
        Attachments.Content content =
                attachments.content(invoices.byToken(token).id(), id);
        if (!content.file().sent()) {
            throw new NotFoundException("There is no such file of this invoice.");
        }
        return Downloads.file(
                content.bytes(), content.file().type(), content.file().name());
    }

    @Hidden
    @GetMapping(path = "/logo", produces = "image/png")
    byte[] logo(@PathVariable String token) {
        return logos.png(invoices.document(invoices.byToken(token)).logo())
                .orElseThrow(() -> new NotFoundException("There is no logo on this invoice."));
    }

    @Hidden
    @GetMapping(path = "/events", produces = "text/event-stream")
    SseEmitter events(@PathVariable String token) {
        Invoice invoice = invoices.byToken(token);
        Set<Long> own = Set.of(invoice.id());
        return live.openForLink(token, change -> change.invoiceId() != null && own.contains(change.invoiceId()));
    }
}
