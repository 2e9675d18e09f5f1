package quill.server.common;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import org.joda.money.Money;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.ledger.Account;
import quill.server.Server;
import quill.server.documents.DocumentState;

/** Values of ours in statements and in JSON. */
public class TypedValuesTest {
    private Server server;

    @BeforeClass
    public void start() {
        server = new Server();
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private record Holder(ClientId client, ClientId nobody) {}

    @Test
    public void aStatementTakesThemAsTheyAre() {
        Instant now = Instant.parse("2027-10-31T00:30:00Z");
        List<Object> row = server.jdbc()
                .sql("""
                        SELECT CAST(:id AS BIGINT), CAST(:state AS VARCHAR), CAST(:account AS VARCHAR),
                               CAST(:sum AS BIGINT), CAST(:at AS TIMESTAMP WITH TIME ZONE), 7 IN (:several)
                        """)
                .param("id", new ClientId(7))
                .param("state", DocumentState.OPEN)
                .param("account", Account.CLIENT_CREDIT)
                .param("sum", Money.parse("EUR 12.50"))
                .param("at", now)
                .param("several", List.of(new ClientId(6), new ClientId(7)))
                .query((rs, n) -> List.<Object>of(
                        rs.getLong(1),
                        rs.getString(2),
                        rs.getString(3),
                        rs.getLong(4),
                        rs.getObject(5, Instant.class),
                        rs.getBoolean(6)))
                .single();
        assertThat(row).containsExactly(7L, "open", "CLIENT_CREDIT", 1250L, now, true);
    }

    @Test
    public void anIdTravelsAsANumber() {
        Json json = server.bean(Json.class);
        assertThat(json.write(new Holder(new ClientId(7), null))).isEqualTo("{\"client\":7,\"nobody\":null}");
        assertThat(json.read("{\"client\":7}", Holder.class)).isEqualTo(new Holder(new ClientId(7), null));
        assertThatThrownBy(() -> json.read("{\"client\":\"seven\"}", Holder.class))
                .isInstanceOf(RuntimeException.class);
    }
}
