package quill.server.publicpages;

import java.util.Arrays;
import java.util.List;
import quill.core.RefusedException;

/** Places of lines in an address, with commas between. */
final class Ticked {
    private Ticked() {}

    /** @throws RefusedException naming {@code ticked} for what is no place */
    static List<Integer> of(String text) {
        if (text.isBlank()) {
            return List.of();
        }
        if (!text.matches("\\d{1,4}(,\\d{1,4}){0,499}")) {
            throw new RefusedException("ticked", text, "must be places of lines, such as 2,5");
        }
        return Arrays.stream(text.split(",")).map(Integer::valueOf).toList();
    }
}
