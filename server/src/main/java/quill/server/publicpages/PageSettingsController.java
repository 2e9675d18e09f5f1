package quill.server.publicpages;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.invoices.Plans;

/** What clients may do on their pages. */
@RestController
@RequestMapping("/api/page-settings")
class PageSettingsController {
    private final Plans plans;

    PageSettingsController(Plans plans) {
        this.plans = plans;
    }

    /** @param otherAmounts whether clients may pay another amount than the installments that are open */
    record PageSetting(boolean otherAmounts) {}

    @GetMapping
    PageSetting setting() {
        return new PageSetting(plans.otherAmounts());
    }

    @PutMapping
    PageSetting change(@RequestBody PageSetting to) {
        plans.allowOtherAmounts(to.otherAmounts());
        return setting();
    }
}
