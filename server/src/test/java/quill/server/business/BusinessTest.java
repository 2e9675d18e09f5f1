package quill.server.business;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.tax.TaxRounding;

public class BusinessTest {
    @Test
    public void everyWrongFieldIsToldAtOnce() {
        assertThatThrownBy(
                        () -> business(" ", "no address", true, "", "XQZ", "Nowhere/Land", "GB82 WEST 1", "{year}", -1)
                                .checked())
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(Problem::field)
                                .containsExactlyInAnyOrder(
                                        "name",
                                        "email",
                                        "taxNumber",
                                        "currency",
                                        "zone",
                                        "account.iban",
                                        "habits.invoicePattern",
                                        "habits.daysToPay"));
    }

    @Test
    public void anIbanWithOneDigitWrongIsRefusedAndTheRightOneTaken() {
        assertThatThrownBy(() -> business(
                                "L", "p@l.example", false, "", "EUR", "UTC", "XX51 LARK 0000 0004 21", "{seq}", 0)
                        .checked())
                .hasMessageContaining("check digits");
        assertThat(business("L", "p@l.example", false, "", "EUR", "UTC", "XX51 LARK 0000 0004 20", "{seq}", 0)
                        .checked()
                        .account()
                        .iban())
                .isEqualTo("XX51 LARK 0000 0004 20");
    }

    @Test
    public void habitsThatAreLeftOutAreRefusedAndAnAccountIsNone() {
        Business b = new Business("L", "", "", "", "p@l.example", "", false, "EUR", "UTC", null, null, 1);
        assertThat(b.account()).isEqualTo(Business.TransferAccount.NONE);
        assertThatThrownBy(b::checked).hasMessageContaining("habits.invoicePattern");
    }

    @Test
    public void aSoundOneIsTrimmedAndKept() {
        Business checked = business(
                        "  Larkmoor Pianos ",
                        "post@larkmoor.example",
                        false,
                        "",
                        "EUR",
                        "Europe/Dublin",
                        "",
                        "{seq}",
                        30)
                .checked();
        assertThat(checked.name()).isEqualTo("Larkmoor Pianos");
        assertThat(checked.currencyUnit().getCode()).isEqualTo("EUR");
    }

    @Test
    public void onlyARegisteredBusinessNeedsATaxNumber() {
        assertThatThrownBy(() -> business("L", "p@l.example", true, "", "EUR", "UTC", "", "{seq}", 0)
                        .checked())
                .hasMessageContaining("taxNumber");
    }

    private static Business business(
            String name,
            String email,
            boolean registered,
            String taxNumber,
            String currency,
            String zone,
            String iban,
            String pattern,
            int days) {
        return new Business(
                name,
                "",
                "",
                "",
                email,
                taxNumber,
                registered,
                currency,
                zone,
                new Business.TransferAccount(iban, ""),
                new Business.Habits(pattern, "C-{seq}", days, TaxRounding.PER_TAX, "", false),
                1);
    }
}
