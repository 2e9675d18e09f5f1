package quill.server.running;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;

/**
 * Takes every check with a list of constants away (states are read through enums), makes short texts VARCHAR, and moves
 * long ones into tables of their own, so that lists do not read them. In Java, since checks without a name have to be
 * looked up.
 */
public class V5__Long_texts_and_plain_states extends BaseJavaMigration {
    private static final List<String> SHORT_TEXTS = List.of(
            "debt.why",
            "late_fee.why",
            "late_fee_setting.policy",
            "client_late_fee.policy",
            "fixed_late_fee.policy",
            "fixed_late_fee.tax",
            "reminder_plan.plan",
            "document_setting.terms",
            "document_setting.labels",
            "document_setting.coins");

    @Override
    public void migrate(Context context) throws SQLException {
        Connection connection = context.getConnection();
        try (Statement sql = connection.createStatement()) {
            for (String drop : constantChecks(sql)) {
                sql.execute(drop);
            }
            for (String column : SHORT_TEXTS) {
                String[] parts = column.split("\\.");
                sql.execute(
                        "ALTER TABLE " + parts[0] + " ALTER COLUMN " + parts[1] + " SET DATA TYPE VARCHAR(1000000)");
            }
            moveTexts(sql, "invoice", "typed", "fixed");
            moveTexts(sql, "message", "html", "text", "reminder");
            moveTexts(sql, "credit_note", "fixed", "taken");
            sql.execute("ALTER TABLE invoice_text ALTER COLUMN typed SET NOT NULL");
            sql.execute("ALTER TABLE message_text ALTER COLUMN html SET NOT NULL");
            sql.execute("ALTER TABLE message_text ALTER COLUMN text SET NOT NULL");
        }
    }

    private static List<String> constantChecks(Statement sql) throws SQLException {
        List<String> drops = new ArrayList<>();
        try (ResultSet rs = sql.executeQuery("""
                SELECT t.table_name, c.constraint_name
                  FROM information_schema.check_constraints c
                  JOIN information_schema.table_constraints t
                    ON t.constraint_schema = c.constraint_schema AND t.constraint_name = c.constraint_name
                 WHERE t.table_schema = 'PUBLIC' AND (c.check_clause LIKE '%IN(%' OR c.check_clause LIKE '% OR %')
                 ORDER BY t.table_name, c.constraint_name
                """)) {
            while (rs.next()) {
                drops.add("ALTER TABLE \"" + rs.getString(1) + "\" DROP CONSTRAINT \"" + rs.getString(2) + "\"");
            }
        }
        return drops;
    }

    private static void moveTexts(Statement sql, String table, String... columns) throws SQLException {
        String list = String.join(", ", columns);
        sql.execute("CREATE TABLE " + table + "_text (" + table + "_id BIGINT PRIMARY KEY REFERENCES " + table
                + " (id) ON DELETE CASCADE, " + String.join(" CLOB, ", columns) + " CLOB)");
        sql.execute("INSERT INTO " + table + "_text (" + table + "_id, " + list + ") SELECT id, " + list + " FROM "
                + table);
        for (String column : columns) {
            sql.execute("ALTER TABLE " + table + " DROP COLUMN " + column);
        }
    }
}
