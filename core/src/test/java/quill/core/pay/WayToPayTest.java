package quill.core.pay;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;

/** How ways are named, and which of them a card pays. */
public class WayToPayTest {
    @Test
    public void aWalletIsNamedOnlyWhereNoCardIsTyped() {
        assertThat(WayToPay.onPage(Set.of(WayToPay.HATBOX, WayToPay.CARD, WayToPay.BANK_DEBIT)))
                .isEqualTo("by card or bank debit");
        assertThat(WayToPay.onPage(List.of(WayToPay.HATBOX, WayToPay.BANK_DEBIT, WayToPay.SATCHEL)))
                .isEqualTo("by bank debit or wallet");
        assertThat(WayToPay.onPage(List.of(WayToPay.CASH))).isEmpty();
        assertThat(WayToPay.wallets(List.of(WayToPay.CARD, WayToPay.HATBOX, WayToPay.SATCHEL)))
                .containsExactly("Satchel", "Hatbox");
    }

    @Test
    public void whatCameIsKnownByItsName() {
        assertThat(WayToPay.online(PaymentWay.BANK_DEBIT, "Bank account ending 0101"))
                .isEqualTo(WayToPay.BANK_DEBIT);
        assertThat(WayToPay.online(PaymentWay.WALLET, "Satchel ending 0019")).isEqualTo(WayToPay.SATCHEL);
        assertThat(WayToPay.online(PaymentWay.WALLET, "Hatbox ending 0019")).isEqualTo(WayToPay.HATBOX);
        assertThat(WayToPay.online(PaymentWay.CARD, "Test card ending 0019")).isEqualTo(WayToPay.CARD);
    }

    @Test
    public void aWalletIsACardAndABankDebitIsNone() {
        assertThat(WayToPay.online()).allMatch(w -> w.isOnline() && w.isCard() != (w == WayToPay.BANK_DEBIT));
        assertThat(WayToPay.TRANSFER.isOnline() || WayToPay.TRANSFER.isCard()).isFalse();
    }
}
