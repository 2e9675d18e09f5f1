package quill.core.schedule;

/**
 * An installment as typed.
 *
 * @param deposit whether it is a deposit
 * @param share {@code 40%}, {@code 500.00}, {@code equal} (one of several equal parts) or {@code rest}
 * @param days days after issue, {@code 0} for on issue; or the day, such as {@code 15 Apr} or {@code 2027-04-15}
 */
public record TypedTerm(boolean deposit, String share, String days) {}
