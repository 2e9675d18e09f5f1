package quill.core.quote;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;
import quill.core.document.Extent;
import quill.core.document.TypedInstallmentOffer;
import quill.core.money.Amounts;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;

/**
 * The limits inside which a client picks how it pays: monthly installments from a first day, and what it saves by paying all
 * at once until then. Common practice: at most two years of monthly parts.
 *
 * @param most the largest number of installments; 1 where only paying at once is offered
 * @param first on which day the first is due, and until which all can be paid at once
 * @param discount off for that
 */
public record InstallmentOffer(int most, LocalDate first, Extent discount) {
    /** The fewest that are worth a plan. */
    public static final int FEWEST = 2;
    /** The most. */
    public static final int MOST = 24;

    private static final int USUAL_DAYS = 30;
    private static final int MOST_DAYS = 366;

    /**
     * What was typed; null where nothing is offered, or a problem was added.
     *
     * @param issuedOn a first day is not before it
     */
    public static InstallmentOffer read(
            TypedInstallmentOffer typed, CurrencyUnit currency, LocalDate issuedOn, List<Problem> problems) {
        if (typed == null
                || text(typed.most()).isEmpty() && text(typed.discount()).isEmpty()) {
            return null;
        }
        int before = problems.size();
        int most = 1;
        String typedMost = text(typed.most());
        if (!typedMost.isEmpty()) {
            if (!typedMost.matches("\\d{1,4}")
                    || Integer.parseInt(typedMost) < FEWEST
                    || Integer.parseInt(typedMost) > MOST) {
                problems.add(new Problem("plan.most", typedMost, "must be a number from " + FEWEST + " to " + MOST));
            } else {
                most = Integer.parseInt(typedMost);
            }
        }
        LocalDate first = issuedOn.plusDays(USUAL_DAYS);
        if (!text(typed.first()).isEmpty()) {
            first = LooseDate.read("plan.first", typed.first(), issuedOn, LooseDate.Lean.COMING, problems);
            if (first != null && (first.isBefore(issuedOn) || first.isAfter(issuedOn.plusDays(MOST_DAYS)))) {
                problems.add(new Problem(
                        "plan.first",
                        typed.first(),
                        "must be from " + TypedDate.inWords(issuedOn) + ", the day of issue, to a year after"));
            }
        }
        Extent discount = Extent.read("plan.discount", text(typed.discount()), currency, problems);
        return problems.size() > before ? null : new InstallmentOffer(most, first, discount);
    }

    private static String text(String typed) {
        return typed == null ? "" : typed.strip();
    }

    /** What is off of a sum that is paid at once; zero where nothing is. */
    public Money off(Money due) {
        return discount.of(due);
    }

    /** Whether anything is off. */
    public boolean hasDiscount() {
        return !(discount instanceof Extent.None);
    }

    /** Whether it can still be picked, or all be paid at once. */
    public boolean holdsOn(LocalDate day) {
        return !day.isAfter(first);
    }

    /**
     * The terms of so many installments, the first on its day and one each month after.
     *
     * @throws RefusedException naming {@code count}, for a number that is not offered
     */
    public List<TypedTerm> terms(int count) {
        if (count < FEWEST || count > most) {
            throw new RefusedException(
                    "count",
                    count,
                    most < FEWEST ? "no installments are offered" : "must be from " + FEWEST + " to " + most);
        }
        List<TypedTerm> terms = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            terms.add(new TypedTerm(false, "equal", i == 0 ? first.toString() : "monthly"));
        }
        return terms;
    }

    /** What so many installments would be. @param open what is to be paid @param today from when days count */
    public List<Installment> in(int count, Money open, LocalDate today) {
        List<Problem> problems = new ArrayList<>();
        List<Term> terms = Term.readAll(terms(count), open.getCurrencyUnit(), today, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return ScheduleMaking.make(open, today, terms);
    }

    /** Where a discount leaves nothing to pay it is refused. */
    public void check(Money due, List<Problem> problems) {
        if (hasDiscount() && !off(due).isLessThan(due)) {
            problems.add(new Problem(
                    "plan.discount",
                    Amounts.plain(off(due)),
                    "must be less than what is due, " + Amounts.grouped(due)));
        }
        if (most >= FEWEST && due.getAmountMinorLong() < most) {
            problems.add(new Problem(
                    "plan.most",
                    String.valueOf(most),
                    "must leave every installment above zero of " + Amounts.grouped(due)));
        }
    }

    /** What is offered, in a sentence or two, as the paper says it. @param net and tax of what is off */
    public String words(Money due, Money net, Money tax) {
        StringBuilder words = new StringBuilder();
        if (most >= FEWEST) {
            words.append("On its page you can pick once, from 2 to ")
                    .append(most)
                    .append(" monthly installments, the first on ")
                    .append(TypedDate.inWords(first))
                    .append(". ");
        }
        if (hasDiscount()) {
            Money off = off(due);
            words.append(words.isEmpty() ? "Paid" : "Instead, paid")
                    .append(" whole by ")
                    .append(TypedDate.inWords(first))
                    .append(", ")
                    .append(Amounts.grouped(off))
                    .append(" is taken off (net ")
                    .append(Amounts.grouped(net))
                    .append(", tax ")
                    .append(Amounts.grouped(tax))
                    .append("): ")
                    .append(Amounts.grouped(due.minus(off)))
                    .append(" is to be paid then.");
        }
        return words.toString().strip();
    }
}
