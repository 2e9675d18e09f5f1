package quill.server.payments;

import io.swagger.v3.oas.annotations.media.Schema;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.pay.PaymentWay;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Csv;
import quill.server.common.Ids;
import quill.server.common.Rows;
import quill.server.lists.Wanted;

/**
 * All that came in as one table, or what was paid on trial: filtered, ordered, added up. Reads only; a page begins where the
 * one before ended.
 */
@Repository
class PaymentList {
    static final List<String> KINDS = Stream.concat(
                    Stream.of("all", "undone", "test", "arrived", "paid_out", "back", "contested"),
                    Arrays.stream(PaymentWay.values()).map(w -> w.name().toLowerCase(Locale.ROOT)))
            .toList();
    static final List<String> SORTS = List.of("received", "client", "way", "amount");
    private static final String SELECT = """
            SELECT p.id, p.client_id, p.client_name, p.invoice_id, p.number, p.way, p.currency, p.amount_minor, p.cost_minor,
                   p.value_on, p.booked_on, p.reference, p.card, p.undone_on, p.undone_why, p.unexpected, p.held,
                   p.back_minor, p.stands, p.payout_id, p.top_minor
            """;
    /** With a tip and a surcharge that came beside it, and stand in accounts of their own. */
    private static final String REAL = """
             FROM (SELECT m.*, COALESCE((SELECT SUM(t.tip_minor + t.surcharge_minor + t.tax_minor) FROM on_top t
                                          WHERE t.movement_id = m.id), 0) AS top_minor
                     FROM movement m WHERE m.kind = 'RECEIPT') p
            """;
    /** What was paid on trial, as if it were a payment. */
    private static final String TRIED = """
             FROM (SELECT t.id, t.client_id, t.client_name, t.invoice_id, t.number, 'CARD' AS way, t.currency,
                    t.amount_minor, 0 AS cost_minor, t.paid_on AS value_on, t.paid_on AS booked_on, '' AS reference, t.card,
                    NULL AS undone_on, NULL AS undone_why, FALSE AS unexpected, FALSE AS held,
                    0 AS back_minor, '' AS stands, CAST(NULL AS BIGINT) AS payout_id, 0 AS top_minor
               FROM test_payment t) p
            """;

    private final JdbcClient jdbc;
    private final BusinessService business;
    private final BusinessClock clock;

    PaymentList(JdbcClient jdbc, BusinessService business, BusinessClock clock) {
        this.jdbc = jdbc;
        this.business = business;
        this.clock = clock;
    }

    /**
     * A payment of the list.
     *
     * @param number of the invoice that it was for; null where it was for none
     * @param note in words, what is special about it; mostly empty
     */
    record ListedPayment(
            long id,
            ClientId clientId,
            String clientName,
            @Schema(nullable = true) DocumentId invoiceId,
            @Schema(nullable = true) String number,
            String way,
            Amount amount,
            Amount fee,
            LocalDate receivedOn,
            String reference,
            Standing standing,
            String note) {}

    /** Whether it counts. */
    enum Standing {
        COUNTS,
        UNDONE,
        /** On trial: no money moved. */
        TEST
    }

    /** What all that is shown adds up to in one currency; what was undone, or went back, counts nowhere. */
    record PaymentTotal(int count, Amount amount, Amount fee) {}

    Wanted wanted(Wanted.Typed typed) {
        return Wanted.of(typed, KINDS, SORTS, clock.today());
    }

    /** Rows from one place on. */
    List<ListedPayment> rows(Wanted w, int start, int most) {
        return jdbc.sql(SELECT + from(w) + where(w) + " ORDER BY " + order(w)
                        + " OFFSET :start ROWS FETCH FIRST :most ROWS ONLY")
                .params(parameters(w))
                .param("start", start)
                .param("most", most)
                .query((rs, n) -> row(rs, isTried(w)))
                .list();
    }

    List<PaymentTotal> totals(Wanted w) {
        return jdbc.sql("""
                SELECT p.currency, COUNT(*), SUM(CASE WHEN p.undone_on IS NULL AND NOT :tried THEN p.amount_minor - p.back_minor ELSE 0 END),
                       SUM(CASE WHEN p.undone_on IS NULL THEN p.cost_minor ELSE 0 END)
                """ + from(w) + where(w) + " GROUP BY p.currency ORDER BY p.currency <> :own, p.currency")
                .params(parameters(w))
                .param("tried", isTried(w))
                .query((rs, n) -> new PaymentTotal(
                        rs.getInt(2),
                        Amount.ofMinor(rs.getString(1), rs.getLong(3)),
                        Amount.ofMinor(rs.getString(1), rs.getLong(4))))
                .list();
    }

