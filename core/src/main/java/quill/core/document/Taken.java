package quill.core.document;

import java.math.BigDecimal;
import java.util.Collections;
import java.util.List;
import org.joda.money.Money;

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

    /** What documents have billed of a job so far, as if it had been taken by amounts. */
    public static Taken billed(Creditable job, List<Billed> before) {
        return new Taken(
                Collections.nCopies(job.lines().size(), BigDecimal.ZERO),
                Collections.nCopies(job.charges().size(), BigDecimal.ZERO),
                job.groups().stream()
                        .map(g -> {
                            long sum = Billed.sum(before, job.taxInside(), g.taxes(), job.currency())
                                    .getAmountMinorLong();
                            return new Group(
                                    sum,
                                    sum,
                                    Billed.taxes(before, job.taxInside(), g.taxes(), job.currency()).stream()
                                            .map(Money::getAmountMinorLong)
                                            .toList());
                        })
                        .toList());
    }

    /** Whether no credit note was written yet. */
    public boolean isNothing() {
        return groups.stream().allMatch(g -> g.sum() == 0 && g.taxes().stream().allMatch(t -> t == 0))
                && lines.stream().allMatch(q -> q.signum() == 0)
                && charges.stream().allMatch(q -> q.signum() == 0);
    }
}
