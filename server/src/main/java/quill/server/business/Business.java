package quill.server.business;

import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.CreditorReference;
import quill.core.document.NumberPattern;
import quill.core.money.TypedNumber;
import quill.core.tax.TaxRounding;
import quill.server.common.Texts;

/**
 * The business that issues the invoices.
 *
 * @param country ISO 3166-1 code of two letters; empty where it is not given
 * @param currency ISO 4217; fixed once the first document is issued
 * @param daysToPay what a new invoice's last installment is given
 * @param feesFirst whether money settles late fees before installments
 */
public record Business(
        String name,
        String tagline,
        String address,
        String country,
        String email,
        String taxNumber,
        boolean registered,
        String currency,
        String zone,
        TaxRounding taxRounding,
        String iban,
        String bic,
        String invoicePattern,
        String creditNotePattern,
        int daysToPay,
        String footer,
        boolean feesFirst,
        int version) {
    private static final int MOST_DAYS = 3650;

    /** The currency of the books. */
    public CurrencyUnit currencyUnit() {
        return CurrencyUnit.of(currency);
    }

    /** The same with every field checked and trimmed. @throws RefusedException with all that is wrong */
    public Business checked() {
        List<Problem> problems = new ArrayList<>();
        String plainName = Texts.name("name", name, 120, true, problems);
        String plainEmail = Texts.email("email", email, true, problems);
        CurrencyUnit unit = TypedNumber.currency("currency", currency, problems);
        try {
            ZoneId.of(zone == null ? "" : zone);
        } catch (DateTimeException e) {
            problems.add(new Problem("zone", zone, "must be a time zone such as Europe/London"));
        }
        if (iban != null && !iban.isBlank() && !CreditorReference.isValid(iban)) {
            problems.add(new Problem("iban", iban, "its check digits are wrong; look for a slip"));
        }
        if (daysToPay < 0 || daysToPay > MOST_DAYS) {
            problems.add(new Problem("daysToPay", String.valueOf(daysToPay), "must be from 0 to 3,650"));
        }
        pattern("invoicePattern", invoicePattern, problems);
        pattern("creditNotePattern", creditNotePattern, problems);
        Business result = new Business(
                plainName,
                Texts.name("tagline", tagline, 200, false, problems),
                Texts.text("address", address, 500, false, problems),
                Texts.country("country", country, problems),
                plainEmail,
                Texts.name("taxNumber", taxNumber, 40, registered, problems),
                registered,
                unit == null ? "EUR" : unit.getCode(),
                zone,
                taxRounding == null ? TaxRounding.PER_TAX : taxRounding,
                Texts.name("iban", iban, 40, false, problems),
                Texts.name("bic", bic, 20, false, problems),
                invoicePattern,
                creditNotePattern,
                daysToPay,
                Texts.text("footer", footer, 500, false, problems),
                feesFirst,
                version);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return result;
    }

    /** The same with another account for transfers. */
    Business paidInto(String otherIban, String otherBic) {
        return new Business(
                name,
                tagline,
                address,
                country,
                email,
                taxNumber,
                registered,
                currency,
                zone,
                taxRounding,
                otherIban,
                otherBic,
                invoicePattern,
                creditNotePattern,
                daysToPay,
                footer,
                feesFirst,
                version);
    }

    private static void pattern(String field, String text, List<Problem> problems) {
        try {
            new NumberPattern(text);
        } catch (RefusedException e) {
            problems.add(new Problem(field, text, e.problems().get(0).message()));
        }
    }
}
