package quill.server.payments;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.Csv;
import quill.server.common.OneSnapshot;
import quill.server.lists.Pages;
import quill.server.lists.Wanted;

/** The list of all that came in, its sums and its table, over HTTP. */
@RestController
@RequestMapping("/api/payments")
class PaymentListController {
    private final PaymentList payments;

    PaymentListController(PaymentList payments) {
        this.payments = payments;
    }

    /** @param more where the next page begins; null where this is the last */
    record PaymentRows(
            List<PaymentList.ListedPayment> rows,
            @Schema(nullable = true) Integer more) {}

    @GetMapping("/list")
    @OneSnapshot
    PaymentRows payments(@ParameterObject Wanted.Typed typed, @RequestParam(defaultValue = "0") int start) {
        var found = payments.rows(payments.wanted(typed), Pages.checked(start), Pages.PAGE + 1);
        return new PaymentRows(Pages.first(found), Pages.more(found.size(), start));
    }

    @GetMapping("/list/totals")
    List<PaymentList.PaymentTotal> paymentTotals(@ParameterObject Wanted.Typed typed) {
        return payments.totals(payments.wanted(typed));
    }

    /** Exactly what the list shows, all of it. */
    @GetMapping("/list.csv")
    @OneSnapshot
    ResponseEntity<byte[]> paymentsAsTable(@ParameterObject Wanted.Typed typed) {
        return Csv.file("money-in.csv", PaymentList.table(payments.rows(payments.wanted(typed), 0, Pages.ALL)));
    }
}
