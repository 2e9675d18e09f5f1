package quill.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Clob;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;

/**
 * The rows that payments left in the books, inserted once more by plain JDBC into the books as they were before: the same
 * tables and rows, with their keys and indexes, written at once at each commit as ours are. Each payment's rows are one
 * transaction; what was only changed is left out.
 */
final class BareInserts {
    private final Path before;
    private final int payments;
    /** By table, those that others refer to first. */
    private final Map<String, Table> tables = new LinkedHashMap<>();

    private final Map<String, Map<Integer, List<List<Object>>>> byPayment = new HashMap<>();

    /** A column that holds the key of a row of another table. */
    private record Reference(int column, String table) {}

    /** What was added to one. */
    private record Table(String insert, String delete, List<List<Object>> gone, List<Row> fresh) {
        /** By payment; -1 for rows that are fewer than payments, which are put in beforehand. */
        Map<Integer, List<List<Object>>> byPayment() {
            return fresh.stream()
                    .collect(Collectors.groupingBy(
                            r -> r.first().payment, Collectors.mapping(r -> r.values, Collectors.toList())));
        }
    }

    /** A row that was added. Those that refer to each other are one payment's. */
    private static final class Row {
        private final List<Object> values;
        private final int payment;
        private Row with;

        private Row(List<Object> values, int payment) {
            this.values = values;
            this.payment = payment;
        }

        private Row first() {
            Row row = this;
            while (row.with != null) {
                row = row.with;
            }
            return row;
        }

        private void join(Row other) {
            if (first() != other.first() && payment >= 0 && other.payment >= 0) {
                first().with = other.first();
            }
        }
    }

    /** @param before the books' folder, copied before the payments @param after the same after them, closed */
    BareInserts(Path before, Path after, int payments) throws SQLException, IOException {
        this.before = before;
        this.payments = payments;
        try (Connection then = BenchServer.books(before);
                Connection now = BenchServer.books(after)) {
            Map<String, Map<Object, Row>> known = new HashMap<>();
            Map<String, Change> changes = new TreeMap<>();
            try (ResultSet rs = now.getMetaData().getTables(null, "PUBLIC", "%", new String[] {"BASE TABLE"})) {
                while (rs.next()) {
                    Change change = change(rs.getString("TABLE_NAME"), then, now);
                    if (change.isAny()) {
                        changes.put(rs.getString("TABLE_NAME"), change);
                    }
                }
            }
            for (String table : inOrder(changes)) {
                add(table, changes.get(table), known);
            }
            tables.forEach((name, table) -> byPayment.put(name, table.byPayment()));
        }
    }

