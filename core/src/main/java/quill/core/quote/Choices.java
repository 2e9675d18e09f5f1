package quill.core.quote;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;

/** The lines of a quote that its client can choose. Lines are named by their places in the draft, from 0. */
public final class Choices {
    private static final String TICKED = "ticked";
    private static final String UNTICKED = "unticked";

    private Choices() {}

    /** The lines that can be chosen. */
    public static List<Integer> optional(TypedDraft offered) {
        return places(offered, List.of(TICKED, UNTICKED));
    }

    /** The lines that are chosen to begin with. */
    public static List<Integer> ticked(TypedDraft offered) {
        return places(offered, List.of(TICKED));
    }

    private static List<Integer> places(TypedDraft offered, List<String> choices) {
        return IntStream.range(0, offered.lines().size())
                .filter(i -> offered.lines().get(i).choice() != null
                        && choices.contains(offered.lines().get(i).choice()))
                .boxed()
                .toList();
    }

    /**
     * The same offer with these lines chosen, and the others that can be not.
     *
     * @throws RefusedException naming {@code ticked}, for a line that cannot be chosen
     */
    public static TypedDraft choose(TypedDraft offered, Collection<Integer> ticked) {
        Set<Integer> can = new TreeSet<>(optional(offered));
        for (Integer place : ticked) {
            if (place == null || !can.contains(place)) {
                throw new RefusedException("ticked", place, "is no line that can be chosen; these can: " + can);
            }
        }
        return withLines(
                offered,
                (line, place) -> can.contains(place) ? line.choose(ticked.contains(place) ? TICKED : UNTICKED) : line);
    }

    /** What is chosen of an offer: the other lines are left blank, so that every line keeps its place. */
    public static TypedDraft chosen(TypedDraft offered) {
        return withLines(
                offered, (line, place) -> UNTICKED.equals(line.choice()) ? TypedLine.BLANK : line.choose(null));
    }

    private static TypedDraft withLines(TypedDraft offered, BiFunction<TypedLine, Integer, TypedLine> each) {
        return offered.changed()
                .lines(IntStream.range(0, offered.lines().size())
                        .mapToObj(i -> each.apply(offered.lines().get(i), i))
                        .toList())
                .build();
    }
}
