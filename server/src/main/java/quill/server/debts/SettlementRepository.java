package quill.server.debts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Lot;
import quill.core.ledger.Settlement;
import quill.core.ledger.Source;
import quill.core.ledger.Step;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Rows;

/** Tables SETTLEMENT, CREDIT and CREDIT_DRAW. Rows are added; only what is left of a lot, and what it waits for, changes. */
@Repository
class SettlementRepository {
    /** What stands: the row itself, less what took it back. */
    private static final String STANDING = """
            SELECT s.id AS settlement, s.kind AS settled_by, s.movement_id, s.credit_id, s.document_id AS source_document,
                   s.amount_minor + COALESCE((SELECT SUM(r.amount_minor) FROM settlement r WHERE r.reverses_id = s.id), 0)
                     AS stands,
                   d.id, d.document_id, d.number, d.place, d.kind, d.due_on, d.order_on, d.currency, d.open_minor
              FROM settlement s JOIN debt d ON d.id = s.debt_id
             WHERE s.reverses_id IS NULL AND\s""";

    private static final String MONEY = " AND s.kind IN ('PAID', 'COVERED', 'MOVED')";
    private static final String LOT = """
            SELECT id, kind, movement_id, document_id, from_id, reserved_for, currency, left_minor FROM credit\s""";

    private final JdbcClient jdbc;

    SettlementRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** When money moved, when it is booked, and by which entry. */
    record Booked(LocalDate valueOn, LocalDate bookedOn, long entry) {}

    void insert(Settlement s, long lot, Booked booked) {
        jdbc.sql("""
                INSERT INTO settlement (debt_id, kind, movement_id, credit_id, document_id, amount_minor, value_on,
                  booked_on, entry_id, reverses_id)
                VALUES (:debt, :kind, :movement, :credit, :document, :amount, :valueOn, :bookedOn, :entry, :reverses)
                """)
                .param("debt", s.debt().id())
                .param("kind", s.kind())
                .param("movement", s.source().movement())
                .param("credit", lot == 0 ? null : lot)
                .param("document", s.source().document())
                .param("amount", s.amount())
                .param("valueOn", booked.valueOn())
                .param("bookedOn", booked.bookedOn())
                .param("entry", booked.entry())
                .param("reverses", s.reverses() == 0 ? null : s.reverses())
                .update();
    }

