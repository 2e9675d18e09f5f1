package quill.core.document;

import quill.core.money.DecimalMark;

/**
 * What an invoice offers its client before it is paid, as typed.
 *
 * @param most the largest number of monthly installments; empty where none are offered
 * @param first on which day the first of them is due, as {@link quill.core.LooseDate} reads it; empty for 30 days after issue
 * @param discount off for paying all at once by that day: empty, {@code 10%} or {@code 25.00}
 * @param acceptance whether its text and files are to be accepted by name before anything is picked or paid
 */
public record TypedInstallmentOffer(String most, String first, String discount, boolean acceptance) {
    /** The same with its numbers as programs write them. */
    TypedInstallmentOffer plain(DecimalMark mark) {
        return new TypedInstallmentOffer(most, first, mark.plain(discount), acceptance);
    }
}
