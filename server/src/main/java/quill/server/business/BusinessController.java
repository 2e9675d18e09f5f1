package quill.server.business;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.tax.Tax;

/** Settings of the business, over HTTP. */
@RestController
@RequestMapping("/api/business")
class BusinessController {
    private final BusinessService service;

    BusinessController(BusinessService service) {
        this.service = service;
    }

    record TaxView(String id, String name, String rate, String category, String reason) {
        static TaxView of(Tax t) {
            return new TaxView(
                    t.id(),
                    t.name(),
                    t.rate().rate().toPlainString(),
                    t.category().name(),
                    t.reason());
        }
    }

    record BusinessView(Business business, List<TaxView> taxes) {}

    record NewTax(String name, String rate, String category, String reason) {}

    @GetMapping
    BusinessView show() {
        return new BusinessView(
                service.business(),
                service.taxes().values().stream().map(TaxView::of).toList());
    }

    @PutMapping
    Business change(@RequestBody Business business) {
        return service.change(business);
    }

    @PostMapping("/taxes")
    TaxView addTax(@RequestBody NewTax tax) {
        return TaxView.of(service.addTax(tax.name(), tax.rate(), tax.category(), tax.reason()));
    }
}
