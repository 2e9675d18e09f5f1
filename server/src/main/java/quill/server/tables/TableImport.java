package quill.server.tables;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.DecimalMark;
import quill.core.table.Columns;
import quill.server.common.ConflictException;
import quill.server.common.Hashes;

/**
 * Takes a table in: first shown, with every row that cannot be read and why; mended in place or left out by the person;
 * then taken whole, or not at all. Nothing is kept between the two: the file comes again with what was mended.
 */
@Service
public class TableImport {
    private static final int BAD_SHOWN = 100;
    private static final int SAMPLE = 12;

    /**
     * How a table is to be read.
     *
     * @param columns for each column the name of its kind; empty for what its heads say
     * @param mark the decimal mark of its numbers; empty for what they look like
     * @param mended rows that were mended, by the numbers beside them, as cells
     * @param leftOut rows that are not taken
     * @param fingerprint of what was shown, which is then taken; empty to be shown it
     */
    public record How(
            List<String> columns,
            String mark,
            Map<Integer, List<String>> mended,
            List<Integer> leftOut,
            String fingerprint) {
        /** What is missing is left to the file. */
        public How {
            columns = columns == null ? List.of() : columns;
            mark = mark == null ? "" : mark;
            mended = mended == null ? Map.of() : mended;
            leftOut = leftOut == null ? List.of() : leftOut;
            fingerprint = fingerprint == null ? "" : fingerprint;
        }
    }

    /** A column that can be chosen. */
    public record ColumnChoice(String name, String words, boolean needed) {}

    /** A row that cannot be taken. @param problems by kinds of columns */
    public record BadRow(int row, List<String> cells, List<Problem> problems) {}

    /** A row as it would stand. @param landing NEW, CHANGED or SAME */
    public record LandingRow(int row, RowKind.Landing landing, List<String> values) {}

    /** How the file was read. @param mark the decimal mark of its numbers */
    public record Lettering(String charset, String separator, String mark) {}

    /** What becomes of the rows. @param bad how many cannot be taken, those that are not shown included */
    public record RowCounts(int rows, int fresh, int changed, int same, int leftOut, int bad) {}

    /**
     * What taking a table in would do, or did.
     *
     * @param bad the first of the rows that cannot be taken
     * @param sample the first of those that can, by {@code columns} that are not passed over
     * @param fingerprint to be sent along to take exactly this
     */
    public record TablePlan(
            Lettering lettering,
            List<String> heads,
            List<String> columns,
            List<ColumnChoice> choices,
            RowCounts counts,
            List<BadRow> bad,
            List<LandingRow> sample,
            String fingerprint,
            boolean taken) {}

    private record Good<T>(int row, RowKind.Landing landing, T value) {}

