package quill.core.quote;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.money.Amounts;
import quill.core.schedule.Installment;
import quill.core.schedule.TypedTerm;

/** How an invoice for an accepted quote is to be paid, after what was paid ahead. */
public final class StageTerms {
    private static final String REST = "rest";

    private StageTerms() {}

    /**
     * Of the invoice of all: the quote's installments, without the deposit as far as it came. Sums that were agreed stay
     * as they are; the last takes the rest.
     *
     * @param typed as the quote has them
     * @param agreed the same reckoned, one for each
     * @param came of the deposit
     */
    public static List<TypedTerm> ofAll(List<TypedTerm> typed, List<Installment> agreed, Money came) {
        if (!came.isPositive() || typed.isEmpty() || typed.size() != agreed.size()) {
            return typed;
        }
        List<TypedTerm> terms = new ArrayList<>();
        Money left = came;
        for (int i = 0; i < typed.size(); i++) {
            Money amount = agreed.get(i).amount();
            Money off = Amounts.min(left, amount);
            left = left.minus(off);
            if (amount.isGreaterThan(off)) {
                boolean last = i == typed.size() - 1;
                terms.add(new TypedTerm(
                        typed.get(i).deposit(),
                        last ? REST : Amounts.plain(amount.minus(off)),
                        typed.get(i).days()));
            }
        }
        return terms.isEmpty() ? List.of(TypedTerm.WHOLE) : terms;
    }

    /** Of a part: all of it as the quote's last installment is due, where that counts from the invoice. */
    public static List<TypedTerm> ofPart(List<TypedTerm> typed, int usualDays) {
        String days = typed.isEmpty() ? "" : typed.get(typed.size() - 1).days();
        boolean counts = days != null && days.strip().matches("\\d{1,3}");
        return List.of(new TypedTerm(false, REST, counts ? days.strip() : String.valueOf(usualDays)));
    }
}
