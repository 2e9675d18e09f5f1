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

    /** Ids with commas between. @throws RefusedException naming {@code installments} for what is none */
    static List<Long> ids(String text) {
        if (!text.matches("\\d{1,15}(,\\d{1,15}){0,99}")) {
            throw new RefusedException("installments", text, "name what is to be paid, such as 12,13");
        }
        return Arrays.stream(text.split(",")).map(Long::valueOf).toList();
    }
}
