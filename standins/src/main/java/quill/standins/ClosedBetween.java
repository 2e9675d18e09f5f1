package quill.standins;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * Sees the database closed between its migration, which has connections of its own, and the opening of the pool: what
 * H2 compiles for a table belongs to the session that made it, and goes with it while the database stays open.
 */
@Configuration
class ClosedBetween {
    @Bean
    FlywayMigrationStrategy migrateAndClose(StandinsSettings settings) {
        return flyway -> {
            flyway.migrate();
            see(settings.data().resolve("counting-house.mv.db"));
        };
    }

    /** @throws IllegalStateException where somebody still has the file open */
    static void see(Path file) {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
            if (channel.tryLock() == null) {
                throw new IllegalStateException("The database was not closed after its migration.");
            }
        } catch (OverlappingFileLockException e) {
            throw new IllegalStateException("The database was not closed after its migration.", e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
