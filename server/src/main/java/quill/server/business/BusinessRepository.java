package quill.server.business;

import java.math.BigDecimal;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;
import quill.server.common.ReadOnce;

/** Tables BUSINESS and TAX. Holds no rules; the caller opens the transaction. */
@Repository
class BusinessRepository {
    private final JdbcClient jdbc;

    BusinessRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Business> find() {
        return ReadOnce.of("business", "all", this::read);
    }

    private Optional<Business> read() {
        return jdbc.sql("""
                SELECT name, tagline, address, country, email, tax_number, registered, currency, zone, tax_rounding, iban, bic,
                       invoice_pattern, credit_note_pattern, quote_pattern, days_to_pay, footer, fees_first, version
                  FROM business WHERE id = 1
                """)
                .query((rs, n) -> new Business(
                        rs.getString("name"),
                        rs.getString("tagline"),
                        rs.getString("address"),
                        rs.getString("country"),
                        rs.getString("email"),
                        rs.getString("tax_number"),
                        rs.getBoolean("registered"),
                        rs.getString("currency"),
                        rs.getString("zone"),
                        new Business.TransferAccount(rs.getString("iban"), rs.getString("bic")),
                        new Business.Habits(
                                rs.getString("invoice_pattern"),
                                rs.getString("credit_note_pattern"),
                                rs.getString("quote_pattern"),
                                rs.getInt("days_to_pay"),
                                TaxRounding.valueOf(rs.getString("tax_rounding")),
                                rs.getString("footer"),
                                rs.getBoolean("fees_first")),
                        rs.getInt("version")))
                .optional();
    }

    String mark() {
        return jdbc.sql("SELECT decimal_mark FROM business WHERE id = 1")
                .query(String.class)
                .single();
    }

    void changeMark(String mark) {
        jdbc.sql("UPDATE business SET decimal_mark = :mark WHERE id = 1")
                .param("mark", mark)
                .update();
    }

    void insert(Business b) {
        write(b, """
                INSERT INTO business (id, name, tagline, address, country, email, tax_number, registered, currency, zone,
                  tax_rounding, iban, bic, invoice_pattern, credit_note_pattern, quote_pattern, days_to_pay, footer, fees_first)
                VALUES (1, :name, :tagline, :address, :country, :email, :taxNumber, :registered, :currency, :zone,
                  :taxRounding, :iban, :bic, :invoicePattern, :creditNotePattern, :quotePattern, :daysToPay, :footer, :feesFirst)
                """);
    }

    /** @return rows changed: none where the version is no longer the one that was read */
    int update(Business b) {
        return write(b, """
                UPDATE business
                   SET name = :name, tagline = :tagline, address = :address, country = :country, email = :email, tax_number = :taxNumber,
                       registered = :registered, currency = :currency, zone = :zone, tax_rounding = :taxRounding,
                       iban = :iban, bic = :bic, invoice_pattern = :invoicePattern,
                       credit_note_pattern = :creditNotePattern, quote_pattern = :quotePattern, days_to_pay = :daysToPay, footer = :footer, fees_first = :feesFirst,
                       version = version + 1
                 WHERE id = 1 AND version = :version
                """);
    }

    private int write(Business b, String sql) {
        return jdbc.sql(sql)
                .param("name", b.name())
                .param("tagline", b.tagline())
                .param("address", b.address())
                .param("country", b.country())
                .param("email", b.email())
                .param("taxNumber", b.taxNumber())
                .param("registered", b.registered())
                .param("currency", b.currency())
                .param("zone", b.zone())
                .param("taxRounding", b.habits().taxRounding())
                .param("iban", b.account().iban())
                .param("bic", b.account().bic())
                .param("invoicePattern", b.habits().invoicePattern())
                .param("creditNotePattern", b.habits().creditNotePattern())
                .param("quotePattern", b.habits().quotePattern())
                .param("daysToPay", b.habits().daysToPay())
                .param("footer", b.habits().footer())
                .param("feesFirst", b.habits().feesFirst())
                .param("version", b.version())
                .update();
    }

    /** All that were ever named, the retired ones too. */
    List<Tax> taxes() {
        return jdbc.sql("SELECT id, name, rate, category, compound, reason FROM tax ORDER BY place, id")
                .query((rs, n) -> new Tax(
                        rs.getString("id"),
                        rs.getString("name"),
                        new Percent(rs.getBigDecimal("rate")),
                        TaxCategory.valueOf(rs.getString("category")),
                        rs.getBoolean("compound"),
                        rs.getString("reason")))
                .list();
    }

    Set<String> retired() {
        return new HashSet<>(
                jdbc.sql("SELECT id FROM tax WHERE retired").query(String.class).list());
    }

    int retire(String id, boolean retired) {
        return jdbc.sql("UPDATE tax SET retired = :retired WHERE id = :id")
                .param("retired", retired)
                .param("id", id)
                .update();
    }

    void insertTax(Tax tax) {
        jdbc.sql("""
                INSERT INTO tax (id, name, rate, category, compound, reason, place)
                VALUES (:id, :name, :rate, :category, :compound, :reason, (SELECT COUNT(*) + 1 FROM tax))
                """)
                .param("id", tax.id())
                .param("name", tax.name())
                .param("rate", BigDecimal.ZERO.add(tax.rate().rate()))
                .param("category", tax.category())
                .param("compound", tax.compound())
                .param("reason", tax.reason())
                .update();
    }
}
