package quill.server.common;

import java.util.List;
import java.util.Objects;
import quill.core.RefusedException;

/** Several things that are asked for at once, by their ids in a request's address. */
public final class ChosenIds {
    private ChosenIds() {}

    /** The ids as they were sent. @throws RefusedException naming {@code ids}: more than so many, or a blank one */
    public static <T> List<T> of(List<T> ids, int most) {
        if (ids.size() > most) {
            throw new RefusedException("ids", ids.size() + " of them", "choose up to " + most + " at once");
        }
        if (ids.stream().anyMatch(Objects::isNull)) {
            throw new RefusedException("ids", "", "must be numbers with commas between them, such as 12,15");
        }
        return ids;
    }
}
