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
import quill.core.id.DocumentId;
import quill.core.money.TypedNumber;
import quill.server.cardorders.CardOrders;
import quill.server.common.LiveUpdates;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.documents.PageOpenings;
import quill.server.invoices.InvoicesService;
import quill.server.running.DiskSpace;

/** The client's page, reached by an unguessable address. It shows one invoice and takes payment for it. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicController {
    private static final Logger LOG = LoggerFactory.getLogger(PublicController.class);
    private final PageOpenings openings;
    private final Correspondence correspondence;
    private final InvoicesService invoices;
    private final CardOrders orders;
    private final LiveUpdates live;
    private final DiskSpace disk;
    private final ClientPages pages;

    PublicController(
            PageOpenings openings,
            Correspondence correspondence,
            InvoicesService invoices,
            CardOrders orders,
            LiveUpdates live,
            DiskSpace disk,
            ClientPages pages) {
        this.openings = openings;
        this.correspondence = correspondence;
        this.invoices = invoices;
        this.orders = orders;
        this.live = live;
        this.disk = disk;
        this.pages = pages;
    }

    record Pay(List<Long> installments, String amount, String currency) {}

    record PayAt(String address) {}

    @GetMapping
    ClientPages.PublicPage show(@PathVariable String token) {
        Document invoice = invoices.byToken(token);
        noteOpening(invoice);
        return pages.of(invoice, CardOrders.Outcome.NOTHING_OPEN);
    }

    /** The page is shown whether or not this can be noted: two tabs at the same moment, or no room on the disk. */
    private void noteOpening(Document invoice) {
        if (!disk.isEnough()) {
            return;
        }
        try {
            openings.opened(invoice);
            correspondence.opened(invoice.id());
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("opening of the page of {} not noted", invoice.number(), e);
        }
    }

    /** Opens an order for what the payer chose, if it is still what is open. */
    @PostMapping("/orders")
    PayAt pay(@PathVariable String token, @RequestBody Pay pay) {
        Document invoice = invoices.byToken(token);
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
        CardOrders.Outcome outcome = orders.payerIsBack(invoices.byToken(token).id());
        Document invoice = invoices.byToken(token);
        noteOpening(invoice);
        return pages.of(invoice, outcome);
    }

    @Hidden
    @GetMapping(path = "/events", produces = "text/event-stream")
    SseEmitter events(@PathVariable String token) {
        Document invoice = invoices.byToken(token);
        Set<DocumentId> own = Set.of(invoice.id());
        return live.openForLink(token, change -> change.invoiceId() != null && own.contains(change.invoiceId()));
    }
}
