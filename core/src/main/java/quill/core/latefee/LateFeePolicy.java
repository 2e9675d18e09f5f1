package quill.core.latefee;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.money.Amounts;
import quill.core.money.Percent;

/**
 * What is charged on an installment that is not paid in time. Fixed and printed when the invoice is issued.
 *
 * @param grace days past the due date on which nothing is charged yet; the first fee falls on the day after them
 * @param cap on all fees of one installment together; waived ones do not count
 * @param smallest nothing is charged where less than this is overdue
 * @param onDeposits whether a deposit bears fees too
 * @param tax what tax a fee bears; cap and ceiling are without tax that is added
 */
public record LateFeePolicy(
        Charge charge, int grace, Repeat repeat, Cap cap, Money smallest, boolean onDeposits, FeeTax tax) {
    /** Longest time of grace, and longest time between two fees. */
    public static final int MOST_DAYS = 365;

    /** How one fee is reckoned. */
    public sealed interface Charge {
        /** No fee at all. */
        record None() implements Charge {}

        /** The same sum each time. */
        record Flat(Money amount) implements Charge {}

        /** A percentage of what is overdue on the day. */
        record OfOverdue(Percent percent) implements Charge {}
    }

    /** How often a fee is charged while the installment stays open. */
    public sealed interface Repeat {
        /** Once only. */
        record Once() implements Repeat {}

        /** Every n days after the first. */
        record EveryDays(int days) implements Repeat {}

        /** Monthly, always from the first fee's own day: 31 January, 28 February, 31 March. */
        record Monthly() implements Repeat {}
    }

    /** The most that all fees of one installment may come to. */
    public sealed interface Cap {
        /** No cap. */
        record None() implements Cap {}

        /** A sum. */
        record OfAmount(Money amount) implements Cap {}

        /** A percentage of the installment's first amount. */
        record OfFirstAmount(Percent percent) implements Cap {}
    }

    /** @throws IllegalArgumentException for days outside 0 to 365; what people type is refused earlier, field by field */
    public LateFeePolicy {
        if (grace < 0 || grace > MOST_DAYS) {
            throw new IllegalArgumentException("grace (" + grace + ") must be from 0 to 365 days");
        }
        if (repeat instanceof Repeat.EveryDays every && (every.days() < 1 || every.days() > MOST_DAYS)) {
            throw new IllegalArgumentException("every (" + every.days() + ") must be from 1 to 365 days");
        }
    }

    /** No fees. @param zero in the currency of the books */
    public static LateFeePolicy none(Money zero) {
        return new LateFeePolicy(new Charge.None(), 0, new Repeat.Once(), new Cap.None(), zero, false, FeeTax.none());
    }

    /** The same, bearing these taxes. */
    public LateFeePolicy with(FeeTax taxes) {
        return new LateFeePolicy(charge, grace, repeat, cap, smallest, onDeposits, taxes);
    }

    /** Whether it never charges anything. */
    public boolean isNone() {
        return charge instanceof Charge.None;
    }

    /** The day of the n-th fee, counted from 1: the first lies one day past the days of grace. */
    public LocalDate dayOf(LocalDate dueOn, int sequence) {
        LocalDate first = dueOn.plusDays(grace + 1L);
        if (repeat instanceof Repeat.EveryDays every) {
            return first.plusDays((sequence - 1L) * every.days());
        }
        return repeat instanceof Repeat.Monthly ? first.plusMonths(sequence - 1L) : first;
    }

    /** Number of the latest fee whose day is not after this one; 0 before the first. */
    int latestOn(LocalDate dueOn, LocalDate day) {
        if (dayOf(dueOn, 1).isAfter(day)) {
            return 0;
        }
        if (repeat instanceof Repeat.Once) {
            return 1;
        }
        int sequence = 1;
        while (!dayOf(dueOn, sequence + 1).isAfter(day)) {
            sequence++;
        }
        return sequence;
    }

    /** The cap in money, or null where there is none. @param first the installment's first amount */
    Money capOn(Money first) {
        if (cap instanceof Cap.OfAmount sum) {
            return sum.amount();
        }
        return cap instanceof Cap.OfFirstAmount part ? part.percent().of(first) : null;
    }

    /** The policy as a sentence, as it is printed on the invoice; empty where there is none. */
    public String words() {
        if (isNone()) {
            return "";
        }
        StringBuilder out = new StringBuilder("Late fee: ");
        if (charge instanceof Charge.Flat flat) {
            out.append(shown(flat.amount()));
        } else if (charge instanceof Charge.OfOverdue part) {
            out.append(part.percent()).append(" of what is overdue");
        }
        out.append(grace == 0 ? ", from the day after the due date" : ", after " + days(grace) + " of grace");
        if (repeat instanceof Repeat.EveryDays every) {
            out.append(", then every ").append(every.days() == 1 ? "day" : days(every.days()));
        } else {
            out.append(repeat instanceof Repeat.Monthly ? ", then monthly" : ", once");
        }
        if (cap instanceof Cap.OfAmount sum) {
            out.append(", at most ").append(shown(sum.amount())).append(" on an installment");
        } else if (cap instanceof Cap.OfFirstAmount part) {
            out.append(", at most ").append(part.percent()).append(" of an installment");
        }
        if (smallest.isPositive()) {
            out.append(", nothing below ").append(shown(smallest)).append(" overdue");
        }
        out.append('.');
        return out.append(tax.borne() ? " It bears tax as this invoice does." : "")
                .toString();
    }

    private static String days(int days) {
        return days == 1 ? "1 day" : days + " days";
    }

    private static String shown(Money amount) {
        return amount.getCurrencyUnit() + " " + Amounts.grouped(amount);
    }
}
