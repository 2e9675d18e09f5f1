package quill.core.schedule;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.Why;

/** One part of a schedule: always above zero. */
public record Installment(int position, boolean deposit, Money amount, LocalDate dueOn, Why why) {}