    /** The rows as a table for spreadsheets: amounts are plain numbers, their currency beside them. */
    static List<List<String>> table(List<ListedPayment> rows) {
        List<List<String>> table = new ArrayList<>();
        table.add(List.of(
                "Received", "Client", "Invoice", "By", "Reference", "Currency", "Amount", "Processing fee", "Note"));
        rows.forEach(r -> table.add(List.of(
                r.receivedOn().toString(),
                Csv.text(r.clientName()),
                r.number() == null ? "" : Csv.text(r.number()),
                r.way(),
                Csv.text(r.reference()),
                r.amount().currency(),
                Amounts.plain(r.amount().money()),
                Amounts.plain(r.fee().money()),
                Csv.text(r.note()))));
        return table;
    }

    private Map<String, Object> parameters(Wanted w) {
        return w.parameters(clock.today(), business.business().currency());
    }

    private static String from(Wanted w) {
        return isTried(w) ? TRIED : REAL;
    }

    private static boolean isTried(Wanted w) {
        return "test".equals(w.which());
    }

    private static String where(Wanted w) {
        String which = switch (w.which()) {
            case "all", "test" -> "TRUE";
            case "undone" -> "p.undone_on IS NOT NULL";
            case "arrived" ->
                "p.payout_id IS NULL AND p.undone_on IS NULL AND p.way IN ('CARD', 'BANK_DEBIT', 'WALLET')";
            case "paid_out" -> "p.payout_id IS NOT NULL";
            case "back" -> "p.back_minor > 0";
            case "contested" -> "p.stands IN ('CONTESTED', 'WON', 'LOST')";
            default -> "p.way = '" + w.which().toUpperCase(Locale.ROOT) + "'"; // one of KINDS
        };
        return " WHERE " + which + (w.hasPeriod() ? " AND p.value_on BETWEEN :from AND :to" : "")
                + (w.filter().isEmpty() ? "" : """
                         AND (LOWER(p.client_name) LIKE :part ESCAPE '!' OR LOWER(p.reference) LIKE :part ESCAPE '!'
                          OR LOWER(COALESCE(p.number, '')) LIKE :part ESCAPE '!'
                          OR LOWER(p.card) LIKE :part ESCAPE '!')
                        """);
    }

    private static String order(Wanted w) {
        String way = w.down() ? " DESC" : "";
        return switch (w.sort()) {
            case "client" -> "LOWER(p.client_name)" + way + ", p.value_on DESC, p.id DESC";
            case "way" -> "p.way" + way + ", p.value_on DESC, p.id DESC";
            case "amount" -> "p.currency <> :own, p.currency, p.amount_minor" + way + ", p.id" + way;
            default -> "p.value_on" + way + ", p.id" + way;
        };
    }

    /** What is special about one, in words; mostly empty. */
    private static String note(ResultSet rs, LocalDate undone, boolean test) throws SQLException {
        if (undone != null) {
            return "undone: " + rs.getString("undone_why");
        }
        if (test) {
            return "test: nothing was taken, nothing is settled";
        }
        switch (Payment.Stands.of(rs.getString("stands"))) {
            case RETURNED:
                return "came back";
            case CONTESTED:
                return "contested";
            case LOST:
                return "contested and lost";
            default:
        }
        long back = rs.getLong("back_minor");
        if (back > 0) {
            return Amounts.grouped(
                            Amount.ofMinor(rs.getString("currency"), back).money()) + " given back";
        }
        long top = rs.getLong("top_minor");
        if (top > 0) {
            return "with "
                    + Amounts.grouped(
                            Amount.ofMinor(rs.getString("currency"), top).money()) + " on top";
        }
        return rs.getBoolean("held")
                ? "held as a deposit"
                : rs.getBoolean("unexpected") ? "came unexpectedly, held as client credit" : "";
    }

    private static ListedPayment row(ResultSet rs, boolean test) throws SQLException {
        String currency = rs.getString("currency");
        LocalDate undone = Rows.date(rs, "undone_on");
        String note = note(rs, undone, test);
        String card = rs.getString("card");
        return new ListedPayment(
                rs.getLong("id"),
                new ClientId(rs.getLong("client_id")),
                rs.getString("client_name"),
                Ids.document(rs, "invoice_id"),
                rs.getString("number"),
                PaymentWay.valueOf(rs.getString("way")).word() + (card.isEmpty() ? "" : ", " + card),
                Amount.ofMinor(currency, rs.getLong("amount_minor")),
                Amount.ofMinor(currency, rs.getLong("cost_minor")),
                rs.getDate("value_on").toLocalDate(),
                rs.getString("reference"),
                test ? Standing.TEST : undone == null ? Standing.COUNTS : Standing.UNDONE,
                note);
    }
}
