package quill.server;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.flywaydb.core.Flyway;

/**
 * The tables of new books, as the migrations make them. They run once; every other server in memory begins with what
 * they came to, in a fifth of their time.
 */
final class EmptyBooks {
    private static final String OWN = "the tests' own";
    private static final Path TABLES = tables();

    private EmptyBooks() {}

    /** @param url in memory, kept while no connection is open @param data the server's folder, which keeps the books' password */
    static void layOut(String url, Path data) throws IOException {
        Files.writeString(data.resolve("books.password"), OWN);
        run(url, OWN, "RUNSCRIPT FROM '" + TABLES + "'");
    }

    private static Path tables() {
        try {
            Path script = Files.createTempFile("quill-empty-books", ".sql");
            String url = "jdbc:h2:mem:empty-books;DB_CLOSE_DELAY=-1";
            Flyway.configure()
                    .dataSource(url, "sa", "")
                    .locations("classpath:db/books")
                    .load()
                    .migrate();
            run(url, "", "SCRIPT NOPASSWORDS NOSETTINGS TO '" + script + "'");
            run(url, "", "SHUTDOWN");
            return script;
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private static void run(String url, String password, String command) {
        try (Connection db = DriverManager.getConnection(url, "sa", password);
                Statement s = db.createStatement()) {
            s.execute(command);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }
}
