package quill.core.schedule;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.money.Split;

/**
 * Splits what is due into 1 to 60 installments that sum to it exactly. All given as percentages (a rest counts as
 * the percentage left, equal parts share it): the due is split by them. With fixed amounts there is exactly one rest, or
 * there are equal parts: percentages are round(percent x due), the rest takes what is left, or equal parts share it.
 */
public final class ScheduleMaking {
    /** The most installments that a schedule may have. */
    public static final int MAX = 60;

    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    private ScheduleMaking() {}

    /**
     * Makes the schedule. Example: 1,574.39 with 40 % on issue and the rest after 30 days is 629.76 and 944.63.
     *
     * @param due above zero
     * @param issuedOn the day from which the days count
     * @throws RefusedException naming {@code schedule} or {@code schedule[i].share}
     */
    public static List<Installment> make(Money due, LocalDate issuedOn, List<Term> terms) {
        if (terms.isEmpty() || terms.size() > MAX) {
            throw new RefusedException("schedule", terms.size(), "must have from 1 to " + MAX + " installments");
        }
        List<Optional<LocalDate>> days =
                DueDates.of(terms.stream().map(Term::due).toList(), issuedOn);
        order(terms, days);
        boolean fixed = terms.stream().anyMatch(t -> t.share() instanceof Share.OfAmount);
        List<Money> amounts = fixed ? withRest(due, terms) : byPercent(due, terms);
        List<Installment> schedule = new ArrayList<>(terms.size());
        for (int i = 0; i < terms.size(); i++) {
            if (!amounts.get(i).isPositive()) {
                throw new RefusedException(
                        "schedule[" + i + "].share",
                        Amounts.plain(amounts.get(i)),
                        "must leave every installment above zero; " + Amounts.grouped(due) + " is due in all");
            }
            Term term = terms.get(i);
            schedule.add(new Installment(
                    i + 1,
                    term.deposit(),
                    amounts.get(i),
                    days.get(i).orElse(null),
                    term.due(),
                    why(due, term, amounts, i)));
        }
        return List.copyOf(schedule);
    }

    private static void order(List<Term> terms, List<Optional<LocalDate>> days) {
        LocalDate above = null;
        for (int i = 0; i < terms.size(); i++) {
            if (terms.get(i).deposit() && i > 0) {
                throw new RefusedException("schedule[" + i + "].deposit", "true", "only the first can be a deposit");
            }
            LocalDate day = days.get(i).orElse(above);
            if (above != null && day.isBefore(above)) {
                throw new RefusedException(
                        "schedule[" + i + "].days",
                        TypedDate.inWords(day),
                        "must not be before the installment above it, " + TypedDate.inWords(above));
            }
            above = day;
        }
        boolean rest = terms.stream().anyMatch(t -> t.share() instanceof Share.Rest);
        if (rest && equalParts(terms) > 0) {
            throw new RefusedException(
                    "schedule", "rest, equal", "equal parts leave no rest; use one of the two words");
        }
    }

    private static int equalParts(List<Term> terms) {
        return (int)
                terms.stream().filter(t -> t.share() instanceof Share.Equal).count();
    }

    private static List<Money> byPercent(Money due, List<Term> terms) {
        BigDecimal given = BigDecimal.ZERO;
        int rests = 0;
        int last = 0;
        for (int i = 0; i < terms.size(); i++) {
            if (terms.get(i).share() instanceof Share.OfPercent p) {
                given = given.add(p.percent().rate());
                last = i;
            } else if (terms.get(i).share() instanceof Share.Rest) {
                rests++;
            }
        }
        int equalParts = equalParts(terms);
        if (rests > 1) {
            throw new RefusedException("schedule", rests + " rests", "only one installment can take the rest");
        }
        int compared = given.compareTo(HUNDRED);
        if (compared > 0 || (compared < 0 && rests + equalParts == 0)) {
            throw new RefusedException(
                    "schedule[" + last + "].share",
                    new PercentSum(given).text(),
                    "the installments make " + new PercentSum(given).text() + " together; they must make 100%");
        }
        // Each of n equal parts has an n-th of what is left: all weights times n, so that they stay exact.
        BigDecimal left = HUNDRED.subtract(given);
        BigDecimal times = BigDecimal.valueOf(Math.max(1, equalParts));
        return Split.byWeights(
                due,
                terms.stream()
                        .map(t -> t.share() instanceof Share.OfPercent p
                                ? p.percent().rate().multiply(times)
                                : left)
                        .toList());
    }

    /** A sum of percentages may pass 100, which a Percent may not. */
    private record PercentSum(BigDecimal sum) {
        private String text() {
            return sum.stripTrailingZeros().toPlainString() + "%";
        }
    }

    private static List<Money> withRest(Money due, List<Term> terms) {
        List<Money> amounts = new ArrayList<>();
        int rest = -1;
        Money taken = Money.zero(due.getCurrencyUnit());
        for (int i = 0; i < terms.size(); i++) {
            Money amount = Money.zero(due.getCurrencyUnit());
            if (terms.get(i).share() instanceof Share.OfPercent p) {
                amount = p.percent().of(due);
            } else if (terms.get(i).share() instanceof Share.OfAmount a) {
                amount = a.amount();
            } else if (terms.get(i).share() instanceof Share.Rest) {
                if (rest >= 0) {
                    throw new RefusedException("schedule[" + i + "].share", "rest", "only one can take the rest");
                }
                rest = i;
            }
            amounts.add(amount);
            taken = taken.plus(amount);
        }
        int equalParts = equalParts(terms);
        if (equalParts > 0) {
            Iterator<Money> parts = Split.byWeights(due.minus(taken), Collections.nCopies(equalParts, BigDecimal.ONE))
                    .iterator();
            for (int i = 0; i < terms.size(); i++) {
                if (terms.get(i).share() instanceof Share.Equal) {
                    amounts.set(i, parts.next());
                }
            }
            return amounts;
        }
        if (rest < 0) {
            if (taken.isEqual(due)) {
                return amounts;
            }
            throw new RefusedException(List.of(new Problem(
                    "schedule[" + (terms.size() - 1) + "].share",
                    Amounts.plain(taken),
                    "the installments make " + Amounts.grouped(taken) + " together, and " + Amounts.grouped(due)
                            + " is due; let one of them take the rest")));
        }
        amounts.set(rest, due.minus(taken));
        return amounts;
    }

    private static Why why(Money due, Term term, List<Money> amounts, int place) {
        String amount = Amounts.grouped(amounts.get(place));
        if (term.share() instanceof Share.OfPercent p) {
            return Why.of(
                    "a share of what is due; all shares sum to it exactly",
                    p.percent() + " of " + Amounts.grouped(due) + " = " + amount);
        }
        if (term.share() instanceof Share.OfAmount) {
            return Why.of("a fixed amount", amount);
        }
        if (term.share() instanceof Share.Equal) {
            return Why.of(
                    "one of several equal parts of what the other installments leave; all sum to it exactly", amount);
        }
        StringBuilder step = new StringBuilder(Amounts.grouped(due));
        for (int i = 0; i < amounts.size(); i++) {
            if (i != place) {
                step.append(" − ").append(Amounts.grouped(amounts.get(i)));
            }
        }
        return Why.of("what the other installments leave", step + " = " + amount);
    }
}
