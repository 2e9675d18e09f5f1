package quill.server;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.sql.DataSource;

/** What stood in a server's tables when it had just started, and puts that back: nothing else stays, numbers begin anew. */
final class BooksAtStart {
    private static final String TABLES = "SELECT table_name FROM information_schema.tables"
            + " WHERE table_schema = 'PUBLIC' AND table_type = 'BASE TABLE' ORDER BY 1";
    private static final String COLUMNS = "SELECT column_name FROM information_schema.columns"
            + " WHERE table_schema = 'PUBLIC' AND table_name = ? AND is_generated <> 'ALWAYS' ORDER BY ordinal_position";
    private static final String NUMBERED =
            "SELECT table_name, column_name, identity_base FROM information_schema.columns"
                    + " WHERE table_schema = 'PUBLIC' AND is_identity = 'YES'";
    private static final String SEQUENCES =
            "SELECT sequence_name, base_value FROM information_schema.sequences" + " WHERE sequence_schema = 'PUBLIC'";

    private final DataSource books;
    private final List<Table> tables = new ArrayList<>();
    private final List<String> numbering = new ArrayList<>();
    private final Map<String, String> numberings = new LinkedHashMap<>();

    private record Table(String name, List<String> columns, List<Object[]> rows) {}

    BooksAtStart(DataSource books) {
        this.books = books;
        try (Connection db = books.getConnection()) {
            for (String table : texts(db, TABLES)) {
                List<String> columns = texts(db, COLUMNS, table);
                tables.add(new Table(table, columns, rows(db, table, columns)));
            }
            for (Object[] row : query(db, NUMBERED, 3)) {
                numberings.put(
                        row[0].toString(),
                        "ALTER TABLE \"" + row[0] + "\" ALTER COLUMN \"" + row[1] + "\" RESTART WITH " + row[2]);
            }
            for (Object[] row : query(db, SEQUENCES, 2)) {
                numbering.add("ALTER SEQUENCE \"" + row[0] + "\" RESTART WITH " + row[1]);
            }
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    void putBack() {
        try (Connection db = books.getConnection();
                Statement s = db.createStatement()) {
            db.setAutoCommit(true);
            s.execute("SET REFERENTIAL_INTEGRITY FALSE");
            for (Table table : tables) {
                if (!table.rows().isEmpty() || hasRows(s, table.name())) {
                    s.execute("TRUNCATE TABLE \"" + table.name() + "\"");
                    fill(db, table);
                }
                String again = numberings.get(table.name());
                if (again != null) {
                    s.execute(again);
                }
            }
            for (String again : numbering) {
                s.execute(again);
            }
            s.execute("SET REFERENTIAL_INTEGRITY TRUE");
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private static boolean hasRows(Statement s, String table) throws SQLException {
        try (ResultSet found = s.executeQuery("SELECT 1 FROM \"" + table + "\" FETCH FIRST ROW ONLY")) {
            return found.next();
        }
    }

    private static void fill(Connection db, Table table) throws SQLException {
        if (table.rows().isEmpty()) {
            return;
        }
        String insert = "INSERT INTO \"" + table.name() + "\" (" + quoted(table.columns())
                + ") OVERRIDING SYSTEM VALUE VALUES ("
                + String.join(
                        ", ", java.util.Collections.nCopies(table.columns().size(), "?")) + ")";
        try (PreparedStatement s = db.prepareStatement(insert)) {
            for (Object[] row : table.rows()) {
                for (int i = 0; i < row.length; i++) {
                    s.setObject(i + 1, row[i]);
                }
                s.executeUpdate();
            }
        }
    }

    private static List<Object[]> rows(Connection db, String table, List<String> columns) throws SQLException {
        return query(db, "SELECT " + quoted(columns) + " FROM \"" + table + "\"", columns.size());
    }

    private static String quoted(List<String> columns) {
        return columns.stream().map(c -> "\"" + c + "\"").collect(Collectors.joining(", "));
    }

    private static List<String> texts(Connection db, String sql, String... parameters) throws SQLException {
        return query(db, sql, 1, parameters).stream()
                .flatMap(Stream::of)
                .map(Object::toString)
                .toList();
    }

    private static List<Object[]> query(Connection db, String sql, int columns, String... parameters)
            throws SQLException {
        List<Object[]> rows = new ArrayList<>();
        try (PreparedStatement s = db.prepareStatement(sql)) {
            for (int i = 0; i < parameters.length; i++) {
                s.setString(i + 1, parameters[i]);
            }
            try (ResultSet found = s.executeQuery()) {
                while (found.next()) {
                    Object[] row = new Object[columns];
                    for (int i = 0; i < columns; i++) {
                        Object value = found.getObject(i + 1);
                        row[i] =
                                value instanceof java.sql.Clob text ? text.getSubString(1, (int) text.length()) : value;
                    }
                    rows.add(row);
                }
            }
        }
        return rows;
    }
}
