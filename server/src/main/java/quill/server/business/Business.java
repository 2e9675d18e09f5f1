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
        TransferAccount account,
        Habits habits,
        int version) {
    private static final int MOST_DAYS = 3650;

    /** What is left out is empty; habits that are left out are refused where they are checked. */
    public Business {
        account = account == null ? TransferAccount.NONE : account;
        habits = habits == null ? new Habits("", "", 0, TaxRounding.PER_TAX, "", false) : habits;
    }

    /** Where money is transferred to; both empty where there is no account. */
    public record TransferAccount(String iban, String bic) {
        /** Where there is no account. */
        public static final TransferAccount NONE = new TransferAccount("", "");

        private TransferAccount checked(List<Problem> problems) {
            if (iban != null && !iban.isBlank() && !CreditorReference.isValid(iban)) {
                problems.add(new Problem("account.iban", iban, "its check digits are wrong; look for a slip"));
            }
            return new TransferAccount(
                    Texts.name("account.iban", iban, 40, false, problems),
                    Texts.name("account.bic", bic, 20, false, problems));
        }
    }

    /**
     * How it writes its documents, and what it does with money.
     *
     * @param quotePattern empty for the usual one
     * @param daysToPay what a new invoice's last installment is given
     * @param feesFirst whether money settles late fees before installments
     */
    public record Habits(
            String invoicePattern,
            String creditNotePattern,
            String quotePattern,
            int daysToPay,
            TaxRounding taxRounding,
            String footer,
            boolean feesFirst) {
        /** What a new business begins with. */
        public static final Habits USUAL =
                new Habits("{year}-{seq}", "C-{year}-{seq}", 30, TaxRounding.PER_TAX, "", false);

        private static final String USUAL_QUOTES = "Q-{year}-{seq}";

        /** Quotes are numbered as usual where nothing is said. */
        public Habits {
            quotePattern = quotePattern == null || quotePattern.isBlank() ? USUAL_QUOTES : quotePattern;
        }

        /** With quotes numbered as usual. */
        public Habits(
                String invoicePattern,
                String creditNotePattern,
                int daysToPay,
                TaxRounding taxRounding,
                String footer,
                boolean feesFirst) {
            this(invoicePattern, creditNotePattern, USUAL_QUOTES, daysToPay, taxRounding, footer, feesFirst);
        }

        private Habits checked(List<Problem> problems) {
            if (daysToPay < 0 || daysToPay > MOST_DAYS) {
                problems.add(new Problem("habits.daysToPay", String.valueOf(daysToPay), "must be from 0 to 3,650"));
            }
            pattern("habits.invoicePattern", invoicePattern, problems);
            pattern("habits.creditNotePattern", creditNotePattern, problems);
            pattern("habits.quotePattern", quotePattern, problems);
            return new Habits(
                    invoicePattern,
                    creditNotePattern,
                    quotePattern,
                    daysToPay,
                    taxRounding == null ? TaxRounding.PER_TAX : taxRounding,
                    Texts.text("habits.footer", footer, 500, false, problems),
                    feesFirst);
        }
    }

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
                account.checked(problems),
                habits.checked(problems),
                version);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return result;
    }

    /** The same with another account for transfers. */
    Business paidInto(String iban, String bic) {
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
                new TransferAccount(iban, bic),
                habits,
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
