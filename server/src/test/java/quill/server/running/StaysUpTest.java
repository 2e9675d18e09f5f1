package quill.server.running;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.zaxxer.hikari.HikariDataSource;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.OptionalLong;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.flywaydb.core.Flyway;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.server.Caller;
import quill.server.Server;
import quill.server.dailyrun.DailyRun;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Outbox;

/** The books on a disk: opened, closed, opened again, full, cut off half way. */
public class StaysUpTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private static final TypedLateFeePolicy FEE =
            new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false);

    /**
     * H2 2.4.240 compiles a check with a list of constants with the session that made the table. Once that connection
     * was gone, about half an hour after the first start, every insert into such a table failed.
     */
    @Test
    public void everyKindOfWriteWorksOnceTheFirstConnectionsAreGone() throws Exception {
        Path folder = folder();
        try (Server server = Server.onDisk(folder)) {
            server.setUp(DAY);
            evictAll(server);
            server.bean(DailyRun.class).catchUp();
            ClientId client = server.client("Early Bird", true);
            DocumentId invoice = server.issue(client, "100.00", "40%@0 rest@30", FEE);
            server.pay(client, invoice, "10.00", DAY);
            server.bean(DispatchService.class).sendAgain(invoice, "key-of-a-sending");
            server.bean(Outbox.class).sendDue();
            server.moveTo(DAY.plusDays(9), java.time.LocalTime.of(10, 0));
            server.bean(DailyRun.class).catchUp();
            server.bean(BooksHealth.class).probe();
            assertThat(server.bean(BooksHealth.class).state()).isEqualTo(BooksHealth.State.UP);
            assertThat(server.jdbc()
                            .sql("SELECT COUNT(*) FROM run_act")
                            .query(Long.class)
                            .single())
                    .isPositive();
            assertThat(constantChecks(server.jdbc())).isEmpty();
        }
    }

    private static List<String> constantChecks(JdbcClient jdbc) {
        return jdbc.sql("""
                        SELECT check_clause FROM information_schema.check_constraints
                         WHERE constraint_schema = 'PUBLIC' AND (check_clause LIKE '%IN(%' OR check_clause LIKE '% OR %')
                        """).query(String.class).list();
    }

    private static void evictAll(Server server) {
        HikariDataSource pool = server.bean(HikariDataSource.class);
        pool.getHikariPoolMXBean().softEvictConnections();
    }

    @Test
    public void afterTheMigrationTheFileIsFreeAndWhileThePoolIsOpenItIsNot() throws Exception {
        Path folder = folder();
        String url = Server.urlIn(folder);
        Server server = Server.onDisk(folder);
        assertThatThrownBy(() -> BooksOpening.seeClosed(url)).hasMessageContaining("not closed");
        server.close();
        BooksOpening.seeClosed(url);
    }

    @Test
    public void booksThatClosedThemselvesAreOpenedAgain() throws Exception {
        try (Server server = Server.onDisk(folder())) {
            server.setUp(DAY);
            try (Connection connection = server.bean(HikariDataSource.class).getConnection()) {
                connection.createStatement().execute("SHUTDOWN IMMEDIATELY");
            } catch (SQLException e) {
                // The connection goes with the database.
            }
            server.bean(BooksHealth.class).probe();
            assertThat(server.bean(BooksHealth.class).state()).isEqualTo(BooksHealth.State.UP);
            assertThat(server.client("Afterwards", true).value()).isPositive();
        }
    }

    /** A request whose thread is interrupted at a stop, or by a library: a plain file would be closed under all others. */
    @Test
    public void aThreadThatIsInterruptedClosesNobodysBooks() throws Exception {
        try (Server server = Server.onDisk(folder())) {
            server.setUp(DAY);
            ClientId client = server.client("Left Alone", true);
            JdbcClient jdbc = server.jdbc();
            Queue<Throwable> failures = new ConcurrentLinkedQueue<>();
            for (int i = 0; i < 20; i++) {
                String note = "x".repeat(3_000) + i;
                Thread writing = new Thread(() -> {
                    while (!Thread.currentThread().isInterrupted()) {
                        jdbc.sql("UPDATE client SET notes = :note WHERE id = :id")
                                .param("note", note)
                                .param("id", client)
                                .update();
                    }
                });
                writing.setUncaughtExceptionHandler((thread, e) -> failures.add(e));
                writing.start();
                Thread.sleep(5 + i);
                writing.interrupt();
                writing.join();
            }
            assertThat(failures).isEmpty();
            try (Connection connection = server.bean(HikariDataSource.class).getConnection();
                    ResultSet row = connection
                            .createStatement()
                            .executeQuery("SELECT LENGTH(notes) FROM client WHERE id = " + client)) {
                assertThat(row.next()).isTrue();
                assertThat(row.getInt(1)).isGreaterThan(3_000);
            }
        }
    }

    @Test
    public void theFolderIsItsOwnersAloneAndItsPasswordIsNeeded() throws Exception {
        Path folder = folder();
        String url = Server.urlIn(folder);
        try (Server server = Server.onDisk(folder)) {
            server.setUp(DAY);
        }
        assertThatThrownBy(() -> DriverManager.getConnection(url, "sa", "")).hasMessageContaining("Wrong user");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder)))
                .isEqualTo("rwx------");
        try (var files = Files.list(folder)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                        .as(file.toString())
                        .isEqualTo("rw-------");
            }
        }
        Files.delete(folder.resolve("books.password"));
        assertThatThrownBy(() -> Server.onDisk(folder)).hasStackTraceContaining("Put it back from the backup");
    }

    @DataProvider
    public Object[][] otherBooks() {
        return new Object[][] {
            {"UPDATE \"flyway_schema_history\" SET \"checksum\" = 1 WHERE \"version\" = '1'"},
            {"UPDATE \"flyway_schema_history\" SET \"version\" = '99' WHERE \"version\" = '10'"},
            {"ALTER USER sa SET PASSWORD ''"},
        };
    }

    /** Its first migration is another one, it has one that this build does not know, or it is of before passwords. */
    @Test(dataProvider = "otherBooks")
    public void booksOfAnotherBuildAreRefusedWithWhatToDoAndLeftAlone(String change) throws Exception {
        Path folder = folder();
        String url = Server.urlIn(folder);
        Server.onDisk(folder).close();
        String password = Files.readString(folder.resolve("books.password")).strip();
        try (Connection other = DriverManager.getConnection(url, "sa", password)) {
            other.createStatement().execute(change);
        }
        String before = script(url, change.startsWith("ALTER") ? "" : password);
        assertThatThrownBy(() -> Server.onDisk(folder)).hasRootCauseInstanceOf(BooksOfAnotherBuild.class);
        assertThat(script(url, change.startsWith("ALTER") ? "" : password)).isEqualTo(before);
        assertThat(new BooksOfAnotherBuild.Analyzer()
                        .analyze(null, new BooksOfAnotherBuild(BooksOpening.fileOf(url)))
                        .getAction())
                .contains("./quill demo --fresh");
    }

    private static String script(String url, String password) throws SQLException {
        StringBuilder all = new StringBuilder();
        try (Connection books = DriverManager.getConnection(url, "sa", password);
                ResultSet lines = books.createStatement().executeQuery("SCRIPT")) {
            while (lines.next()) {
                all.append(lines.getString(1)).append('\n');
            }
        }
        return all.toString();
    }

    @Test
    public void aMigrationThatWasCutOffBeginsAnew() throws Exception {
        Path folder = folder();
        String url = Server.urlIn(folder);
        Files.writeString(folder.resolve("books.password"), "secret");
        Flyway.configure()
                .locations(BooksOpening.TABLES)
                .dataSource(url, "sa", "secret")
                .target("2")
                .load()
                .migrate();
        Files.copy(BooksOpening.fileOf(url), folder.resolve("books.before"));
        try (Connection half = DriverManager.getConnection(url, "sa", "secret")) {
            half.createStatement().execute("CREATE TABLE find_entry (half INT)");
        }
        try (Server server = Server.onDisk(folder)) {
            server.setUp(DAY);
        }
        assertThat(folder.resolve("books.before")).doesNotExist();
    }

    @Test
    public void aNearlyFullDiskRefusesWritesAndReadsOn() throws Exception {
        try (Server server = Server.onDisk(folder())) {
            server.setUp(DAY);
            ClientId client = server.client("Reader", true);
            DocumentId invoice = server.issue(client, "100.00", "rest@30", null);
            String token = server.jdbc()
                    .sql("SELECT token FROM link WHERE document_id = :id")
                    .param("id", invoice)
                    .query(String.class)
                    .single();
            DiskSpace disk = server.bean(DiskSpace.class);
            disk.suppose(OptionalLong.of(100_000_000));
            HttpResponse<String> refused = new Caller(server).post("/api/public/" + token + "/orders", "{}");
            assertThat(refused.statusCode()).isEqualTo(507);
            assertThat(refused.body()).contains("The disk is nearly full. Nothing was saved");
            assertThat(new Caller(server).get("/api/health").statusCode()).isEqualTo(503);
            assertThat(new Caller(server).get("/api/health").body()).contains("disk full");
            assertThat(new Caller(server).get("/api/public/" + token).statusCode())
                    .isEqualTo(200);
            assertThat(server.jdbc()
                            .sql("SELECT COUNT(*) FROM page_opening")
                            .query(Long.class)
                            .single())
                    .as("reading writes nothing while the disk is full")
                    .isZero();
            disk.suppose(OptionalLong.empty());
            assertThat(new Caller(server).get("/api/health").statusCode()).isEqualTo(200);
            assertThat(new Caller(server).get("/api/public/" + token).statusCode())
                    .isEqualTo(200);
            assertThat(server.jdbc()
                            .sql("SELECT COUNT(*) FROM page_opening")
                            .query(Long.class)
                            .single())
                    .isEqualTo(1);
        }
    }

    /** A letter that left while its mark could not be written: no restart is needed for somebody to hear of it. */
    @Test
    public void aLetterWhoseMarkFailedBecomesUncertainInTheNextRound() throws Exception {
        try (Server server = new Server()) {
            server.setUp(DAY);
            ClientId client = server.client("Far Away", true);
            DocumentId invoice = server.issue(client, "100.00", "rest@30", null);
            server.bean(DispatchService.class).sendAgain(invoice, "key-of-a-sending");
            server.jdbc().sql("UPDATE message SET state = 'sending'").update();
            server.bean(Outbox.class).sendDue();
            assertThat(server.jdbc()
                            .sql("SELECT state FROM message")
                            .query(String.class)
                            .single())
                    .isEqualTo("uncertain");
        }
    }

    private static Path folder() throws Exception {
        return Files.createTempDirectory("quill-stays-up");
    }
}
