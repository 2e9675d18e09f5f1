package quill.core.issued;

import java.time.LocalDate;
import java.util.Objects;

/** What a credit note takes back. @param whole whether nothing of the invoice is left */
public record Corrects(String number, LocalDate issuedOn, String reason, boolean whole) {
    /** It names the invoice. */
    public Corrects {
        Objects.requireNonNull(number);
        Objects.requireNonNull(issuedOn);
        Objects.requireNonNull(reason);
    }
}
