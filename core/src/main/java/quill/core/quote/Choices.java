package quill.core.quote;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;

/** The lines of a quote that its client can choose. Lines are named by their places in the draft, from 0. */
public final class Choices {
    private Choices() {}

    /** The lines that can be chosen. */
    public static List<Integer> optional(TypedDraft offered) {
        return places(offered, List.of("ticked", "unticked"));
    }

    /** The lines that are chosen to begin with. */
    public static List<Integer> ticked(TypedDraft offered) {
        return places(offered, List.of("ticked"));
    }

    private static List<Integer> places(TypedDraft offered, List<String> choices) {
        return IntStream.range(0, offered.lines().size())
                .filter(i -> offered.lines().get(i).choice() != null
                        && choices.contains(offered.lines().get(i).choice()))
                .boxed()
                .toList();
    }

    /**
     * What is offered with these lines chosen: the others that could be are left blank, so that every line keeps its place.
     *
     * @throws RefusedException naming {@code ticked}, for a line that cannot be chosen
     */
    public static TypedDraft chosen(TypedDraft offered, Collection<Integer> ticked) {
        Set<Integer> can = new TreeSet<>(optional(offered));
        for (Integer place : ticked) {
            if (place == null || !can.contains(place)) {
                throw new RefusedException("ticked", place, "is no line that can be chosen; these can: " + can);
            }
        }
        List<TypedLine> lines = new ArrayList<>();
        for (int i = 0; i < offered.lines().size(); i++) {
            boolean left = can.contains(i) && !ticked.contains(i);
            lines.add(left ? TypedLine.BLANK : offered.lines().get(i).settled());
        }
        return offered.changed().lines(lines).build();
    }
}
