package quill.server.clearing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.server.common.ConflictException;

/** What payers contest, and our answers. */
public class ContestsTest extends ClearingSuite {
    /** A refund that was refused came back as money of its own; what is contested then is all of the payment. */
    @Test
    public void aContestFindsWhatARefusedRefundPutBack() {
        String key = order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        refundStatus = 422;
        refund("r1-1-1-1", "40.00", true);
        assertThat(open()).isEqualTo("0.00");
        entry("contested", "contest", "-100.00", "15.00", key);
        read();
        assertThat(server.bean(ClearingWaits.class).unbooked()).isEmpty();
        assertThat(open()).isEqualTo("100.00");
        assertThat(clearing()).isEqualTo("-18.20");
    }

    /** Nobody is asked for money that a won dispute brings; lost, it is asked for like any. */
    @Test
    public void aDisputeThatIsWonSettlesAgainAndOneThatIsLostStaysOpen() {
        for (boolean won : List.of(true, false)) {
            String key = order("paid by card");
            entry("taken", "pay", "100.00", "3.20", key);
            entry("contested", "contest-" + won, "-100.00", "15.00", key);
            read();
            assertThat(open()).isEqualTo("100.00");
            assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client)).values())
                    .containsExactly(Money.parse("EUR 100.00"));
            Dispute d = server.bean(ClearingWaits.class).disputes().get(0);
            server.bean(Disputes.class).answer(d.id(), "We tuned it on the day that was agreed.", null);
            assertThat(server.bean(ClearingWaits.class).disputes()).isEmpty();
            entry(won ? "contest-won" : "contest-lost", "contest-" + won, won ? "100.00" : "0.00", "0.00", key);
            read();
            assertThat(open()).isEqualTo(won ? "0.00" : "100.00");
            assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client))).isEmpty();
            assertThat(clearing()).isEqualTo(won ? "81.80" : "63.60");
            if (won) {
                invoice = server.issue(client, "100.00", "100%@3", null);
            }
        }
    }

    @Test
    public void anAnswerTakesTheOthersPlaceOnlyWhereItWasSeen() {
        String key = order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        entry("contested", "contest", "-100.00", "15.00", key);
        read();
        Disputes disputes = server.bean(Disputes.class);
        long id = server.bean(ClearingWaits.class).disputes().get(0).id();
        assertThatThrownBy(() -> disputes.answer(id, "\u0000 \u0007", null)).isInstanceOf(RefusedException.class);
        disputes.answer(id, "Tuned as agreed.", null);
        assertThatThrownBy(() -> disputes.answer(id, "From another window.", null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("answered meanwhile");
        assertThat(disputes.answer(id, "Tuned as agreed, and signed for.", "Tuned as agreed.")
                        .evidence())
                .isEqualTo("Tuned as agreed, and signed for.");
    }
}