    /**
     * Shows what a table would do; takes it where the fingerprint says that this was seen.
     *
     * @param kinds what the rows become, as it stands within this transaction
     * @throws ConflictException where by now it would do something else than what was seen
     * @throws RefusedException where rows are to be taken that cannot be read
     */
    @Transactional
    public <T> TablePlan read(byte[] bytes, How how, Supplier<RowKind<T>> kinds, DecimalMark usual) {
        TableFile file = TableFile.read(bytes);
        RowKind<T> kind = kinds.get();
        List<String> heads = file.rows().get(0);
        List<String> columns = how.columns().isEmpty() ? Columns.recognise(heads, kind.columns()) : how.columns();
        columns = columns.size() > heads.size() ? columns.subList(0, heads.size()) : columns;
        boolean known = Columns.missing(columns, kind.columns()).isEmpty();
        if (!how.columns().isEmpty()) {
            Columns.check(columns, kind.columns());
        }
        DecimalMark mark = !how.mark().isEmpty()
                ? DecimalMark.of(how.mark())
                : DecimalMark.likely(
                        file.rows().stream().skip(1).flatMap(List::stream).toList(), usual);
        List<BadRow> bad = new ArrayList<>();
        List<Good<T>> good = known ? rows(file, columns, mark, how, kind, bad) : List.of();
        List<Good<T>> moving =
                good.stream().filter(g -> g.landing() != RowKind.Landing.SAME).toList();
        String fingerprint = known ? fingerprint(file, columns, mark, good, bad) : "";
        boolean take = !how.fingerprint().isEmpty();
        if (take && !how.fingerprint().equals(fingerprint)) {
            throw new ConflictException(
                    "This would do something else by now than what you were shown. Look at it again, then take it.");
        }
        if (take && !bad.isEmpty()) {
            throw new RefusedException(bad.get(0).problems());
        }
        if (take) {
            kind.store(moving.stream().map(Good::value).toList());
        }
        int fresh = (int)
                moving.stream().filter(g -> g.landing() == RowKind.Landing.NEW).count();
        return new TablePlan(
                new Lettering(file.charset(), String.valueOf(file.separator()), mark.sign()),
                heads,
                columns,
                kind.columns().stream()
                        .map(k -> new ColumnChoice(k.name(), k.words(), k.needed()))
                        .toList(),
                new RowCounts(
                        file.rows().size() - 1,
                        fresh,
                        moving.size() - fresh,
                        good.size() - moving.size(),
                        how.leftOut().size(),
                        bad.size()),
                bad.stream().limit(BAD_SHOWN).toList(),
                sample(good, columns, kind),
                fingerprint,
                take);
    }

    private static <T> List<Good<T>> rows(
            TableFile file, List<String> columns, DecimalMark mark, How how, RowKind<T> kind, List<BadRow> bad) {
        List<Good<T>> good = new ArrayList<>();
        Map<String, Integer> seen = new HashMap<>();
        Set<Integer> leftOut = new HashSet<>(how.leftOut());
        for (int i = 1; i < file.rows().size(); i++) {
            int row = file.places().get(i);
            if (leftOut.contains(row)) {
                continue;
            }
            List<String> cells = how.mended().getOrDefault(row, file.rows().get(i));
            RowKind.Read<T> read = kind.read(named(cells, columns), mark);
            List<Problem> problems = new ArrayList<>(read.problems());
            if (problems.isEmpty()) {
                Map.Entry<String, String> key = kind.key(read.value());
                Integer first = key.getValue().isEmpty()
                        ? null
                        : seen.putIfAbsent(key.getValue().toLowerCase(Locale.ROOT), row);
                if (first != null) {
                    problems.add(new Problem(key.getKey(), key.getValue(), "stands in row " + first + " already"));
                }
            }
            if (problems.isEmpty()) {
                good.add(new Good<>(row, kind.landing(read.value()), read.value()));
            } else {
                bad.add(new BadRow(row, cells, problems));
            }
        }
        return good;
    }

    private static Map<String, String> named(List<String> cells, List<String> columns) {
        Map<String, String> named = new LinkedHashMap<>();
        for (int c = 0; c < Math.min(columns.size(), cells.size()); c++) {
            if (columns.get(c) != null && !columns.get(c).equals(Columns.NONE)) {
                named.put(columns.get(c), cells.get(c) == null ? "" : cells.get(c));
            }
        }
        return named;
    }

    private static <T> List<LandingRow> sample(List<Good<T>> good, List<String> columns, RowKind<T> kind) {
        return good.stream()
                .limit(SAMPLE)
                .map(g -> {
                    Map<String, String> shown = kind.shown(g.value());
                    return new LandingRow(
                            g.row(),
                            g.landing(),
                            columns.stream()
                                    .filter(c -> !c.equals(Columns.NONE))
                                    .map(c -> shown.getOrDefault(c, ""))
                                    .toList());
                })
                .toList();
    }

    private static String fingerprint(
            TableFile file, List<String> columns, DecimalMark mark, List<? extends Good<?>> good, List<BadRow> bad) {
        StringBuilder what = new StringBuilder().append(columns).append(mark).append(bad);
        good.forEach(g -> what.append(g.row()).append(g.landing()).append(g.value()));
        return Hashes.of(what.append(file.places().size()).toString());
    }
}
