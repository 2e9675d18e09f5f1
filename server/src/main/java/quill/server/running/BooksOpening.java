package quill.server.running;

import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Arrays;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfoService;
import org.h2.api.ErrorCode;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * Opens the books in three steps: migrates over a connection of its own, sees the database closed, and only then opens
 * the pool. What H2 compiles for a table (checks with a list of constants) belongs to the session that made it, and
 * would be gone with that connection while the database stayed open: every later insert would fail.
 */
@Configuration
class BooksOpening {
    private static final String IN_FILE = "jdbc:h2:async:";
    static final String TABLES = "classpath:db/books";
    private static final String PASSWORD_FILE = "books.password";

    @Bean
    @ConfigurationProperties("spring.datasource.hikari")
    HikariDataSource dataSource(DataSourceProperties properties, DataFolder folder) throws SQLException, IOException {
        String url = properties.determineUrl();
        String user = properties.determineUsername();
        String password = folder.secret(PASSWORD_FILE);
        String briefly = compactingBriefly(url);
        if (url.startsWith(IN_FILE)) {
            putBack(fileOf(url));
        }
        if (url.startsWith(IN_FILE) && Files.exists(fileOf(url))) {
            seeOpened(briefly, user, password);
        }
        migrate(briefly, user, password);
        seeClosed(url);
        folder.closeFiles();
        HikariDataSource pool = properties
                .initializeDataSourceBuilder()
                .type(HikariDataSource.class)
                .password(password)
                .build();
        pool.setExceptionOverrideClassName(EvictClosed.class.getName());
        return pool;
    }

    /** Only the stop takes its time to make the file small: large books would take as long with each of these openings. */
    private static String compactingBriefly(String url) {
        return url.replaceFirst("MAX_COMPACT_TIME=\\d+", "MAX_COMPACT_TIME=1000");
    }

    /**
     * Brings the tables up to date. H2 cannot take half of that back: what was cut off begins anew from a copy, which is
     * there only while this runs.
     */
    private static void migrate(String url, String user, String password) throws IOException {
        boolean onDisk = url.startsWith(IN_FILE);
        Flyway flyway = Flyway.configure()
                .dataSource(url, user, password)
                .locations(TABLES)
                .load();
        if (onDisk && Files.exists(fileOf(url))) {
            MigrationInfoService books = flyway.info();
            if (!areOurs(books)) {
                throw new BooksOfAnotherBuild(fileOf(url));
            }
            if (books.pending().length > 0) {
                seeClosed(url);
                Files.copy(fileOf(url), beforeOf(fileOf(url)));
            }
        } else if (onDisk) {
            Files.createFile(beforeOf(fileOf(url)));
        }
        flyway.migrate();
        if (onDisk) {
            Files.deleteIfExists(beforeOf(fileOf(url)));
        }
    }

    private static void putBack(Path books) throws IOException {
        Path before = beforeOf(books);
        if (Files.exists(before) && Files.size(before) > 0) {
            Files.move(before, books, StandardCopyOption.REPLACE_EXISTING);
        } else if (Files.exists(before)) {
            Files.deleteIfExists(books);
            Files.delete(before);
        }
    }

    private static Path beforeOf(Path books) {
        return books.resolveSibling("books.before");
    }

    /** @throws BooksOfAnotherBuild for books without a password: the first builds kept none */
    private static void seeOpened(String url, String user, String password) throws SQLException {
        if (opens(url, user, password)) {
            return;
        }
        if (opens(url, user, "")) {
            throw new BooksOfAnotherBuild(fileOf(url));
        }
        throw new IllegalStateException("The books have a password, and " + PASSWORD_FILE
                + " beside them is missing. Put it back from the backup that has these books.");
    }

    /** Each table was made by a file that this build has too, letter for letter. */
    private static boolean areOurs(MigrationInfoService books) {
        return Arrays.stream(books.applied())
                .allMatch(m -> m.getResolvedChecksum() != null
                        && m.getResolvedChecksum().equals(m.getAppliedChecksum()));
    }

    private static boolean opens(String url, String user, String password) throws SQLException {
        try {
            DriverManager.getConnection(url, user, password).close();
            return true;
        } catch (SQLException e) {
            if (e.getErrorCode() == ErrorCode.WRONG_USER_OR_PASSWORD) {
                return false;
            }
            throw e;
        }
    }

    /** @throws IllegalStateException where somebody still holds the file: the migration's connection, or another program */
    static void seeClosed(String url) {
        if (!url.startsWith(IN_FILE)) {
            return;
        }
        try (FileChannel file = FileChannel.open(fileOf(url), StandardOpenOption.READ, StandardOpenOption.WRITE)) {
            if (file.tryLock() == null) {
                throw new IllegalStateException("The books were not closed after they were brought up to date.");
            }
        } catch (OverlappingFileLockException e) {
            throw new IllegalStateException("The books were not closed after they were brought up to date.", e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static Path fileOf(String url) {
        String path = url.substring(IN_FILE.length());
        int settings = path.indexOf(';');
        return Path.of((settings < 0 ? path : path.substring(0, settings)) + ".mv.db");
    }
}
