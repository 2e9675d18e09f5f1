package quill.server.invoices;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.id.DocumentId;
import quill.core.ledger.DebtKind;
import quill.core.ledger.Standing;
import quill.server.common.Amount;
import quill.server.debts.StoredInstallment;

public class MeasureTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    @Test
    public void partsSayHowTheyStandAndHowMuchOfThemIsSettled() {
        List<Measure.Part> parts = Measure.of(
                List.of(
                        installment(1, "400.00", "400.00", "0.00", TODAY.minusDays(30)),
                        installment(2, "300.00", "75.00", "0.00", TODAY.minusDays(14)),
                        installment(3, "300.00", "0.00", "0.00", TODAY)),
                TODAY);
        assertThat(parts)
                .extracting(Measure.Part::standing)
                .containsExactly(Standing.SETTLED, Standing.LATE, Standing.COMING);
        assertThat(parts).extracting(Measure.Part::weight).containsExactly(400, 300, 300);
        assertThat(parts).extracting(Measure.Part::filled).containsExactly(1000, 250, 0);
        assertThat(parts).extracting(Measure.Part::daysLate).containsExactly(0L, 14L, 0L);
        assertThat(parts.get(1).open().amount()).isEqualTo("225.00");
    }

    @Test
    public void whatWasTakenBackIsNeitherLateNorPaid() {
        Measure.Part part = Measure.of(List.of(installment(1, "10.00", "0.00", "10.00", TODAY.minusDays(9))), TODAY)
                .get(0);
        assertThat(part.standing()).isEqualTo(Standing.CREDITED);
        assertThat(part.filled()).isZero();
    }

    @Test
    public void theSmallestPartIsStillDrawn() {
        assertThat(Amount.thousandths(Money.parse("EUR 0.01"), Money.parse("EUR 90000.00")))
                .isEqualTo(1);
        assertThat(Amount.thousandths(Money.parse("EUR 0.00"), Money.parse("EUR 90000.00")))
                .isZero();
    }

    private static StoredInstallment installment(
            int place, String amount, String settled, String credited, LocalDate due) {
        Money whole = Money.parse("EUR " + amount);
        Money paid = Money.parse("EUR " + settled);
        Money back = Money.parse("EUR " + credited);
        return new StoredInstallment(
                place,
                new DocumentId(1),
                place,
                place == 1 ? DebtKind.DEPOSIT : DebtKind.INSTALLMENT,
                whole,
                paid,
                back,
                whole.minus(paid).minus(back),
                due,
                due,
                null,
                "");
    }
}
