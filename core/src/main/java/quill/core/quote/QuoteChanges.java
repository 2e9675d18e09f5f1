package quill.core.quote;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedLine;
import quill.core.money.Amounts;

/** What a later version of a quote says otherwise, in sentences for its client. */
public final class QuoteChanges {
    private QuoteChanges() {}

    /**
     * The changes: lines that came, went or cost otherwise, and the total; none where both say the same.
     *
     * @param before what both were with the lines chosen that they begin with
     */
    public static List<String> of(IssuedDocument before, IssuedDocument now) {
        List<String> changes = new ArrayList<>();
        Map<String, Money> were = sums(before);
        Map<String, Money> are = sums(now);
        were.forEach((what, sum) -> {
            if (!are.containsKey(what)) {
                changes.add("“" + what + "” (" + Amounts.grouped(sum) + ") is not in it any more.");
            } else if (!are.get(what).equals(sum)) {
                changes.add("“" + what + "” is " + Amounts.grouped(are.get(what)) + "; it was " + Amounts.grouped(sum)
                        + ".");
            }
        });
        are.forEach((what, sum) -> {
            if (!were.containsKey(what)) {
                changes.add("“" + what + "” (" + Amounts.grouped(sum) + ") is new.");
            }
        });
        Money was = before.sums().total().amount();
        Money is = now.sums().total().amount();
        if (!is.equals(was)) {
            changes.add("The total is " + Amounts.grouped(is) + "; it was " + Amounts.grouped(was) + ".");
        }
        return changes;
    }

    /** Lines of one name count together. */
    private static Map<String, Money> sums(IssuedDocument d) {
        Map<String, Money> sums = new LinkedHashMap<>();
        for (IssuedLine line : d.lines()) {
            sums.merge(line.description(), line.net(), Money::plus);
        }
        return sums;
    }
}
