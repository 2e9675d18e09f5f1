package quill.core.document;

import java.math.BigDecimal;
import java.util.Collections;
import java.util.List;

/**
 * How much of an invoice its credit notes have taken back so far. Amounts are whole minor units, so that it can be
 * kept as it is.
 *
 * @param lines for each line the quantity taken back
 * @param charges for each charge 1 where it was taken back, else 0
 */
public record Taken(List<BigDecimal> lines, List<BigDecimal> charges, List<Group> groups) {
    /**
     * Of one set of taxes.
     *
     * @param byAmount what was taken as an amount rather than by lines, as priced
     * @param sum all that was taken, as priced
     * @param taxes for each tax of the set
     */
    public record Group(long byAmount, long sum, List<Long> taxes) {
        /** Copies the taxes. */
        public Group {
            taxes = List.copyOf(taxes);
        }
    }

    /** Copies the lists. */
    public Taken {
        lines = List.copyOf(lines);
        charges = List.copyOf(charges);
        groups = List.copyOf(groups);
    }

    /** Nothing yet. */
    public static Taken nothing(Creditable invoice) {
        return new Taken(
                Collections.nCopies(invoice.lines().size(), BigDecimal.ZERO),
                Collections.nCopies(invoice.charges().size(), BigDecimal.ZERO),
                invoice.groups().stream()
                        .map(g -> new Group(0, 0, Collections.nCopies(g.taxes().size(), 0L)))
                        .toList());
    }

    /** Whether no credit note was written yet. */
    public boolean isNothing() {
        return groups.stream().allMatch(g -> g.sum() == 0 && g.taxes().stream().allMatch(t -> t == 0))
                && lines.stream().allMatch(q -> q.signum() == 0)
                && charges.stream().allMatch(q -> q.signum() == 0);
    }
}
