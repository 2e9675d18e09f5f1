package quill.server.collections;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.money.TypedNumber;
import quill.server.audit.Happenings;
import quill.server.cardorders.CardOrders;
import quill.server.clients.ClientsService;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;
import quill.server.ways.OnTopService;

/** What is kept of a client, on the pages that it reaches by unguessable addresses. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicSavedController {
    private final InvoicesService invoices;
    private final SavedViews views;
    private final SavedMethods methods;
    private final TakingFromSaved taking;
    private final PlannedPayments planned;
    private final ClientsService clients;
    private final OnTopService onTop;

    PublicSavedController(
            InvoicesService invoices,
            SavedViews views,
            SavedMethods methods,
            TakingFromSaved taking,
            PlannedPayments planned,
            ClientsService clients,
            OnTopService onTop) {
        this.onTop = onTop;
        this.invoices = invoices;
        this.views = views;
        this.methods = methods;
        this.taking = taking;
        this.planned = planned;
        this.clients = clients;
    }

    @GetMapping("/saved")
    SavedViews.SavedOnPage saved(@PathVariable String token) {
        return views.onPage(invoices.byToken(token));
    }

    /** What is to be paid from what is kept, as the client saw it. */
    record PayFromSaved(
            List<Long> installments,
            String amount,
            String currency,
            @Schema(nullable = true) OnTopService.Chosen chosen) {}

    record PaidFromSaved(CardOrders.Taken came) {}

    @PostMapping("/saved/{id}/payments")
    PaidFromSaved pay(@PathVariable String token, @PathVariable long id, @RequestBody PayFromSaved pay) {
        Document invoice = invoices.byToken(token);
        views.checkTakes(invoice);
        Money shown = money(invoice, pay.amount(), pay.currency());
        SavedMethod from = methods.usable(invoice.clientId(), id);
        OnTopService.Chosen c = pay.chosen() == null ? OnTopService.Chosen.NOTHING : pay.chosen();
        OnTopService.Paid paid =
                onTop.paid(shown, new OnTopService.Chosen(from.with().way().name(), c.tip(), c.total()));
        return new PaidFromSaved(taking.pay(invoice, pay.installments(), shown, from, paid.top()));
    }

    /** The same for a day to come. */
    record PlanFromSaved(List<Long> installments, String amount, String currency, String on) {}

    @PostMapping("/saved/{id}/plans")
    SavedViews.SavedOnPage plan(@PathVariable String token, @PathVariable long id, @RequestBody PlanFromSaved plan) {
        Document invoice = invoices.byToken(token);
        views.checkTakes(invoice);
        Money shown = money(invoice, plan.amount(), plan.currency());
        SavedMethod from = methods.usable(invoice.clientId(), id);
        asClient(invoice, () -> planned.plan(invoice, plan.installments(), shown, from, plan.on()));
        return views.onPage(invoice);
    }

    @DeleteMapping("/plans/{id}")
    SavedViews.SavedOnPage takeBack(@PathVariable String token, @PathVariable long id) {
        Document invoice = invoices.byToken(token);
        asClient(invoice, () -> planned.takeBack(invoice.id(), id));
        return views.onPage(invoice);
    }

    @DeleteMapping("/saved/{id}")
    SavedViews.SavedOnPage remove(@PathVariable String token, @PathVariable long id) {
        Document invoice = invoices.byToken(token);
        asClient(invoice, () -> methods.remove(invoice.clientId(), id));
        return views.onPage(invoice);
    }

    private void asClient(Document invoice, Runnable act) {
        Happenings.asClient(clients.client(invoice.clientId()).name(), act);
    }

    private static Money money(Document invoice, String amount, String currency) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit unit = TypedNumber.currency("currency", currency, problems);
        if (unit != null && !unit.getCode().equals(invoice.currency())) {
            problems.add(new Problem("currency", currency, "must be " + invoice.currency()));
        }
        Money money = unit == null ? null : TypedNumber.amount("amount", amount, unit, problems);
        SavedViews.check(problems);
        return money;
    }
}
