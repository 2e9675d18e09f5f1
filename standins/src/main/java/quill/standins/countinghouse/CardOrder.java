package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.time.LocalDate;

/** One order: a sum that somebody may pay by card, once. */
record CardOrder(
        String id,
        String ourKey,
        BigDecimal amount,
        String currency,
        About about,
        String state,
        String paymentId,
        LocalDate paidOn,
        BigDecimal fee,
        Card card,
        boolean awaitsCode) {
    /**
     * What the payer sees, who it is as the business knows, and where the payer goes afterwards.
     *
     * @param test whether it is only tried: no money moves
     */
    record About(String description, String returnTo, String payerName, String payerEmail, boolean test) {}

    /** The card that is tried; nulls before any. */
    record Card(String lastFour, String expiry) {}

    boolean isOpen() {
        return "open".equals(state);
    }

    /** The amount as a person reads it. */
    public String shown() {
        int decimals = java.util.Currency.getInstance(currency).getDefaultFractionDigits();
        return currency + " " + String.format(java.util.Locale.ROOT, "%,." + decimals + "f", amount);
    }
}
