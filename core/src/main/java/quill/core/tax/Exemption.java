package quill.core.tax;

import java.time.LocalDate;
import quill.core.TypedDate;
import quill.core.money.Percent;

/**
 * A client's certificate that it pays no tax.
 *
 * @param certificate its number or name, as printed
 * @param until the last day on which it holds; null where it has no end
 */
public record Exemption(String certificate, LocalDate until) {
    /** Whether it holds on the day of issue; its last day counts. */
    public boolean holdsOn(LocalDate day) {
        return until == null || !day.isAfter(until);
    }

    /** What an exempt client's lines bear: category E, nothing charged, the certificate as the reason. */
    public Tax tax() {
        String reason = "Exempt by certificate " + certificate
                + (until == null ? "" : ", valid until " + TypedDate.inWords(until));
        return new Tax("exempt", "Exempt", Percent.of("0"), TaxCategory.E, false, reason);
    }
}
