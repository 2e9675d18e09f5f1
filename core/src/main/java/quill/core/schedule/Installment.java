package quill.core.schedule;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.Why;

/**
 * One part of a schedule: always above zero.
 *
 * @param dueOn null while it has none: until a milestone is reached, or a day is set
 * @param due how that was agreed
 */
public record Installment(int position, boolean deposit, Money amount, LocalDate dueOn, Due due, Why why) {}
