package quill.core.schedule;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.joda.money.CurrencyUnit;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.TypedDate;
import quill.core.money.TypedNumber;

/**
 * One installment as it is agreed.
 *
 * @param deposit asked for before the work starts
 * @param days days after the day of issue; 0 is on issue
 * @param on the day on which it is due, or null where that goes by the days
 */
public record Term(boolean deposit, Share share, int days, LocalDate on) {
    private static final int MAX_DAYS = 3650;
    private static final int MOST = 60;
    private static final Pattern A_DAY = Pattern.compile(".*\\p{L}.*|\\d{4}-.*|\\d{1,2}[./]\\d.*");

    /** One that is due so many days after issue. */
    public Term(boolean deposit, Share share, int days) {
        this(deposit, share, days, null);
    }

    /** When it is due. */
    public LocalDate dueOn(LocalDate issuedOn) {
        return on == null ? issuedOn.plusDays(days) : on;
    }

    /** The simplest schedule: all of it, n days after issue. */
    public static Term all(int days) {
        return new Term(false, new Share.Rest(), days);
    }

    /**
     * Reads terms as typed; nothing typed is one installment on issue. Problems are added to the list.
     *
     * @param issuedOn a due date is not before it; one without a year is the next such day
     */
    public static List<Term> readAll(
            List<TypedTerm> typed, CurrencyUnit currency, LocalDate issuedOn, List<Problem> problems) {
        List<Term> terms = new ArrayList<>();
        if (typed.size() > MOST) {
            problems.add(new Problem("schedule", String.valueOf(typed.size()), "at most " + MOST + " installments"));
            return List.of(all(0));
        }
        for (int i = 0; i < typed.size(); i++) {
            String path = "schedule[" + i + "].";
            Share share = share(path + "share", typed.get(i).share(), currency, problems);
            Term term = due(path + "days", typed.get(i), share, issuedOn, problems);
            if (share != null && term != null) {
                terms.add(term);
            }
        }
        return typed.isEmpty() ? List.of(all(0)) : terms;
    }

    /** Days after issue, such as {@code 30}, {@code +30} or {@code 30 days}, or a day as people type it. */
    private static Term due(String field, TypedTerm typed, Share share, LocalDate issuedOn, List<Problem> problems) {
        String when = typed.days() == null
                ? ""
                : typed.days().strip().replaceFirst("(?<=\\d) ?days?$", "").replaceFirst("^\\+\\s*(?=\\d)", "");
        if (!A_DAY.matcher(when).matches()) {
            BigDecimal days = TypedNumber.read(field, when, 0, false, problems);
            if (days != null && days.intValue() > MAX_DAYS) {
                problems.add(new Problem(field, when, "at most 3,650 days after issue"));
                return null;
            }
            return days == null ? null : new Term(typed.deposit(), share, days.intValue());
        }
        LocalDate day = LooseDate.read(field, when, issuedOn, LooseDate.Lean.COMING, problems);
        if (day != null && day.isBefore(issuedOn)) {
            problems.add(new Problem(field, when, "is before the day of issue, " + TypedDate.inWords(issuedOn)));
            return null;
        }
        if (day != null && day.isAfter(issuedOn.plusDays(MAX_DAYS))) {
            problems.add(new Problem(field, when, "at most 3,650 days after issue"));
            return null;
        }
        return day == null ? null : new Term(typed.deposit(), share, 0, day);
    }

    private static Share share(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        String typed = text == null ? "" : text.strip();
        if (typed.equalsIgnoreCase("rest")) {
            return new Share.Rest();
        }
        if (typed.equalsIgnoreCase("equal")) {
            return new Share.Equal();
        }
        if (typed.isEmpty()) {
            problems.add(new Problem(field, "", "write a percentage such as 40%, an amount, equal, or rest"));
            return null;
        }
        return TypedNumber.<Share>percentOrAmount(
                field, typed, currency, problems, Share.OfPercent::new, Share.OfAmount::new);
    }
}
