package quill.server.common;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.server.Server;
import quill.server.clients.ClientsService;

/** What is read once in a transaction is never older than what it may see. */
public class ReadOnceTest {
    private Server server;
    private TransactionTemplate transaction;
    private TransactionTemplate another;
    private ClientId client;
    private final List<String> read = new ArrayList<>();

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(LocalDate.of(2027, 3, 1));
        client = server.client("Read Once", true);
        transaction = server.bean(TransactionTemplate.class);
        another = new TransactionTemplate(server.bean(PlatformTransactionManager.class));
        another.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private String value(String now) {
        return ReadOnce.of("business", "key", () -> {
            read.add(now);
            return now;
        });
    }

    private void write(String sql) {
        server.jdbc().sql(sql).update();
    }

    @Test
    public void oncePerTransactionAndAnewInTheNext() {
        read.clear();
        transaction.executeWithoutResult(s -> {
            assertThat(value("a")).isEqualTo("a");
            assertThat(value("b")).isEqualTo("a");
        });
        transaction.executeWithoutResult(s -> assertThat(value("c")).isEqualTo("c"));
        assertThat(value("d")).isEqualTo("d");
        assertThat(value("e")).isEqualTo("e");
        assertThat(read).containsExactly("a", "c", "d", "e");
    }

    @Test
    public void whoWritesToTheTableReadsAnew() {
        transaction.executeWithoutResult(s -> {
            value("a");
            write("UPDATE client SET name = name WHERE id = 0");
            assertThat(value("b")).isEqualTo("a");
            write("UPDATE business SET footer = footer WHERE id = 1");
            assertThat(value("c")).isEqualTo("c");
        });
    }

    @Test
    public void whoWaitedForALockReadsAnew() {
        transaction.executeWithoutResult(s -> {
            value("a");
            server.bean(ClientsService.class).lock(client);
            assertThat(value("b")).isEqualTo("b");
        });
    }

    @Test
    public void whatItHoldsLockedStaysKnownUntilItWritesToIt() {
        read.clear();
        transaction.executeWithoutResult(s -> {
            assertThat(locked("a")).isEqualTo("a");
            assertThat(locked("b")).isEqualTo("a");
            server.bean(ClientsService.class).lock(client);
            assertThat(locked("c")).isEqualTo("a");
            assertThat(value("d")).as("read, and not locked again").isEqualTo("a");
            write("UPDATE business SET footer = footer WHERE id = 1");
            assertThat(value("e")).isEqualTo("e");
            assertThat(locked("f")).isEqualTo("f");
        });
        transaction.executeWithoutResult(s -> assertThat(locked("g")).isEqualTo("g"));
        assertThat(locked("h")).as("without a transaction").isEqualTo("h");
        assertThat(read).containsExactly("a", "e", "f", "g", "h");
    }

    private String locked(String now) {
        return ReadOnce.locked("business", "key", () -> {
            read.add(now);
            return now;
        });
    }

    @Test
    public void aLongTransactionDoesNotKnowEverything() {
        transaction.executeWithoutResult(s -> {
            for (int i = 0; i < 1_001; i++) {
                int row = i;
                ReadOnce.of("business", row, () -> row);
            }
            assertThat(ReadOnce.<Integer>of("business", 0, () -> -1)).isEqualTo(-1);
            assertThat(ReadOnce.<Integer>of("business", 1_000, () -> -1)).isEqualTo(1_000);
        });
    }

    @Test
    public void whatIsNotedOnceIsNewAgainInTheNextTransaction() {
        transaction.executeWithoutResult(s -> {
            assertThat(ReadOnce.isNew("a")).isTrue();
            server.bean(ClientsService.class).lock(client);
            write("UPDATE business SET footer = footer WHERE id = 1");
            assertThat(ReadOnce.isNew("a")).isFalse();
            assertThat(ReadOnce.isNew("b")).isTrue();
            another.executeWithoutResult(t ->
                    assertThat(ReadOnce.isNew("a")).as("it may be taken back").isTrue());
        });
        transaction.executeWithoutResult(s -> assertThat(ReadOnce.isNew("a")).isTrue());
        assertThat(ReadOnce.isNew("a")).isTrue();
        assertThat(ReadOnce.isNew("a")).as("without a transaction").isTrue();
    }

    @Test
    public void aTransactionWithinAnotherKnowsNothingOfIt() {
        transaction.executeWithoutResult(s -> {
            value("a");
            another.executeWithoutResult(t -> assertThat(value("b")).isEqualTo("b"));
            assertThat(value("c")).isEqualTo("a");
        });
    }

    @Test
    public void aClientThatIsChangedIsReadAsChanged() {
        ClientsService clients = server.bean(ClientsService.class);
        transaction.executeWithoutResult(s -> {
            assertThat(clients.client(client).email()).isNotEqualTo("new@b.example");
            clients.keepAddress(client, "new@b.example", null);
            assertThat(clients.client(client).email()).isEqualTo("new@b.example");
        });
    }
}
