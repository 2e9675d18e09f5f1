package quill.core;

import java.util.List;

/**
 * How a figure was reached: the rule in words, and each step with its numbers.
 *
 * @param rule one sentence: {@code quantity x unit price, less the discount}
 * @param steps each a short sum: {@code 14.5 × 68.00 = 986.00}
 */
public record Why(String rule, List<String> steps) {
    /** Copies the steps. */
    public Why {
        steps = List.copyOf(steps);
    }

    /** A figure with one step or none. */
    public static Why of(String rule, String... steps) {
        return new Why(rule, List.of(steps));
    }
}
