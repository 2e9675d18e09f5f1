package quill.server.invoices;

import com.fasterxml.jackson.annotation.JsonIgnore;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.ledger.DebtKind;
import quill.core.ledger.Standing;
import quill.server.common.Amount;
import quill.server.debts.StoredInstallment;

/** What the drawn schedule shows: the same figures for the screen, the client's page and the PDF. */
public final class Measure {
    private Measure() {}

    /**
     * One installment as it is drawn, or a late fee: a thin tick after the installments.
     *
     * @param dueOn null while it waits for a milestone, or has no date yet: its note says for what
     * @param note said beside it: the tax in a late fee, the milestone that started its days; mostly empty
     * @param weight thousandths of the whole that it is wide; of a late fee, its share of the installments' sum
     * @param filled thousandths of its own width that are settled
     */
    public record Part(
            long id,
            int position,
            DebtKind kind,
            Amount amount,
            Amount open,
            @Schema(nullable = true) LocalDate dueOn,
            @Schema(nullable = true) LocalDate settledOn,
            Standing standing,
            String note,
            long daysLate,
            int weight,
            int filled) {
        /** Whether it is asked for whole, before the work begins. */
        public boolean deposit() {
            return kind == DebtKind.DEPOSIT;
        }

        /** Whether it is a late fee. */
        public boolean fee() {
            return kind == DebtKind.LATE_FEE;
        }

        /** Whether some of it is settled, and some open. */
        @JsonIgnore
        public boolean isPartly() {
            return open.money().isPositive() && !open.equals(amount);
        }
    }

    /** The parts of an invoice's schedule as they stand today. */
    public static List<Part> of(List<StoredInstallment> installments, LocalDate today) {
        Money total = installments.stream()
                .filter(i -> !i.fee())
                .map(Measure::asked)
                .reduce(Money::plus)
                .orElse(null);
        List<Part> parts = new ArrayList<>();
        for (StoredInstallment i : installments) {
            Standing standing = Standing.of(i.amount(), i.settled(), i.credited(), i.open(), i.dueOn(), today);
            parts.add(new Part(
                    i.id(),
                    i.position(),
                    i.kind(),
                    Amount.of(asked(i)),
                    Amount.of(i.open()),
                    i.dueOn(),
                    i.settledOn(),
                    standing,
                    i.note(),
                    standing == Standing.LATE ? Standing.daysLate(i.dueOn(), today) : 0,
                    Amount.thousandths(asked(i), total),
                    Amount.thousandths(i.settled(), asked(i))));
        }
        return parts;
    }

    /** What an installment asks for: less where a credit note took a part of it; one taken back whole is shown whole. */
    private static Money asked(StoredInstallment i) {
        return i.credited().isLessThan(i.amount()) ? i.amount().minus(i.credited()) : i.amount();
    }
}
