package quill.core;

import java.util.List;
import java.util.stream.Collectors;

/** A rule of the job refuses what was asked. Carries every problem that was found, not just the first. */
public final class RefusedException extends RuntimeException {
    private final transient List<Problem> problems;

    /** @param problems at least one */
    public RefusedException(List<Problem> problems) {
        super(problems.stream()
                .map(p -> p.field() + " (" + p.value() + "): " + p.message())
                .collect(Collectors.joining("; ")));
        this.problems = List.copyOf(problems);
    }

    /** One problem: the field's path, what was given, and what would be allowed. */
    public RefusedException(String field, Object value, String message) {
        this(List.of(new Problem(field, value == null ? "" : value.toString(), message)));
    }

    /** What was wrong, in the order in which it was found. */
    public List<Problem> problems() {
        return problems;
    }
}
