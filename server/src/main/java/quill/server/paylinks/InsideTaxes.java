package quill.server.paylinks;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.tax.Tax;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxRounding;
import quill.server.business.BusinessService;
import quill.server.dispatch.LinkLetters;

/** The taxes that are inside an amount. */
@Component
class InsideTaxes {
    private final BusinessService business;

    InsideTaxes(BusinessService business) {
        this.business = business;
    }

    /** Each with what it comes to. @param keys those that were chosen; one that is no more is left out */
    List<LinkLetters.Inside> of(Money amount, List<String> keys) {
        Map<String, Tax> all = business.taxes();
        List<Tax> set = keys.stream().map(all::get).filter(Objects::nonNull).toList();
        if (set.isEmpty()) {
            return List.of();
        }
        return TaxReckoning.reckon(
                        amount.getCurrencyUnit(),
                        List.of(new TaxReckoning.Bearing(set, amount, 0)),
                        true,
                        TaxRounding.PER_TAX)
                .taxes()
                .stream()
                .map(t -> new LinkLetters.Inside(t.tax().name(), t.amount()))
                .toList();
    }
}
