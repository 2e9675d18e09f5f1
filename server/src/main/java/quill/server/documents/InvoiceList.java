package quill.server.documents;

import io.swagger.v3.oas.annotations.media.Schema;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Csv;
import quill.server.common.Ids;
import quill.server.common.Rows;
import quill.server.lists.Wanted;

/** All invoices as one table: filtered, ordered, added up. Reads only; a page begins where the one before ended. */
@Repository
class InvoiceList {
    static final List<String> KINDS = List.of("all", "open", "late", "draft", "settled", "void");
    static final List<String> SORTS = List.of("issued", "number", "client", "due", "total", "open");
    private static final String SELECT = """
            SELECT v.id, v.client_id, v.client_name, v.number, v.subject, v.currency, v.issued_on, v.next_due_on,
                   v.settled_on, v.total_minor, v.open_minor, v.shelf, v.voided_on
              FROM document v
            """;

    private final JdbcClient jdbc;
    private final BusinessService business;
    private final BusinessClock clock;

    InvoiceList(JdbcClient jdbc, BusinessService business, BusinessClock clock) {
        this.jdbc = jdbc;
        this.business = business;
        this.clock = clock;
    }

    /**
     * An invoice of the list.
     *
     * @param how draft, late, open, settled or void
     * @param dueOn when the next open installment falls due
     * @param open what is open; for a draft nothing is
     */
    record ListedInvoice(
            DocumentId id,
            @Schema(nullable = true) ClientId clientId,
            String clientName,
            @Schema(nullable = true) String number,
            String subject,
            String how,
            @Schema(nullable = true) LocalDate issuedOn,
            @Schema(nullable = true) LocalDate dueOn,
            @Schema(nullable = true) Amount total,
            Amount open) {}

    /** What all that is shown adds up to in one currency; what is void counts nowhere. */
    record InvoiceTotal(int count, Amount total, Amount open) {}

    Wanted wanted(Wanted.Typed typed) {
        return Wanted.of(typed, KINDS, SORTS, clock.today());
    }

    /** Rows from one place on. */
    List<ListedInvoice> rows(Wanted w, int start, int most) {
        return jdbc.sql(SELECT + where(w) + " ORDER BY " + order(w) + " OFFSET :start ROWS FETCH FIRST :most ROWS ONLY")
                .params(parameters(w))
                .param("start", start)
                .param("most", most)
                .query(this::row)
                .list();
    }

    /** Those of some ids, in the order in which they were issued. */
    List<ListedInvoice> some(Collection<DocumentId> ids) {
        return jdbc.sql(SELECT + " WHERE v.id IN (:ids) ORDER BY v.listed_on, v.id")
                .param("ids", ids)
                .query(this::row)
                .list();
    }

    List<InvoiceTotal> totals(Wanted w) {
        return jdbc.sql("""
                SELECT v.currency, COUNT(*), SUM(CASE WHEN v.voided_on IS NULL THEN COALESCE(v.total_minor, 0) END),
                       SUM(v.open_minor)
                  FROM document v
                """ + where(w) + " GROUP BY v.currency ORDER BY v.currency <> :own, v.currency")
                .params(parameters(w))
                .query((rs, n) -> new InvoiceTotal(
                        rs.getInt(2),
                        Amount.ofMinor(rs.getString(1), rs.getLong(3)),
                        Amount.ofMinor(rs.getString(1), rs.getLong(4))))
                .list();
    }

    /** The rows as a table for spreadsheets: amounts are plain numbers, their currency beside them. */
    static List<List<String>> table(List<ListedInvoice> rows) {
        List<List<String>> table = new ArrayList<>();
        table.add(List.of("Number", "Client", "For", "State", "Issued", "Due", "Currency", "Total", "Open"));
        rows.forEach(r -> table.add(List.of(
                r.number() == null ? "" : Csv.text(r.number()),
                Csv.text(r.clientName()),
                Csv.text(r.subject()),
                r.how(),
                r.issuedOn() == null ? "" : r.issuedOn().toString(),
                r.dueOn() == null ? "" : r.dueOn().toString(),
                r.open().currency(),
                r.total() == null ? "" : Amounts.plain(r.total().money()),
                Amounts.plain(r.open().money()))));
        return table;
    }

    private Map<String, Object> parameters(Wanted w) {
        return w.parameters(clock.today(), business.business().currency());
    }

    private static String where(Wanted w) {
        String which = switch (w.which()) {
            case "open" -> "v.shelf = 'open'";
            case "late" -> "v.shelf = 'open' AND v.next_due_on < :today";
            case "draft" -> "v.shelf = 'draft'";
            case "settled" -> "v.shelf = 'settled' AND v.voided_on IS NULL";
            case "void" -> "v.voided_on IS NOT NULL";
            default -> "v.shelf IS NOT NULL";
        };
        return " WHERE " + which + (w.hasPeriod() ? " AND v.listed_on BETWEEN :from AND :to" : "")
                + (w.filter().isEmpty() ? "" : """
                         AND (LOWER(v.client_name) LIKE :part ESCAPE '!' OR LOWER(v.subject) LIKE :part ESCAPE '!'
                          OR LOWER(COALESCE(v.number, '')) LIKE :part ESCAPE '!')
                        """);
    }

    /** Amounts of one currency stand together, the business's own first. */
    private static String order(Wanted w) {
        String way = w.down() ? " DESC" : "";
        return switch (w.sort()) {
            case "number" -> "v.series" + way + " NULLS LAST, v.seq" + way + ", v.id" + way;
            case "client" -> "LOWER(v.client_name)" + way + ", v.listed_on DESC, v.id DESC";
            case "due" -> "v.next_due_on" + way + " NULLS LAST, v.id" + way;
            case "total" -> "v.currency <> :own, v.currency, v.total_minor" + way + " NULLS LAST, v.id" + way;
            case "open" -> "v.currency <> :own, v.currency, v.open_minor" + way + ", v.id" + way;
            default -> "v.listed_on" + way + ", v.id" + way;
        };
    }

    private ListedInvoice row(ResultSet rs, int n) throws SQLException {
        String currency = rs.getString("currency");
        LocalDate due = Rows.date(rs, "next_due_on");
        String shelf = rs.getString("shelf");
        String how = Rows.date(rs, "voided_on") != null
                ? "void"
                : "open".equals(shelf) && due != null && due.isBefore(clock.today()) ? "late" : shelf;
        long total = rs.getLong("total_minor");
        return new ListedInvoice(
                new DocumentId(rs.getLong("id")),
                Ids.client(rs, "client_id"),
                rs.getString("client_name"),
                rs.getString("number"),
                rs.getString("subject"),
                how,
                Rows.date(rs, "issued_on"),
                due,
                rs.getObject("total_minor") == null ? null : Amount.ofMinor(currency, total),
                Amount.ofMinor(currency, rs.getLong("open_minor")));
    }
}
