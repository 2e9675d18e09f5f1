package quill.server.lists;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.server.common.ChosenIds;
import quill.server.common.Csv;
import quill.server.common.OneSnapshot;

/** Lists of invoices and payments as tables, their CSV, and kept views, over HTTP. */
@RestController
@RequestMapping("/api")
class ListsController {
    private static final int ALL = 1_000_000;
    private static final int MOST_CHOSEN = 500;
    private final InvoiceList invoices;
    private final PaymentList payments;
    private final KeptViews views;

    ListsController(InvoiceList invoices, PaymentList payments, KeptViews views) {
        this.invoices = invoices;
        this.payments = payments;
        this.views = views;
    }

    /** @param more where the next page begins; null where this is the last */
    record InvoiceRows(
            List<InvoiceList.ListedInvoice> rows,
            @Schema(nullable = true) Integer more) {}

    /** @param more where the next page begins; null where this is the last */
    record PaymentRows(
            List<PaymentList.ListedPayment> rows,
            @Schema(nullable = true) Integer more) {}

    record KeepView(String place, String name, String shows) {}

    @GetMapping("/invoices/list")
    @OneSnapshot
    InvoiceRows invoices(@ParameterObject Wanted.Typed typed, @RequestParam(defaultValue = "0") int start) {
        Wanted w = invoices.wanted(typed);
        var found = invoices.rows(w, checked(start), InvoiceList.PAGE + 1);
        return new InvoiceRows(first(found, InvoiceList.PAGE), more(found.size(), start, InvoiceList.PAGE));
    }

    @GetMapping("/invoices/list/totals")
    List<InvoiceList.InvoiceTotal> invoiceTotals(@ParameterObject Wanted.Typed typed) {
        return invoices.totals(invoices.wanted(typed));
    }

    /** Exactly what the list shows, all of it; or only some, by id. */
    @GetMapping("/invoices/list.csv")
    @OneSnapshot
    ResponseEntity<byte[]> invoicesAsTable(
            @ParameterObject Wanted.Typed typed, @RequestParam(required = false) List<Long> ids) {
        Wanted w = invoices.wanted(typed);
        var rows =
                ids == null || ids.isEmpty() ? invoices.rows(w, 0, ALL) : invoices.some(ChosenIds.of(ids, MOST_CHOSEN));
        return Csv.file("invoices.csv", InvoiceList.table(rows));
    }

    @GetMapping("/payments/list")
    @OneSnapshot
    PaymentRows payments(@ParameterObject Wanted.Typed typed, @RequestParam(defaultValue = "0") int start) {
        Wanted w = payments.wanted(typed);
        var found = payments.rows(w, checked(start), PaymentList.PAGE + 1);
        return new PaymentRows(first(found, PaymentList.PAGE), more(found.size(), start, PaymentList.PAGE));
    }

    @GetMapping("/payments/list/totals")
    List<PaymentList.PaymentTotal> paymentTotals(@ParameterObject Wanted.Typed typed) {
        return payments.totals(payments.wanted(typed));
    }

    /** Exactly what the list shows, all of it. */
    @GetMapping("/payments/list.csv")
    @OneSnapshot
    ResponseEntity<byte[]> paymentsAsTable(@ParameterObject Wanted.Typed typed) {
        Wanted w = payments.wanted(typed);
        return Csv.file("money-in.csv", PaymentList.table(payments.rows(w, 0, ALL)));
    }

    @GetMapping("/views")
    List<KeptViews.KeptView> views(@RequestParam String place) {
        return views.of(place);
    }

    @PostMapping("/views")
    void keep(@RequestBody KeepView view) {
        views.keep(view.place(), view.name(), view.shows());
    }

    @DeleteMapping("/views/{id}")
    void forget(@PathVariable long id) {
        views.forget(id);
    }

    private static int checked(int start) {
        if (start < 0) {
            throw new RefusedException("start", String.valueOf(start), "must be 0 or more");
        }
        return start;
    }

    private static <T> List<T> first(List<T> found, int page) {
        return found.subList(0, Math.min(page, found.size()));
    }

    private static Integer more(int found, int start, int page) {
        return found > page ? Integer.valueOf(start + page) : null;
    }
}
