package quill.core.schedule;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import quill.core.Problem;
import quill.core.money.TypedNumber;

/**
 * One installment as it is agreed.
 *
 * @param deposit asked for before the work starts
 */
public record Term(boolean deposit, Share share, Due due) {
    private static final String SHARES =
            "write a percentage such as 40%, an amount, equal, rest, 12x for equal ones, or 30/40/30";

    /** One that is due so many days after issue. */
    public Term(boolean deposit, Share share, int days) {
        this(deposit, share, new Due.AfterIssue(days));
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
        if (typed.size() > ScheduleMaking.MAX) {
            problems.add(new Problem(
                    "schedule", String.valueOf(typed.size()), "at most " + ScheduleMaking.MAX + " installments"));
            return List.of(all(0));
        }
        for (int i = 0; i < typed.size(); i++) {
            String path = "schedule[" + i + "].";
            Share share = share(path + "share", typed.get(i).share(), currency, problems);
            Due due = DueReading.read(path + "days", typed.get(i).days(), issuedOn, problems);
            if (share != null && due != null) {
                terms.add(new Term(typed.get(i).deposit(), share, due));
            }
        }
        return typed.isEmpty() ? List.of(all(0)) : terms;
    }

    static Share share(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        String typed = text == null ? "" : text.strip();
        if (typed.equalsIgnoreCase("rest")) {
            return new Share.Rest();
        }
        if (typed.equalsIgnoreCase("equal")) {
            return new Share.Equal();
        }
        if (typed.isEmpty()) {
            problems.add(new Problem(field, "", SHARES));
            return null;
        }
        if (ScheduleEditing.isSeveral(typed)) {
            problems.add(new Problem(field, typed, SHARES));
            return null;
        }
        return TypedNumber.<Share>percentOrAmount(
                field, typed, currency, problems, Share.OfPercent::new, Share.OfAmount::new);
    }
}
