package quill.server.payments;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.ledger.OnTop;

/** Table ON_TOP. Holds no rules; the caller opens the transaction. */
@Repository
class TopRepository {
    private final JdbcClient jdbc;

    TopRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param went whether it went, rather than came */
    void insert(long payment, long movement, OnTop top, boolean went) {
        jdbc.sql("""
                INSERT INTO on_top (payment_id, movement_id, tip_minor, surcharge_minor, tax_minor, tax)
                VALUES (:payment, :movement, :tip, :surcharge, :ofTax, :tax)
                """)
                .param("payment", payment)
                .param("movement", movement)
                .param("tip", went ? top.tip().negated() : top.tip())
                .param("surcharge", went ? top.surcharge().negated() : top.surcharge())
                .param("ofTax", went ? top.tax().negated() : top.tax())
                .param("tax", top.taxId())
                .update();
    }

    /** What of a payment is still here. */
    OnTop left(long payment, CurrencyUnit currency) {
        return sum("payment_id = :of", payment, currency, 1);
    }

    /** What went with a movement. */
    OnTop wentWith(long movement, CurrencyUnit currency) {
        return sum("movement_id = :of", movement, currency, -1);
    }

    /** What came or went with each movement because of a payment, by the movement. */
    Map<Long, Money> besides(long payment, CurrencyUnit currency) {
        Map<Long, Money> sums = new HashMap<>();
        jdbc.sql("""
                SELECT movement_id, ABS(SUM(tip_minor + surcharge_minor + tax_minor)) FROM on_top
                 WHERE payment_id = :payment GROUP BY movement_id
                """)
                .param("payment", payment)
                .query((rs, n) -> sums.put(rs.getLong(1), Money.ofMinor(currency, rs.getLong(2))))
                .list();
        return sums;
    }

    private OnTop sum(String which, long of, CurrencyUnit currency, int sign) {
        List<OnTop> sums = jdbc.sql("""
                SELECT SUM(tip_minor) AS tip, SUM(surcharge_minor) AS surcharge, SUM(tax_minor) AS of_tax, MAX(tax) AS tax
                  FROM on_top WHERE
                """ + which + " HAVING COUNT(*) > 0")
                .param("of", of)
                .query((rs, n) -> new OnTop(
                        Money.ofMinor(currency, sign * rs.getLong("tip")),
                        Money.ofMinor(currency, sign * rs.getLong("surcharge")),
                        Money.ofMinor(currency, sign * rs.getLong("of_tax")),
                        rs.getString("tax")))
                .list();
        return sums.isEmpty() ? OnTop.nothing(currency) : sums.get(0);
    }

    /** The latest movement of a kind because of a payment; 0 for none. */
    long latest(long payment, String kind) {
        return jdbc.sql("SELECT COALESCE(MAX(id), 0) FROM movement WHERE of_id = :payment AND kind = :kind")
                .param("payment", payment)
                .param("kind", kind)
                .query(Long.class)
                .single();
    }
}
