package quill.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * What takes long to make is made once for each state of what it is made of, by whichever process of the tests comes first,
 * and kept under {@code target}. What is half made, or made of something older, is never used.
 */
final class Kept {
    private static final Path TARGET = App.ROOT.resolve("acceptance/target/kept");

    /** What was found or made before in this process, by its name: the jars do not change under it. */
    private static final Map<String, Path> FOUND = new HashMap<>();

    private Kept() {}

    /** @param madeOf the files that decide what it becomes @param making fills an empty folder */
    static synchronized Path of(String name, List<Path> madeOf, Consumer<Path> making) {
        Path found = FOUND.get(name);
        if (found == null) {
            found = look(name, madeOf, making);
            FOUND.put(name, found);
        }
        return found;
    }

    private static Path look(String name, List<Path> madeOf, Consumer<Path> making) {
        try {
            Path whole = Files.createDirectories(TARGET).resolve(name + "-" + hash(madeOf));
            try (FileChannel channel = FileChannel.open(
                            TARGET.resolve(name + ".lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock lock = channel.lock()) {
                // Where it is made it stays: an archive of classes serves in the folder that it was made in, and in no
                // other.
                Path mark = TARGET.resolve(whole.getFileName() + ".whole");
                if (!Files.exists(mark) && lock.isValid()) {
                    try (Stream<Path> older = Files.list(TARGET)) {
                        older.filter(p -> p.getFileName().toString().startsWith(name + "-"))
                                .forEach(Kept::delete);
                    }
                    making.accept(Files.createDirectory(whole));
                    Files.createFile(mark);
                }
            }
            return whole;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String hash(List<Path> files) throws IOException {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (Path file : files) {
                digest.update(Files.readAllBytes(file));
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 8);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    static void copy(Path from, Path to) {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : (Iterable<Path>) files::iterator) {
                Files.copy(file, to.resolve(from.relativize(file).toString()));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void delete(Path folder) {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : (Iterable<Path>) files.sorted(Comparator.reverseOrder())::iterator) {
                Files.delete(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
