package quill.server.publicpages;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.TypedNumber;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** What an invoice offers on its page before it is paid: a text to accept, installments to pick. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicPlansController {
    private final InvoicesService invoices;
    private final Picking picking;
    private final ClientPages pages;

    PublicPlansController(InvoicesService invoices, Picking picking, ClientPages pages) {
        this.invoices = invoices;
        this.picking = picking;
        this.pages = pages;
    }

    /** @param seen what was open when it was picked */
    record Pick(int count, String seen) {}

    /** @param seen the seal of what was on screen */
    record AcceptInvoice(String name, String seen) {}

    /** Each number of installments that can be picked, with all its days and sums. */
    @GetMapping("/plans")
    List<Picking.PickChoice> plans(@PathVariable String token) {
        return picking.choices(invoices.byToken(token));
    }

    @PostMapping("/plan")
    ClientPages.PublicPage pick(@PathVariable String token, @RequestBody Pick pick, HttpServletRequest request) {
        Document invoice = invoices.byToken(token);
        List<Problem> problems = new ArrayList<>();
        Money seen = TypedNumber.amount("seen", pick.seen(), CurrencyUnit.of(invoice.currency()), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        picking.pick(invoice, pick.count(), seen, request.getRemoteAddr());
        return pages.of(invoices.byToken(token));
    }

    @PostMapping("/acceptance")
    ClientPages.PublicPage accept(
            @PathVariable String token, @RequestBody AcceptInvoice a, HttpServletRequest request) {
        picking.accept(invoices.byToken(token), a.name(), a.seen(), request.getRemoteAddr());
        return pages.of(invoices.byToken(token));
    }
}
