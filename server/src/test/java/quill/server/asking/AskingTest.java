package quill.server.asking;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.dispatch.Slip;

/** Asking for money before it falls due: once for each key, and never for more than is open. */
public class AskingTest {
    private Server server;
    private AskingService asking;
    private DocumentId invoice;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(LocalDate.of(2027, 3, 1));
        server.account();
        asking = server.bean(AskingService.class);
        invoice = server.issue(server.client("Ida Corrow", true), "400.00", "100%@30", null);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private String ask(String key, String amount) {
        return asking.ask(invoice, new AskingService.ToAsk(key, amount, "the strings", false), Slip.PLAIN);
    }

    @Test
    public void theSameTwiceIsOneAndAKeyServesForOneThing() {
        assertThat(ask("asked-once-1", "25%")).startsWith("request:");
        assertThat(ask("asked-once-1", "100.00")).isNull();
        assertThatThrownBy(() -> ask("asked-once-1", "120.00"))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("Nothing was asked for");
        assertThat(asking.of(invoice).stream().filter(a -> a.withdrawnOn() == null))
                .hasSize(1)
                .allSatisfy(a -> assertThat(a.missing().getAmount()).isEqualByComparingTo("100.00"));
    }

    @Test
    public void whatIsAskedForNoMoreDoesNotGo() {
        String key = ask("asked-withdrawn", "1.00");
        asking.withdraw(asking.of(invoice).stream()
                .filter(a -> a.amount().isEqual(Money.of(CurrencyUnit.EUR, 1)))
                .findFirst()
                .orElseThrow()
                .id());
        assertThat(server.jdbc()
                        .sql("SELECT state FROM message WHERE what_key = :key")
                        .param("key", key)
                        .query(String.class)
                        .single())
                .isEqualTo("set aside");
    }

    @Test
    public void whatCannotBeAskedForIsNamed() {
        assertThatThrownBy(() -> ask("asked-too-much", "400.01"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 400.00");
        assertThatThrownBy(() -> ask("no key", "1.00"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("8 to 60 letters");
        assertThatThrownBy(() -> ask("asked-nothing", " ")).hasMessageContaining("write a sum, or a percentage");
    }
}
