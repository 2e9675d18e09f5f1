package quill.server.ways;

import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import quill.core.pay.WayToPay;

/**
 * What a client or a document is limited to.
 *
 * @param limited whether it is; else the ways are as usual
 * @param ways that are left to it; none where it is not limited
 */
public record WayChoice(boolean limited, List<WayToPay> ways) {
    /** As it is kept. @param set null where it is not limited */
    public static WayChoice of(Set<WayToPay> set) {
        return new WayChoice(set != null, set == null ? List.of() : List.copyOf(set));
    }

    /** To be kept; null where it is not limited. */
    public Set<WayToPay> set() {
        if (!limited) {
            return null;
        }
        Set<WayToPay> set = EnumSet.noneOf(WayToPay.class);
        if (ways != null) {
            ways.stream().filter(Objects::nonNull).forEach(set::add);
        }
        return set;
    }
}
