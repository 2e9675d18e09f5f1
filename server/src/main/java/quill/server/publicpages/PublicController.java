package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
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
import quill.core.document.CreditorReference;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.server.books.BooksService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Downloads;
import quill.server.common.LiveUpdates;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;
import quill.server.dispatch.PdfMaking;
import quill.server.dispatch.WaysToPay;
import quill.server.invoices.Attachments;
import quill.server.invoices.CreditNote;
import quill.server.invoices.CreditNotes;
import quill.server.invoices.FixedDocument;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.invoices.PageOpenings;
import quill.server.payments.PaymentsService;
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
    private final Debts debts;
    private final PaymentsService payments;
    private final BooksService books;
    private final CardOrders orders;
    private final PdfMaking pdf;
    private final LiveUpdates live;
    private final DiskSpace disk;
    private final BusinessClock clock;
    private final WaysToPay waysToPay;

    PublicController(
            PageOpenings openings,
            InvoicesService invoices,
            CreditNotes notes,
            Attachments attachments,
            Debts debts,
            PaymentsService payments,
            BooksService books,
            CardOrders orders,
            PdfMaking pdf,
            LiveUpdates live,
            DiskSpace disk,
            BusinessClock clock,
            WaysToPay waysToPay) {
        this.openings = openings;
        this.invoices = invoices;
        this.notes = notes;
        this.attachments = attachments;
        this.debts = debts;
        this.payments = payments;
        this.books = books;
        this.orders = orders;
        this.pdf = pdf;
        this.live = live;
        this.disk = disk;
        this.clock = clock;
        this.waysToPay = waysToPay;
    }

    /** One thing that can be paid now. @param what due now, or all that is open */
    record Choice(String what, List<Long> installments, Amount amount) {}

    /** A payment that arrived, without what it cost the business. */
    record Received(LocalDate on, String how, Amount amount) {}

    /** A credit note about the invoice. */
    record TakenBack(long id, String number, LocalDate on, String reason, Amount total, boolean whole) {}

    record PublicPage(
            FixedDocument document,
            LocalDate today,
            List<Measure.Part> measure,
            Amount open,
            List<Choice> choices,
            boolean cards,
            String iban,
            String reference,
            List<Received> received,
            Amount credit,
            List<TakenBack> creditNotes,
            List<Attachments.Attachment> files,
            @Schema(nullable = true) LocalDate voidedOn,
            @Schema(nullable = true) String declined) {}

    record Pay(List<Long> installments, String amount, String currency) {}

    record PayAt(String address) {}

    @GetMapping
    PublicPage show(@PathVariable String token) {
        Invoice invoice = invoices.byToken(token);
        noteOpening(invoice);
        FixedDocument document = invoices.document(invoice);
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), clock.today());
        CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
        boolean open = invoice.openMinor() > 0;
        WaysToPay.Ways ways = waysToPay.now();
        return new PublicPage(
                document,
                clock.today(),
                parts,
                Amount.ofMinor(invoice.currency(), invoice.openMinor()),
                choices(parts, currency),
                ways.card() && open,
                ways.iban(),
                CreditorReference.grouped(document.paymentReference()),
                payments.ofInvoice(invoice.id()).stream()
                        .filter(p -> p.undoneOn() == null)
                        .map(p -> new Received(p.valueOn(), p.words(), p.amount()))
                        .toList(),
                Amount.of(books.creditOf(invoice.clientId(), currency)),
                notes.of(invoice.id()).stream()
                        .map(n -> new TakenBack(
                                n.id(), n.number(), n.issuedOn(), n.reason(), Amount.of(n.total()), n.whole()))
                        .toList(),
                attachments.of(invoice.id()).stream()
                        .filter(Attachments.Attachment::sent)
                        .toList(),
                invoice.voidedOn(),
                open ? orders.declinedOn(invoice.id()).orElse(null) : null);
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

    /** The first open installment with all that fell due before it, and all that is open where that is more. */
    private List<Choice> choices(List<Measure.Part> parts, CurrencyUnit currency) {
        List<Measure.Part> open =
                parts.stream().filter(p -> p.open().money().isPositive()).toList();
        if (open.isEmpty()) {
            return List.of();
        }
        LocalDate today = clock.today();
        List<Measure.Part> due = new ArrayList<>(
                open.stream().filter(p -> !p.dueOn().isAfter(today)).toList());
        if (due.isEmpty()) {
            due.add(open.get(0));
        }
        List<Choice> choices = new ArrayList<>();
        choices.add(choice("due", due, currency));
        if (due.size() < open.size()) {
            choices.add(choice("all", open, currency));
        }
        return choices;
    }

    private static Choice choice(String what, List<Measure.Part> parts, CurrencyUnit currency) {
        Money sum =
                Amounts.sum(currency, parts.stream().map(p -> p.open().money()).toList());
        return new Choice(what, parts.stream().map(Measure.Part::id).toList(), Amount.of(sum));
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
    PublicPage back(@PathVariable String token) {
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
    @GetMapping(path = "/events", produces = "text/event-stream")
    SseEmitter events(@PathVariable String token) {
        Invoice invoice = invoices.byToken(token);
        Set<Long> own = Set.of(invoice.id());
        return live.openForLink(token, change -> change.invoiceId() != null && own.contains(change.invoiceId()));
    }
}