    /** Inserts them in a process that is started as the application is. @return how many payments a second */
    static double inItsOwnProcess(Path before, Path after, int payments, String url, int writers, int warm)
            throws IOException, InterruptedException {
        List<String> command = BenchServer.java();
        command.addAll(List.of(
                "-cp",
                System.getProperty("java.class.path"),
                BareInserts.class.getName(),
                before.toString(),
                after.toString(),
                String.valueOf(payments),
                url,
                String.valueOf(writers),
                String.valueOf(warm)));
        Process process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IllegalStateException("the bare inserts failed: " + said);
        }
        return Double.parseDouble(said.strip());
    }

    /** That process. @param args before, after, payments, URL, writers, warm; prints how many payments a second */
    public static void main(String[] args) throws Exception {
        int payments = Integer.parseInt(args[2]);
        BareInserts rows = new BareInserts(Path.of(args[0]), Path.of(args[1]), payments);
        System.out.println(rows.aSecond(args[3], Integer.parseInt(args[4]), Integer.parseInt(args[5])));
    }

    private static Set<String> inOrder(Map<String, Change> changes) {
        Set<String> order = new LinkedHashSet<>();
        changes.keySet().forEach(t -> follow(t, changes, order, new HashSet<>()));
        return order;
    }

    private static void follow(String table, Map<String, Change> changes, Set<String> order, Set<String> under) {
        if (changes.containsKey(table) && !order.contains(table) && under.add(table)) {
            changes.get(table).references().forEach(r -> follow(r.table(), changes, order, under));
            order.add(table);
        }
    }

    /** What became of one table. @param key the places of its key's columns @param gone keys of rows that are not there any more */
    private record Change(
            List<String> columns,
            List<Integer> key,
            List<Reference> references,
            List<List<Object>> gone,
            List<List<Object>> fresh) {
        boolean isAny() {
            return !key.isEmpty() && !(gone.isEmpty() && fresh.isEmpty());
        }
    }

    private static Change change(String table, Connection then, Connection now) throws SQLException {
        List<String> columns = columns(now, table);
        List<Integer> key = new ArrayList<>();
        try (ResultSet rs = now.getMetaData().getPrimaryKeys(null, "PUBLIC", table)) {
            while (rs.next()) {
                key.add(columns.indexOf(rs.getString("COLUMN_NAME")));
            }
        }
        Map<List<Object>, List<Object>> was = rows(then, table, columns, key);
        Map<List<Object>, List<Object>> is = rows(now, table, columns, key);
        List<List<Object>> gone =
                was.keySet().stream().filter(k -> !is.containsKey(k)).toList();
        List<List<Object>> fresh = is.entrySet().stream()
                .filter(e -> !was.containsKey(e.getKey()))
                .map(Map.Entry::getValue)
                .toList();
        List<Reference> references = new ArrayList<>();
        try (ResultSet rs = now.getMetaData().getImportedKeys(null, "PUBLIC", table)) {
            while (rs.next()) {
                references.add(
                        new Reference(columns.indexOf(rs.getString("FKCOLUMN_NAME")), rs.getString("PKTABLE_NAME")));
            }
        }
        return new Change(columns, key, references, gone, fresh);
    }

    private void add(String table, Change change, Map<String, Map<Object, Row>> known) {
        List<String> columns = change.columns();
        List<Integer> key = change.key();
        List<List<Object>> fresh = change.fresh();
        Map<Object, Row> own = new HashMap<>();
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < fresh.size(); i++) {
            List<Object> values = fresh.get(i);
            Row row = new Row(values, fresh.size() < payments ? -1 : (int) ((long) i * payments / fresh.size()));
            rows.add(row);
            if (key.size() == 1) {
                own.put(values.get(key.get(0)), row);
            }
            change.references().stream()
                    .filter(r -> values.get(r.column()) != null)
                    .map(r -> known.getOrDefault(r.table(), Map.of()).get(values.get(r.column())))
                    .filter(Objects::nonNull)
                    .forEach(row::join);
        }
        known.put(table, own);
        String which = key.stream().map(k -> "\"" + columns.get(k) + "\" = ?").collect(Collectors.joining(" AND "));
        tables.put(
                table,
                new Table(
                        "INSERT INTO \"" + table + "\" (" + quoted(columns) + ") OVERRIDING SYSTEM VALUE VALUES ("
                                + String.join(",", Collections.nCopies(columns.size(), "?")) + ")",
                        "DELETE FROM \"" + table + "\" WHERE " + which,
                        change.gone(),
                        rows));
    }

    private static String quoted(List<String> columns) {
        return columns.stream().map(c -> "\"" + c + "\"").collect(Collectors.joining(", "));
    }

    /** Those that are written, and not reckoned from others. */
    private static List<String> columns(Connection db, String table) throws SQLException {
        List<String> columns = new ArrayList<>();
        try (Statement s = db.createStatement();
                ResultSet rs = s.executeQuery(
                        "SELECT column_name FROM information_schema.columns WHERE table_schema = 'PUBLIC'"
                                + " AND table_name = '" + table
                                + "' AND is_generated = 'NEVER' ORDER BY ordinal_position")) {
            while (rs.next()) {
                columns.add(rs.getString(1));
            }
        }
        return columns;
    }

    private static Map<List<Object>, List<Object>> rows(
            Connection db, String table, List<String> columns, List<Integer> key) throws SQLException {
        Map<List<Object>, List<Object>> rows = new LinkedHashMap<>();
        try (Statement s = db.createStatement();
                ResultSet rs = s.executeQuery("SELECT " + quoted(columns) + " FROM \"" + table + "\" ORDER BY 1")) {
            while (rs.next()) {
                List<Object> row = new ArrayList<>();
                for (int i = 1; i <= columns.size(); i++) {
                    Object value = rs.getObject(i);
                    row.add(value instanceof Clob ? rs.getString(i) : value);
                }
                rows.put(key.stream().map(row::get).toList(), row);
            }
        }
        return rows;
    }

    /** Inserts them. @param warm so many payments first, not measured @return how many payments a second */
    double aSecond(String url, int writers, int warm) throws Exception {
        String password = Files.readString(before.resolve("books.password")).strip();
        List<Connection> connections = new ArrayList<>();
        List<Map<String, PreparedStatement>> prepared = new ArrayList<>();
        ExecutorService by = Executors.newFixedThreadPool(writers);
        try {
            for (int w = 0; w < writers; w++) {
                Connection each =
                        DriverManager.getConnection(url.replace("${quill.data}", before.toString()), "sa", password);
                each.setAutoCommit(false);
                connections.add(each);
                Map<String, PreparedStatement> own = new LinkedHashMap<>();
                for (Map.Entry<String, Table> t : tables.entrySet()) {
                    own.put(t.getKey(), each.prepareStatement(t.getValue().insert()));
                }
                prepared.add(own);
            }
            makeRoom(connections.get(0));
            write(-1, connections.get(0), prepared.get(0));
            MoneyBench.all(by, 0, writers, w -> payments(w, 0, warm, connections, prepared));
            long began = System.nanoTime();
            MoneyBench.all(by, 0, writers, w -> payments(w, warm, payments, connections, prepared));
            return (payments - warm) / ((System.nanoTime() - began) / 1e9);
        } finally {
            by.shutdown();
            for (Connection each : connections) {
                each.close();
            }
        }
    }

    /** What the payments replaced is not there. */
    private void makeRoom(Connection db) throws SQLException {
        List<Table> last = new ArrayList<>(tables.values());
        Collections.reverse(last);
        for (Table table : last) {
            try (PreparedStatement delete = db.prepareStatement(table.delete())) {
                for (List<Object> key : table.gone()) {
                    set(delete, key);
                    delete.executeUpdate();
                }
            }
        }
    }

    /** Each connection writes every so manyth payment. */
    private void payments(
            int writer, int first, int end, List<Connection> connections, List<Map<String, PreparedStatement>> prepared)
            throws SQLException {
        for (int payment = first + writer; payment < end; payment += connections.size()) {
            write(payment, connections.get(writer), prepared.get(writer));
        }
    }

    private void write(int payment, Connection db, Map<String, PreparedStatement> prepared) throws SQLException {
        for (Map.Entry<String, Table> table : tables.entrySet()) {
            PreparedStatement insert = prepared.get(table.getKey());
            for (List<Object> row : byPayment.get(table.getKey()).getOrDefault(payment, List.of())) {
                set(insert, row);
                insert.executeUpdate();
            }
        }
        db.commit();
    }

    private static void set(PreparedStatement statement, List<Object> values) throws SQLException {
        for (int i = 0; i < values.size(); i++) {
            statement.setObject(i + 1, values.get(i));
        }
    }
}
