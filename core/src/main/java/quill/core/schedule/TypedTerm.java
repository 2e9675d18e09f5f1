package quill.core.schedule;

import quill.core.money.DecimalMark;

/**
 * An installment as typed.
 *
 * @param deposit whether it is a deposit
 * @param share {@code 40%}, {@code 500.00}, {@code equal} (one of several equal parts) or {@code rest}
 * @param days when it is due, as {@link DueReading} reads it: {@code 30} days after issue, {@code 15 Apr}, {@code monthly}
 */
public record TypedTerm(boolean deposit, String share, String days) {
    /** All of it on issue. */
    public static final TypedTerm WHOLE = new TypedTerm(false, "rest", "0");

    /** The same with its share as programs write numbers, whatever mark it was typed with. */
    public TypedTerm plain(DecimalMark mark) {
        return with(mark.plain(share));
    }

    /** The same as somebody with this mark types it. */
    public TypedTerm typed(DecimalMark mark) {
        return with(mark.typed(share));
    }

    /** The same with another share. */
    TypedTerm with(String otherShare) {
        return new TypedTerm(deposit, otherShare, days);
    }
}
