package quill.server.documents;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.common.ChosenIds;
import quill.server.common.Csv;
import quill.server.common.OneSnapshot;
import quill.server.lists.Pages;
import quill.server.lists.Wanted;

/** The list of all invoices, its sums and its table, over HTTP. */
@RestController
@RequestMapping("/api/invoices")
class InvoiceListController {
    private static final int MOST_CHOSEN = 500;
    private final InvoiceList invoices;

    InvoiceListController(InvoiceList invoices) {
        this.invoices = invoices;
    }

    /** @param more where the next page begins; null where this is the last */
    record InvoiceRows(
            List<InvoiceList.ListedInvoice> rows,
            @Schema(nullable = true) Integer more) {}

    @GetMapping("/list")
    @OneSnapshot
    InvoiceRows invoices(@ParameterObject Wanted.Typed typed, @RequestParam(defaultValue = "0") int start) {
        var found = invoices.rows(invoices.wanted(typed), Pages.checked(start), Pages.PAGE + 1);
        return new InvoiceRows(Pages.first(found), Pages.more(found.size(), start));
    }

    @GetMapping("/list/totals")
    List<InvoiceList.InvoiceTotal> invoiceTotals(@ParameterObject Wanted.Typed typed) {
        return invoices.totals(invoices.wanted(typed));
    }

    /** Exactly what the list shows, all of it; or only some, by id. */
    @GetMapping("/list.csv")
    @OneSnapshot
    ResponseEntity<byte[]> invoicesAsTable(
            @ParameterObject Wanted.Typed typed, @RequestParam(required = false) List<DocumentId> ids) {
        Wanted w = invoices.wanted(typed);
        var rows = ids == null || ids.isEmpty()
                ? invoices.rows(w, 0, Pages.ALL)
                : invoices.some(ChosenIds.of(ids, MOST_CHOSEN));
        return Csv.file("invoices.csv", InvoiceList.table(rows));
    }
}
