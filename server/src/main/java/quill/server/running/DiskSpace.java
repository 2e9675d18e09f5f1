package quill.server.running;

import java.io.IOException;
import java.nio.file.Files;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;
import quill.server.QuillSettings;

/**
 * Room on the disk that has the books. A database that cannot write closes itself, so writing is refused before that:
 * with less than 200 MB free, or what {@code quill.least-free} says.
 */
@Component
public class DiskSpace {
    private final DataFolder folder;
    private final long least;
    private volatile OptionalLong supposed = OptionalLong.empty();

    DiskSpace(DataFolder folder, QuillSettings settings) {
        this.folder = folder;
        this.least = settings.leastFree().toBytes();
    }

    /** Whether there is room to write. Where the disk does not say, there is. */
    public boolean isEnough() {
        try {
            return supposed.orElse(Files.getFileStore(folder.path()).getUsableSpace()) >= least;
        } catch (IOException e) {
            return true;
        }
    }

    /** For tests: as if so many bytes were free; empty for what really is. */
    void suppose(OptionalLong free) {
        supposed = free;
    }
}
