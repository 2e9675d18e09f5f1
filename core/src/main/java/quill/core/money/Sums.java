package quill.core.money;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.Money;

/** Sums of several currencies as one text, {@code EUR 10.00;GBP 5.00}: the one way to write and to read it. */
public final class Sums {
    private Sums() {}

    /** As kept; empty for none. */
    public static String written(List<Money> sums) {
        return sums.stream().map(Money::toString).collect(Collectors.joining(";"));
    }

    /** As it was written; null reads as none. @throws IllegalArgumentException for any other text */
    public static List<Money> read(String written) {
        return written == null || written.isEmpty()
                ? List.of()
                : Arrays.stream(written.split(";")).map(Money::parse).toList();
    }

    /** For people: each with thousands, {@code and} between. */
    public static String grouped(List<Money> sums) {
        return sums.stream().map(Amounts::grouped).collect(Collectors.joining(" and "));
    }
}
