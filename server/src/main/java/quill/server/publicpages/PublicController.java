package quill.server.publicpages;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
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
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.HowPaid;
import quill.server.collections.SavedViews;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payer;
import quill.server.ways.OnTopService;

/** The client's page, reached by an unguessable address. It shows one invoice and takes payment for it. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicController {
    private final Openings openings;
    private final InvoicesService invoices;
    private final CardOrders orders;
    private final ClientPages pages;
    private final SavedViews saved;
    private final OnTopService onTop;

    PublicController(
            Openings openings,
            InvoicesService invoices,
            CardOrders orders,
            ClientPages pages,
            SavedViews saved,
            OnTopService onTop) {
        this.onTop = onTop;
        this.saved = saved;
        this.openings = openings;
        this.invoices = invoices;
        this.orders = orders;
        this.pages = pages;
    }

    /**
     * What is to be paid.
     *
     * @param installments none for another amount, or for all at once with the discount off
     * @param chosen by which way, and what is on top; null for nothing
     * @param keep what was ticked, where what pays it is to be kept; null for not
     * @param payerName whoever pays, where that is somebody else; may be missing
     */
    record Pay(
            List<Long> installments,
            String amount,
            String currency,
            @Schema(nullable = true) String payerName,
            @Schema(nullable = true) String payerEmail,
            @Schema(nullable = true) SavedViews.TypedKeep keep,
            @Schema(nullable = true) OnTopService.Chosen chosen) {}

    record PayAt(String address) {}

    @GetMapping
    ClientPages.PublicPage show(@PathVariable String token) {
        Document invoice = invoices.byToken(token);
        openings.note(invoice);
        return pages.of(invoice, CardOrders.Outcome.NOTHING_OPEN);
    }

    /** What some of the open installments come to. @param installments their ids, with commas between */
    @GetMapping("/choice")
    ClientPages.Choice choose(@PathVariable String token, @RequestParam String installments) {
        return pages.choose(invoices.byToken(token), Ticked.ids(installments));
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
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Set<Long> installments = pay.installments() == null ? Set.of() : Set.copyOf(pay.installments());
        Payer payer = Payer.read(pay.payerName(), pay.payerEmail());
        HowPaid how = saved.onPage(invoice, pay.keep(), !payer.equals(Payer.NONE));
        // Less may be taken of what is held: nothing is on top of it.
        if (!how.hold()) {
            OnTopService.Paid paid =
                    onTop.paid(amount, pay.chosen() == null ? OnTopService.Chosen.NOTHING : pay.chosen());
            how = how.with(paid.only(), paid.top());
        }
        return new PayAt(orders.payAt(invoice, installments, amount, payer, how));
    }

    /** The payer is back from the pay page: the processor is asked at once. */
    @PostMapping("/back")
    ClientPages.PublicPage back(@PathVariable String token) {
        CardOrders.Outcome outcome = orders.payerIsBack(invoices.byToken(token).id());
        Document invoice = invoices.byToken(token);
        openings.note(invoice);
        return pages.of(invoice, outcome);
    }
}
