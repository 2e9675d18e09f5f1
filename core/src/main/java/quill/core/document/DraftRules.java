package quill.core.document;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import quill.core.tax.Exemption;
import quill.core.tax.Tax;
import quill.core.tax.TaxRounding;

/**
 * What a draft is read against.
 *
 * @param taxes the business's taxes by id; for one that is not registered, the one that charges nothing, as "none"
 * @param own the currency of the books
 * @param rates the latest rate of each other currency that the business writes in: 1 of it in the own one
 * @param coins the smallest coin, by currency, where the business rounds what is paid in cash
 * @param seller the business's tax number; may be empty
 * @param buyer the client, or null while none is chosen
 * @param issuedOn the day of issue
 */
public record DraftRules(
        Map<String, Tax> taxes,
        CurrencyUnit own,
        TaxRounding rounding,
        Map<CurrencyUnit, BigDecimal> rates,
        Map<CurrencyUnit, CashRounding> coins,
        String seller,
        Buyer buyer,
        LocalDate issuedOn) {
    /**
     * What the client's own state decides.
     *
     * @param country ISO 3166-1 code; may be empty
     * @param exemption its certificate, valid or ended; null where it has none
     */
    public record Buyer(String taxNumber, String country, Exemption exemption) {}

    /** The client's certificate, if it has one that holds on the day of issue; else null. */
    public Exemption exemption() {
        Exemption exemption = buyer == null ? null : buyer.exemption();
        return exemption != null && exemption.holdsOn(issuedOn) ? exemption : null;
    }
}
