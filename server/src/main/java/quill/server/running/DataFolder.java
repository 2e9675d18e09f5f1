package quill.server.running;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import quill.server.QuillSettings;
import quill.server.common.RandomText;

/**
 * The folder with the books, its owner's alone (0700, files 0600), and the secrets that are made at the first start.
 * A secret keeps other programs of this machine out; it encrypts nothing.
 */
@Component
public class DataFolder {
    private final Path folder;

    DataFolder(QuillSettings settings) {
        this.folder = settings.data().toAbsolutePath();
        try {
            Files.createDirectories(folder);
            permit(folder, "rwx------");
            closeFiles();
        } catch (IOException e) {
            throw new UncheckedIOException("The data folder " + folder + " cannot be used", e);
        }
    }

    /** Where it is. */
    public Path path() {
        return folder;
    }

    /** A secret of 32 random bytes in Base64 letters, made when it is first asked for and kept in a file of its own. */
    public String secret(String name) {
        Path file = folder.resolve(name);
        try {
            if (!Files.exists(file)) {
                Path fresh = Files.createTempFile(folder, name, ".new");
                permit(fresh, "rw-------");
                Files.writeString(fresh, RandomText.of(32));
                Files.move(fresh, file);
            }
            return Files.readString(file).strip();
        } catch (IOException e) {
            throw new UncheckedIOException("The secret " + file + " cannot be read", e);
        }
    }

    /** Takes group's and others' rights from every file in the folder. */
    void closeFiles() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : (Iterable<Path>) files::iterator) {
                if (Files.isRegularFile(file)) {
                    permit(file, "rw-------");
                }
            }
        }
    }

    private static void permit(Path path, String rights) throws IOException {
        if (Files.getFileAttributeView(path, PosixFileAttributeView.class) != null) {
            Files.setPosixFilePermissions(path, PosixFilePermissions.fromString(rights));
        }
    }
}
