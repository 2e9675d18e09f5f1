package quill.server.cardorders;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Arrays;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.ledger.OnTop;
import quill.core.pay.WayToPay;
import quill.server.common.DebtParts;
import quill.server.common.Ids;
import quill.server.common.Rows;
import quill.server.common.StoredWord;
import quill.server.savedmethods.Agreed;

/** Orders as rows have them. */
final class OrderRows {
    private OrderRows() {}

    static OrderRepository.Order order(ResultSet rs, int row) throws SQLException {
        return new OrderRepository.Order(
                rs.getLong("id"),
                new OrderRepository.At(rs.getLong("at_processor"), rs.getBoolean("test")),
                rs.getString("order_key"),
                new OrderRepository.Whose(
                        Ids.document(rs, "document_id"),
                        Ids.client(rs, "client_id"),
                        rs.getObject("link_id", Long.class),
                        rs.getObject("link_payment_id", Long.class)),
                parts(rs),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("amount_minor")),
                new OrderRepository.Means(
                        Arrays.stream(rs.getString("takes").split(" "))
                                .map(WayToPay::valueOf)
                                .collect(Collectors.toSet()),
                        rs.getBoolean("holds"),
                        rs.getString("paid_with"),
                        Rows.date(rs, "expected_on"),
                        rs.getObject("opened_at", Instant.class),
                        agreed(rs),
                        rs.getObject("method_id", Long.class),
                        onTop(rs)),
                StoredWord.of(OrderState.class, rs.getString("state")),
                rs.getString("order_id"),
                rs.getString("pay_at"),
                new OrderRepository.Trouble(rs.getString("declined"), rs.getString("trouble")));
    }

    private static Agreed agreed(ResultSet rs) throws SQLException {
        String how = rs.getString("keep_how");
        return how == null
                ? null
                : new Agreed(
                        StoredWord.of(Agreed.How.class, how),
                        Agreed.agreement(rs, "keep_collects", "keep_most_minor"),
                        rs.getString("keep_words"));
    }

    private static OnTop onTop(ResultSet rs) throws SQLException {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        return new OnTop(
                Money.ofMinor(currency, rs.getLong("tip_minor")),
                Money.ofMinor(currency, rs.getLong("surcharge_minor")),
                Money.ofMinor(currency, rs.getLong("surcharge_tax_minor")),
                rs.getString("surcharge_tax"));
    }

    static Map<Long, Money> parts(ResultSet rs) throws SQLException {
        return DebtParts.read(rs.getString("parts"), CurrencyUnit.of(rs.getString("currency")));
    }
}
