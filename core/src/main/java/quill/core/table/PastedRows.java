package quill.core.table;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;

/**
 * Rows of somebody's spreadsheet as lines of an invoice. Which column is which is told by heads where there are any,
 * else by what stands in them; a person sees it and may say otherwise before anything lands.
 */
public final class PastedRows {
    /** The columns that a line has. */
    public static final List<ColumnKind> KINDS = List.of(
            new ColumnKind("description", "What", List.of("description", "item", "name", "work", "designation"), true),
            new ColumnKind("quantity", "Quantity", List.of("qty", "number", "hours", "count", "pieces"), false),
            new ColumnKind("unit", "Unit", List.of("uom", "per"), false),
            new ColumnKind("unitPrice", "Price", List.of("unit price", "rate", "net price", "each"), false),
            new ColumnKind("discount", "Less", List.of("discount", "rebate"), false));

    private static final Pattern UNIT = Pattern.compile("\\p{L}{1,10}[²³23]?\\.?");

    private PastedRows() {}

    /**
     * What was recognised.
     *
     * @param columns for each column the name of its kind, or {@link Columns#NONE}
     * @param headed whether the first row names the columns
     */
    public record Recognised(List<String> columns, boolean headed) {}

    /** Recognises the columns. @param mark with which its numbers are written */
    public static Recognised recognise(List<List<String>> rows, DecimalMark mark) {
        List<String> byHeads = Columns.recognise(rows.get(0), KINDS);
        if (byHeads.contains("description")) {
            return new Recognised(byHeads, true);
        }
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        List<String> columns = new ArrayList<>(Collections.nCopies(width, Columns.NONE));
        List<Integer> numbers = new ArrayList<>();
        List<Integer> texts = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            List<String> cells = cells(rows, c);
            if (cells.isEmpty()) {
                continue;
            }
            if (cells.stream().allMatch(t -> t.endsWith("%"))) {
                columns.set(c, "discount");
            } else if (cells.stream().allMatch(t -> number(t, mark) != null)) {
                numbers.add(c);
            } else {
                texts.add(c);
            }
        }
        texts.stream()
                .max((a, b) -> Integer.compare(length(cells(rows, a)), length(cells(rows, b))))
                .ifPresent(c -> columns.set(c, "description"));
        texts.stream()
                .filter(c -> columns.get(c).isEmpty())
                .filter(c ->
                        cells(rows, c).stream().allMatch(t -> UNIT.matcher(t).matches()))
                .findFirst()
                .ifPresent(c -> columns.set(c, "unit"));
        if (numbers.size() == 1) {
            columns.set(numbers.get(0), "unitPrice");
        } else if (numbers.size() > 1) {
            // A third one is what the two come to, or something else that no line has.
            columns.set(numbers.get(0), "quantity");
            columns.set(numbers.get(1), "unitPrice");
        }
        return new Recognised(columns, false);
    }

    /** The rows as lines, blank ones left out; a line without a quantity has one. @param taxes that each begins with */
    public static List<TypedLine> lines(List<List<String>> rows, Recognised how, List<String> taxes) {
        return IntStream.range(how.headed() ? 1 : 0, rows.size())
                .mapToObj(rows::get)
                .filter(row -> row.stream().anyMatch(c -> c != null && !c.isBlank()))
                .map(row -> line(row, how.columns(), taxes))
                .toList();
    }

    private static TypedLine line(List<String> row, List<String> columns, List<String> taxes) {
        Map<String, String> cells = new HashMap<>();
        for (int c = 0; c < Math.min(row.size(), columns.size()); c++) {
            if (!columns.get(c).equals(Columns.NONE)) {
                cells.put(
                        columns.get(c),
                        Objects.requireNonNullElse(row.get(c), "").strip());
            }
        }
        String quantity = cells.getOrDefault("quantity", "");
        return new TypedLine(
                cells.getOrDefault("description", ""),
                quantity.isEmpty() ? "1" : quantity,
                cells.getOrDefault("unit", ""),
                cells.getOrDefault("unitPrice", ""),
                cells.getOrDefault("discount", ""),
                taxes);
    }

    private static List<String> cells(List<List<String>> rows, int column) {
        return rows.stream()
                .filter(r -> r.size() > column && r.get(column) != null)
                .map(r -> r.get(column).strip())
                .filter(t -> !t.isEmpty())
                .toList();
    }

    private static int length(List<String> cells) {
        return cells.stream().mapToInt(String::length).sum();
    }

    private static BigDecimal number(String text, DecimalMark mark) {
        return TypedNumber.read("", mark.plain(text), 6, true, new ArrayList<>());
    }
}
