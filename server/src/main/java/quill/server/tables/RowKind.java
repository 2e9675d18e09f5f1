package quill.server.tables;

import java.util.List;
import java.util.Map;
import quill.core.Problem;
import quill.core.money.DecimalMark;
import quill.core.table.ColumnKind;

/** What the rows of a table become: items, clients. @param <T> one of them */
public interface RowKind<T> {
    /** What a row would do. */
    enum Landing {
        /** It becomes a new one. */
        NEW,
        /** One that is there already would say something else. */
        CHANGED,
        /** There is one already that says the same. */
        SAME
    }

    /** What was read of a row. @param value null where there are problems; each names a column's kind */
    record Read<T>(T value, List<Problem> problems) {}

    /** The columns that are looked for. */
    List<ColumnKind> columns();

    /** Reads a row by its columns' kinds. @param mark with which its numbers are written */
    Read<T> read(Map<String, String> cells, DecimalMark mark);

    /** By what two rows are about the same thing, with the column that says so; an empty one is like no other. */
    Map.Entry<String, String> key(T value);

    /** What a row would do. */
    Landing landing(T value);

    /** As it would stand, by columns' kinds. */
    Map<String, String> shown(T value);

    /** Takes them in, within a transaction of the caller's. */
    void store(List<T> values);
}
