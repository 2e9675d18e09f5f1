package quill.server.clearing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalTime;
import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.acts.ActKind;
import quill.core.id.DocumentId;
import quill.server.cardorders.CardOrders;
import quill.server.common.ConflictException;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payment;

/** What a processor books afterwards. */
public class ClearingTest extends ClearingSuite {
    @Test
    public void aBankDebitOnItsWayIsNeitherRemindedNorSettledAndThenItIs() {
        order("underway");
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(server.bean(DailyRun.class).catchUp().of(ActKind.REMINDER)).isZero();
        assertThat(open()).isEqualTo("100.00");
        assertThatThrownBy(this::pay).isInstanceOf(ConflictException.class).hasMessageContaining("on its way");
        become("paid by debit");
        entry("taken", "pay", "100.00", "1.00");
        read();
        assertThat(open()).isEqualTo("0.00");
        assertThat(clearing()).isEqualTo("99.00");
    }

    /** A page that was left before says nothing of what was begun last. */
    @Test
    public void whoComesBackIsToldOfWhatWasBegunLast() {
        DocumentId parts = server.issue(client, "200.00", "50%@3 50%@30", null);
        invoice = parts;
        List<StoredInstallment> both = server.bean(Debts.class).of(parts);
        for (StoredInstallment part : both) {
            server.bean(CardOrders.class)
                    .payAt(server.bean(InvoicesService.class).invoice(parts), Set.of(part.id()), part.open());
        }
        assertThat(server.bean(CardOrders.class).payerIsBack(parts)).isEqualTo(CardOrders.Outcome.NOT_PAID);
        String last = server.jdbc()
                .sql("SELECT order_key FROM processor_order ORDER BY id DESC LIMIT 1")
                .query(String.class)
                .single();
        states.put(last, "underway");
        assertThat(server.bean(CardOrders.class).payerIsBack(parts)).isEqualTo(CardOrders.Outcome.NOTHING_OPEN);
    }

    /** It looked settled; then it came back: open again, with the cost, and the client is told why. */
    @Test
    public void aReturnedDebitOpensExactlyWhatItSettledAndTellsTheClient() {
        order("paid by debit");
        entry("taken", "pay", "100.00", "1.00");
        read();
        assertThat(open()).isEqualTo("0.00");
        become("returned");
        entry("returned", "pay", "-100.00", "3.50");
        read();
        read();
        assertThat(open()).isEqualTo("100.00");
        assertThat(clearing()).isEqualTo("-4.50");
        assertThat(payment().back().stands()).isEqualTo(Payment.Stands.RETURNED);
        assertThat(letters())
                .filteredOn(t -> t.contains("did not come through"))
                .hasSize(1);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(server.bean(DailyRun.class).catchUp().of(ActKind.REMINDER)).isEqualTo(1);
    }

    @Test
    public void aRefusedDebitBooksItsCostAndNothingElse() {
        order("underway");
        become("refused");
        entry("refused", "debit", "0.00", "3.50");
        read();
        assertThat(open()).isEqualTo("100.00");
        assertThat(clearing()).isEqualTo("-3.50");
        assertThat(letters()).anyMatch(t -> t.contains("did not come through: not enough money"));
        assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client))).isEmpty();
    }

    /** 100.00 by card while 20.00 came otherwise: 20.00 is credit; 15.00 of it goes back, and 5.00 stays. */
    @Test
    public void aPartOfAnOverpaymentGoesBackOutOfCreditOnly() {
        String key = order("open");
        server.pay(client, invoice, "20.00", BEGIN);
        states.put(key, "paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        assertThat(open()).isEqualTo("0.00");
        refund("r1-1-1-1", "15.00", false);
        refund("r1-1-1-1", "15.00", false);
        assertThat(refundKeys).containsOnly("refund-r1-1-1-1");
        assertThat(open()).isEqualTo("0.00");
        assertThat(credit()).isEqualTo("5.00");
        assertThatThrownBy(() -> refund("r2-2-2-2", "5.01", false))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 5.00 is client credit");
        assertThatThrownBy(() -> refund("r3-3-3-3", "85.01", true))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 85.00");
        entry("refunded", "refund", "-15.00", "0.00", "refund-r1-1-1-1");
        read();
        assertThat(clearing()).isEqualTo("81.80");
        refund("r4-4-4-4", "85.00", true);
        assertThat(open()).isEqualTo("80.00");
        assertThat(credit()).isEqualTo("0.00");
    }

    @Test
    public void aRefundThatDoesNotArriveIsHereAgainAndWaitsForAPerson() {
        order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        refund("r1-1-1-1", "40.00", true);
        assertThat(open()).isEqualTo("40.00");
        entry("refunded", "refund", "-40.00", "0.00", "refund-r1-1-1-1");
        entry("refund-failed", "refund", "40.00", "0.00", "refund-r1-1-1-1");
        read();
        assertThat(open()).isEqualTo("0.00");
        assertThat(server.bean(ClearingWaits.class).notArrived()).hasSize(1);
        assertThat(clearing()).isEqualTo("96.80");
    }

    @Test
    public void aRefundThatTheProcessorWillNotMakeIsPutBackWithItsReason() {
        order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        refundStatus = 422;
        refund("r1-1-1-1", "40.00", true);
        assertThat(open()).isEqualTo("0.00");
        assertThat(server.bean(ClearingWaits.class).notArrived().get(0).why()).isEqualTo("the card is closed");
    }

    /** The bank gets what is held less what is carried; the payment says in which payout it is. */
    @Test
    public void payoutsReachTheBankAndNameWhatTheyAreMadeOf() {
        order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        entries.add("""
                {"number":2,"kind":"paid-out","subject":"payout-1","order":null,"currency":"EUR","amount":"-96.80",
                 "cost":"0.00","on":"2027-03-03","reason":"","answerBy":null,"key":null,"entries":[1]}
                """);
        read();
        assertThat(clearing()).isEqualTo("0.00");
        Payouts.Payout payout = server.bean(Payouts.class).find(payment().back().payoutId());
        assertThat(payout.net().amount()).isEqualTo("96.80");
        assertThat(payout.parts())
                .singleElement()
                .satisfies(p -> assertThat(p.who()).isEqualTo("Card Holder"));
        assertThat(server.bean(Payouts.class).past().get(0).net()).isEqualTo(payout.net());
    }

    @Test
    public void whatCannotBeBookedSaysWhyAndIsTriedAgain() {
        entry("taken", "pay", "100.00", "3.20", "nobody's");
        entries.add(entries.get(0).replace("\"number\":1", "\"number\":2").replace("taken", "borrowed"));
        read();
        assertThat(server.bean(ClearingWaits.class).unbooked())
                .extracting(ClearingWaits.Unbooked::why)
                .anyMatch(w -> w.contains("not known here"));
        assertThat(server.bean(ClearingWaits.class).unbooked()).hasSize(2);
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM movement")
                        .query(Integer.class)
                        .single())
                .isZero();
    }
}
