package quill.acceptance;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** Looks for card numbers where none may be: in files, and in the memory of a process. */
final class CardNumbers {
    /** As they are typed, whole and in groups of four. */
    private static final List<String> SIGNS = List.of("9901000000000019", "9901 0000 0000 0019", "9906000000000063");

    /** One that no class of the application names; the demo's own acts name some. */
    private static final List<String> TYPED_ONLY = List.of("9906000000000063");

    private CardNumbers() {}

    /** Files under a folder in which one stands. */
    static List<Path> in(Path folder) {
        try (Stream<Path> files = Files.walk(folder)) {
            List<Path> found = new ArrayList<>();
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                if (holdsOne(file)) {
                    found.add(file);
                }
            }
            return found;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether one stands in the memory of a process: all that lives there is written to a file and read through. */
    static boolean inMemoryOf(App app) {
        try {
            Path dump = Files.createTempDirectory("quill-memory").resolve("all.hprof");
            new ProcessBuilder(
                            System.getProperty("java.home") + "/bin/jcmd",
                            String.valueOf(app.pid()),
                            "GC.heap_dump",
                            dump.toString())
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start()
                    .waitFor();
            if (Files.size(dump) < 1_000_000) {
                throw new IllegalStateException("the memory was not written");
            }
            boolean found = holdsOne(dump, TYPED_ONLY);
            Files.delete(dump);
            return found;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** Reads in parts that overlap, so that none is missed between two of them. */
    static boolean holdsOne(Path file) throws IOException {
        return holdsOne(file, SIGNS);
    }

    private static boolean holdsOne(Path file, List<String> signs) throws IOException {
        int part = 1 << 22;
        int overlap = 64;
        byte[] bytes = new byte[part + overlap];
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
            int kept = 0;
            int read = in.readNBytes(bytes, 0, part);
            while (read > 0) {
                String text = new String(bytes, 0, kept + read, StandardCharsets.ISO_8859_1);
                if (signs.stream().anyMatch(text::contains)) {
                    return true;
                }
                int end = kept + read;
                kept = Math.min(overlap, end);
                System.arraycopy(bytes, end - kept, bytes, 0, kept);
                read = in.readNBytes(bytes, kept, part);
            }
        }
        return false;
    }
}
