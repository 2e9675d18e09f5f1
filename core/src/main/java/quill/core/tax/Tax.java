package quill.core.tax;

import java.util.List;
import quill.core.RefusedException;
import quill.core.money.Percent;

/**
 * A named rate.
 *
 * @param id stable within a business
 * @param name as printed: {@code VAT 21%}
 * @param rate zero for every category but S
 * @param compound whether its base includes the taxes before it on the line
 * @param reason why no tax is charged; empty where the category needs none
 */
public record Tax(String id, String name, Percent rate, TaxCategory category, boolean compound, String reason) {
    /** @throws RefusedException where rate or reason do not fit the category */
    public Tax {
        reason = reason == null ? "" : reason.strip();
        if (name == null || name.isBlank()) {
            throw new RefusedException("name", name, "give the tax a name, as it is to be printed");
        }
        if (category != TaxCategory.S && rate.rate().signum() != 0) {
            throw new RefusedException(
                    "rate", rate.rate().toPlainString(), "must be 0 for category " + category + "; only S has a rate");
        }
        if (category.needsReason() && reason.isEmpty()) {
            throw new RefusedException("reason", "", "category " + category + " needs a reason, which is printed");
        }
    }

    /** An ordinary tax at a rate. */
    public static Tax standard(String id, String name, String rate) {
        return new Tax(id, name, Percent.of(rate), TaxCategory.S, false, "");
    }

    /** A tax whose base includes the taxes before it. */
    public static Tax compound(String id, String name, String rate) {
        return new Tax(id, name, Percent.of(rate), TaxCategory.S, true, "");
    }

    /** Of several, as they are printed beside each other. */
    public static String names(List<Tax> taxes) {
        return String.join(", ", taxes.stream().map(Tax::name).toList());
    }

    /** The one tax of a business that is not registered: category O, nothing charged. */
    public static Tax outsideScope() {
        return new Tax("none", "No tax", Percent.of("0"), TaxCategory.O, false, "Not registered for tax");
    }
}
