package quill.core.schedule;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.document.TypedDraft.TypedTerm;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

/**
 * One installment as it is agreed.
 *
 * @param deposit asked for before the work starts
 * @param days days after the day of issue; 0 is on issue
 */
public record Term(boolean deposit, Share share, int days) {
    private static final int MAX_DAYS = 3650;
    private static final int MOST = 60;

    /** The simplest schedule: all of it, n days after issue. */
    public static Term all(int days) {
        return new Term(false, new Share.Rest(), days);
    }

    /** Reads terms as typed; nothing typed is one installment on issue. Problems are added to the list. */
    public static List<Term> readAll(List<TypedTerm> typed, CurrencyUnit currency, List<Problem> problems) {
        List<Term> terms = new ArrayList<>();
        if (typed.size() > MOST) {
            problems.add(new Problem("schedule", String.valueOf(typed.size()), "at most " + MOST + " installments"));
            return List.of(all(0));
        }
        for (int i = 0; i < typed.size(); i++) {
            String path = "schedule[" + i + "].";
            Share share = share(path + "share", typed.get(i).share(), currency, problems);
            BigDecimal days = TypedNumber.read(path + "days", typed.get(i).days(), 0, false, problems);
            if (days != null && days.intValue() > MAX_DAYS) {
                problems.add(new Problem(path + "days", typed.get(i).days(), "at most 3,650 days after issue"));
            } else if (share != null && days != null) {
                terms.add(new Term(typed.get(i).deposit(), share, days.intValue()));
            }
        }
        return typed.isEmpty() ? List.of(all(0)) : terms;
    }

    private static Share share(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        String typed = text == null ? "" : text.strip();
        if (typed.equalsIgnoreCase("rest")) {
            return new Share.Rest();
        }
        if (typed.endsWith("%")) {
            Percent percent = TypedNumber.percent(field, typed, problems);
            return percent == null ? null : new Share.OfPercent(percent);
        }
        if (typed.isEmpty()) {
            problems.add(new Problem(field, "", "write a percentage such as 40%, an amount, or rest"));
            return null;
        }
        Money amount = TypedNumber.amount(field, typed, currency, problems);
        return amount == null ? null : new Share.OfAmount(amount);
    }
}