    /** @return the new lot's id */
    long insert(ClientId clientId, Lot lot, long from) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO credit (client_id, currency, kind, movement_id, document_id, from_id, reserved_for,
                  amount_minor, left_minor)
                VALUES (:client, :currency, :kind, :movement, :document, :from, :reserved, :amount, :amount)
                """)
                .param("client", clientId)
                .param("currency", lot.left().getCurrencyUnit().getCode())
                .param("kind", lot.kind())
                .param("movement", lot.source().movement())
                .param("document", lot.source().document())
                .param("from", from == 0 ? null : from)
                .param("reserved", lot.reservedFor())
                .param("amount", lot.left())
                .update(key, "id");
        return key.getKey().longValue();
    }

    void insert(Step.Draw draw, long lot, long entry) {
        jdbc.sql("""
                INSERT INTO credit_draw (credit_id, movement_id, document_id, amount_minor, entry_id)
                VALUES (:credit, :movement, :document, :amount, :entry)
                """)
                .param("credit", lot)
                .param("movement", draw.to().movement())
                .param("document", draw.to().document())
                .param("amount", draw.amount())
                .param("entry", entry)
                .update();
    }

    void left(long lot, long change) {
        jdbc.sql("UPDATE credit SET left_minor = left_minor + :change WHERE id = :id")
                .param("change", change)
                .param("id", lot)
                .update();
    }

    /** Lots of a client of which anything is left. */
    List<Lot> left(ClientId clientId, CurrencyUnit currency) {
        return jdbc.sql(LOT + "WHERE client_id = :client AND has_left AND currency = :currency ORDER BY id")
                .param("client", clientId)
                .param("currency", currency.getCode())
                .query(SettlementRepository::lot)
                .list();
    }

    List<Lot> lots(Collection<Long> ids) {
        return ids.isEmpty()
                ? List.of()
                : jdbc.sql(LOT + "WHERE id IN (:ids)")
                        .param("ids", ids)
                        .query(SettlementRepository::lot)
                        .list();
    }

    /** What is left of credit, by client: what waits, or what does not; clients without any are not in it. */
    Map<ClientId, Money> credits(Collection<ClientId> clientIds, CurrencyUnit currency, boolean waiting) {
        Map<ClientId, Money> sums = new HashMap<>();
        if (!clientIds.isEmpty()) {
            jdbc.sql("""
                    SELECT client_id, SUM(left_minor)
                      FROM credit JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = client_id
                     WHERE has_left AND currency = :currency AND kind = 'CREDIT'
                       AND (reserved_for IS NOT NULL) = :waiting
                     GROUP BY client_id
                    """)
                    .param("clients", Ids.array(clientIds))
                    .param("currency", currency.getCode())
                    .param("waiting", waiting)
                    .query(rs -> {
                        sums.put(new ClientId(rs.getLong(1)), Money.ofMinor(currency, rs.getLong(2)));
                    });
        }
        return sums;
    }

    /** Whose credit waits, in which currency. */
    record Waiting(ClientId clientId, CurrencyUnit currency) {}

    Optional<Waiting> waitingFor(DocumentId draftId) {
        return jdbc.sql("SELECT client_id, currency FROM credit WHERE reserved_for = :draft ORDER BY id LIMIT 1")
                .param("draft", draftId)
                .query((rs, n) -> new Waiting(new ClientId(rs.getLong(1)), CurrencyUnit.of(rs.getString(2))))
                .optional();
    }

    void waitNoLonger(DocumentId draftId) {
        jdbc.sql("UPDATE credit SET reserved_for = NULL WHERE reserved_for = :draft")
                .param("draft", draftId)
                .update();
    }

    /** What a payment settles, by itself and by its credit, the latest first. */
    List<Settlement> ofMovement(long id) {
        return standing("s.movement_id = :id" + MONEY + " ORDER BY s.id DESC", id);
    }

    /** What a payment settles by itself, in the order of the debts. */
    List<Settlement> directlyBy(long movement) {
        return standing(
                "s.movement_id = :id AND s.credit_id IS NULL" + MONEY + " ORDER BY d.order_on, d.id, s.id", movement);
    }

    /** What settles a document. */
    List<Settlement> ofDocument(DocumentId id) {
        return standing("d.document_id = :id" + MONEY + " ORDER BY d.order_on, d.id, s.id", id);
    }

    /** What of a document was let off for paying early, and stands. */
    List<Settlement> letOff(DocumentId id) {
        return standing("d.document_id = :id AND s.kind = 'LET_OFF' ORDER BY s.id", id);
    }

    /** What of a document was given up, and stands. */
    List<Settlement> writtenOff(DocumentId id) {
        return standing("d.document_id = :id AND s.kind = 'WRITTEN_OFF' ORDER BY s.id", id);
    }

    /** What the payer's bank opened of each debt when it took a payment back. */
    Map<Long, Money> chargedBack(long movement) {
        Map<Long, Money> sums = new HashMap<>();
        jdbc.sql("""
                SELECT r.debt_id, d.currency, -SUM(r.amount_minor) FROM settlement r JOIN debt d ON d.id = r.debt_id
                 WHERE r.movement_id = :id AND r.kind = 'CHARGED_BACK' GROUP BY r.debt_id, d.currency
                """).param("id", movement).query(rs -> {
            sums.put(rs.getLong(1), Money.ofMinor(CurrencyUnit.of(rs.getString(2)), rs.getLong(3)));
        });
        return sums;
    }

    /** Debts that were opened when a payment went back, or a part of it. */
    Set<Long> openedByGoing(long movement) {
        return Set.copyOf(jdbc.sql("""
                SELECT DISTINCT r.debt_id FROM settlement r
                 WHERE r.movement_id = :id AND r.kind IN ('CHARGED_BACK', 'REFUNDED') AND r.amount_minor < 0
                """).param("id", movement).query(Long.class).list());
    }

    /** When the last of the money moved that settles a document. */
    Optional<LocalDate> paidBy(DocumentId id) {
        return Optional.ofNullable(jdbc.sql("""
                SELECT MAX(s.value_on) AS last FROM settlement s JOIN debt d ON d.id = s.debt_id
                 WHERE d.document_id = :id AND s.kind IN ('PAID', 'COVERED', 'MOVED') AND s.amount_minor > 0
                   AND NOT EXISTS (SELECT 1 FROM settlement r WHERE r.reverses_id = s.id)
                """).param("id", id).query(rs -> rs.next() ? Rows.date(rs, "last") : null));
    }

    List<Settlement> ofDebt(long id) {
        return standing("s.debt_id = :id" + MONEY + " ORDER BY s.id", id);
    }

    /** What client credit settles, the latest first. */
    List<Settlement> covered(ClientId clientId, CurrencyUnit currency) {
        return standing("d.client_id = :id AND s.credit_id IS NOT NULL" + MONEY + " ORDER BY s.id DESC", clientId)
                .stream()
                .filter(s -> s.amount().getCurrencyUnit().equals(currency))
                .toList();
    }

    /** What money of a client settles by itself, the latest first. */
    List<Settlement> paid(ClientId clientId, CurrencyUnit currency) {
        return standing(
                        "d.client_id = :id AND s.credit_id IS NULL AND s.movement_id IS NOT NULL" + MONEY
                                + " ORDER BY s.id DESC",
                        clientId)
                .stream()
                .filter(s -> s.amount().getCurrencyUnit().equals(currency))
                .toList();
    }

    private List<Settlement> standing(String which, Object id) {
        return jdbc.sql(STANDING + which).param("id", id).query(SettlementRepository::settlement).list().stream()
                .filter(s -> s != null)
                .toList();
    }

    /** What a document took of lots and did not put back, in the order in which it took it. */
    List<Step.Draw> drawnBy(DocumentId id) {
        return draws("d.document_id = :id", id);
    }

    /** What documents took of a movement's lots, and did not put back. */
    List<Step.Draw> drawnOf(long movement) {
        return draws("c.movement_id = :id AND d.document_id IS NOT NULL", movement);
    }

    private List<Step.Draw> draws(String which, Object id) {
        return jdbc.sql("""
                SELECT d.credit_id, d.document_id, c.currency, SUM(d.amount_minor) AS minor
                  FROM credit_draw d JOIN credit c ON c.id = d.credit_id
                 WHERE %s
                 GROUP BY d.credit_id, d.document_id, c.currency HAVING SUM(d.amount_minor) > 0
                 ORDER BY MIN(d.id)
                """.formatted(which))
                .param("id", id)
                .query((rs, n) -> new Step.Draw(
                        rs.getLong("credit_id"),
                        Source.document(new DocumentId(rs.getLong("document_id"))),
                        Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("minor"))))
                .list();
    }

    /** Payments that settled any of a document by themselves, those too that were taken back. */
    List<Long> payersOf(DocumentId documentId) {
        return jdbc.sql("""
                SELECT DISTINCT s.movement_id FROM debt d JOIN settlement s ON s.debt_id = d.id
                 WHERE d.document_id = :document AND s.movement_id IS NOT NULL AND s.credit_id IS NULL
                """).param("document", documentId).query(Long.class).list();
    }

    private static Settlement settlement(ResultSet rs, int row) throws SQLException {
        long stands = rs.getLong("stands");
        if (stands == 0) {
            return null;
        }
        return new Settlement(
                rs.getLong("settlement"),
                Settlement.Kind.valueOf(rs.getString("settled_by")),
                DebtRepository.debt(rs, row),
                new Source(rs.getObject("movement_id", Long.class), Ids.document(rs, "source_document")),
                rs.getLong("credit_id"),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), stands),
                0);
    }

    private static Lot lot(ResultSet rs, int row) throws SQLException {
        return new Lot(
                rs.getLong("id"),
                Lot.Kind.valueOf(rs.getString("kind")),
                new Source(rs.getObject("movement_id", Long.class), Ids.document(rs, "document_id")),
                rs.getLong("from_id"),
                Ids.document(rs, "reserved_for"),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("left_minor")));
    }

    @Bean
    ClientRows creditOfClients() {
        return ClientRows.of(jdbc, "credit");
    }
}
