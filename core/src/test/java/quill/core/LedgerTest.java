package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.ClientAccount;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Posting;
import quill.core.ledger.Standing;

public class LedgerTest {
    private static final LocalDate MARCH = LocalDate.of(2027, 3, 1);
    private static final OpenDebt OLD = debt(1, "2027-0001", 1, MARCH.minusDays(1), "50.00");
    private static final OpenDebt SAME_DAY_A = debt(2, "2027-0002", 1, MARCH, "30.00");
    private static final OpenDebt SAME_DAY_B = debt(3, "2027-0003", 1, MARCH, "20.00");

    @Test
    public void moneySettlesByDueDateThenNumber() {
        Appropriation result = Appropriation.of(eur("85.00"), List.of(SAME_DAY_B, SAME_DAY_A, OLD), Set.of());
        assertThat(result.parts())
                .containsExactly(
                        new Appropriation.Part(OLD, eur("50.00")),
                        new Appropriation.Part(SAME_DAY_A, eur("30.00")),
                        new Appropriation.Part(SAME_DAY_B, eur("5.00")));
        assertThat(result.credit().isZero()).isTrue();
    }

    @Test
    public void whatThePayerNamedComesFirstAndTheRestIsCredit() {
        Appropriation result = Appropriation.of(eur("110.00"), List.of(OLD, SAME_DAY_A, SAME_DAY_B), Set.of(3L));
        assertThat(result.parts().get(0)).isEqualTo(new Appropriation.Part(SAME_DAY_B, eur("20.00")));
        assertThat(result.settled()).isEqualTo(eur("100.00"));
        assertThat(result.credit()).isEqualTo(eur("10.00"));
    }

    /** Double entry (Pacioli, 1494): debits equal credits, or there is no entry. */
    @Test
    public void anEntryThatDoesNotBalanceCannotExist() {
        assertThatThrownBy(
                        () -> new Entry(Entry.Event.PAYMENT, List.of(new Posting(Account.BANK, "", null, eur("1.00")))))
                .hasMessageContaining("sum to zero");
        assertThatThrownBy(() -> new Posting(Account.BANK, "", null, eur("0.00")))
                .hasMessageContaining("zero");
    }

    @Test
    public void paymentAndItsUndoingCancelOut() {
        Appropriation appropriation = Appropriation.of(eur("60.00"), List.of(OLD), Set.of());
        Entry paid = Bookings.payment(Account.BANK, eur("60.00"), appropriation);
        assertThat(paid.postings())
                .containsExactly(
                        new Posting(Account.BANK, "", null, eur("60.00")),
                        new Posting(Account.RECEIVABLE, "", new DocumentId(1), eur("-50.00")),
                        new Posting(Account.CLIENT_CREDIT, "", null, eur("-10.00")));
        Entry undone =
                Bookings.takenBack(Entry.Event.PAYMENT_UNDONE, Account.BANK, eur("60.00"), appropriation.parts());
        assertThat(undone.postings())
                .containsExactlyInAnyOrderElementsOf(
                        paid.postings().stream().map(Posting::reversed).toList());
    }

    @Test
    public void creditIsUsedAndReleasedByOppositeEntries() {
        List<Appropriation.Part> parts = List.of(new Appropriation.Part(OLD, eur("12.00")));
        assertThat(Bookings.creditReleased(parts).postings())
                .containsExactlyInAnyOrderElementsOf(Bookings.creditUsed(parts).postings().stream()
                        .map(Posting::reversed)
                        .toList());
    }

    @Test
    public void theAccountRunsItsBalance() {
        List<ClientAccount.Row> rows = ClientAccount.of(
                CurrencyUnit.EUR,
                List.of(movement("100.00"), movement("0.00"), movement("-130.00"), movement("30.00")));
        assertThat(rows)
                .extracting(ClientAccount.Row::balance)
                .containsExactly(eur("100.00"), eur("-30.00"), eur("0.00"));
        assertThat(rows)
                .extracting(ClientAccount.Row::received)
                .containsExactly(eur("0.00"), eur("130.00"), eur("0.00"));
    }

    @Test
    public void nothingIsLateOnItsDueDate() {
        Money amount = eur("5.00");
        Money none = eur("0.00");
        assertThat(Standing.of(amount, none, none, amount, MARCH, MARCH)).isEqualTo(Standing.COMING);
        assertThat(Standing.of(amount, none, none, amount, MARCH, MARCH.plusDays(1)))
                .isEqualTo(Standing.LATE);
        assertThat(Standing.of(amount, amount, none, none, MARCH, MARCH.plusDays(1)))
                .isEqualTo(Standing.SETTLED);
        assertThat(Standing.of(amount, none, amount, none, MARCH, MARCH)).isEqualTo(Standing.CREDITED);
        Money some = amount.dividedBy(2, java.math.RoundingMode.DOWN);
        assertThat(Standing.of(amount, some, none, none, MARCH, MARCH)).isEqualTo(Standing.WRITTEN_OFF);
        assertThat(Standing.of(amount, some, amount.minus(some), none, MARCH, MARCH))
                .isEqualTo(Standing.SETTLED);
        assertThat(Standing.daysLate(LocalDate.of(2028, 2, 28), LocalDate.of(2028, 3, 1)))
                .isEqualTo(2);
    }

    private static ClientAccount.Movement movement(String amount) {
        return new ClientAccount.Movement(1, MARCH, "what", "", eur(amount));
    }

    private static OpenDebt debt(long id, String number, int position, LocalDate due, String open) {
        return new OpenDebt(id, new DocumentId(id), number, position, false, due, eur(open));
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
