package quill.server.books;

import java.math.MathContext;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.ledger.Account;
import quill.core.ledger.Posting;
import quill.core.ledger.Valuation;
import quill.core.money.Exchange;
import quill.server.common.ClientRows;
import quill.server.common.Ids;

/** Table POSTING, as entries are written to it. Holds no rules. */
@Repository
class PostingRepository {
    private static final Set<Account> MONEY = EnumSet.of(Account.BANK, Account.CASH, Account.PROCESSOR_CLEARING);

    private final JdbcClient jdbc;

    PostingRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A stored posting, with its value in the own currency. */
    record Valued(Posting posting, Money own) {}

    void insert(long entryId, Posting posting, Money own, ClientId clientId) {
        jdbc.sql("""
                INSERT INTO posting (entry_id, account, detail, category, client_id, invoice_id, currency, amount_minor,
                                     own_minor)
                VALUES (:entry, :account, :detail, :category, :client, :invoice, :currency, :amount, :own)
                """)
                .param("entry", entryId)
                .param("account", posting.account())
                .param("detail", posting.detail())
                .param("category", posting.category())
                .param("client", clientId)
                .param("invoice", posting.document())
                .param("currency", posting.amount().getCurrencyUnit().getCode())
                .param("amount", posting.amount())
                .param("own", own)
                .update();
    }

    /** As they stand in their index, and added up by the caller: H2 takes three times as long to group them. */
    List<BooksService.OfClient> ofClients() {
        return jdbc.sql("""
                SELECT client_id, account, currency, amount_minor FROM posting
                 WHERE account IN ('RECEIVABLE', 'CLIENT_CREDIT', 'CLIENT_DEPOSITS')
                """)
                .query((rs, n) -> new BooksService.OfClient(
                        new ClientId(rs.getLong(1)), Account.valueOf(rs.getString(2)), rs.getString(3), rs.getLong(4)))
                .list();
    }

    List<Valued> of(long entryId, CurrencyUnit own) {
        return jdbc.sql("""
                SELECT account, detail, category, invoice_id, currency, amount_minor, own_minor
                  FROM posting WHERE entry_id = :entry ORDER BY id
                """)
                .param("entry", entryId)
                .query((rs, n) -> new Valued(
                        new Posting(
                                Account.valueOf(rs.getString("account")),
                                rs.getString("detail"),
                                rs.getString("category"),
                                Ids.document(rs, "invoice_id"),
                                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("amount_minor"))),
                        Money.ofMinor(own, rs.getLong("own_minor"))))
                .list();
    }

    /** The rate that money was booked at by an entry; empty where it booked none. */
    Optional<Exchange> rateOf(long entryId, CurrencyUnit own) {
        return of(entryId, own).stream()
                .filter(v -> MONEY.contains(v.posting().account()) && !v.own().isZero())
                .findFirst()
                .map(v -> new Exchange(
                        own, v.own().getAmount().divide(v.posting().amount().getAmount(), MathContext.DECIMAL128)));
    }

    /**
     * What stands in another currency where a posting goes: on an invoice's receivable, or on a client's credit or
     * deposits. Null in the own currency, and for other accounts.
     */
    Valuation.Carried carried(Posting p, ClientId clientId, CurrencyUnit own) {
        CurrencyUnit currency = p.amount().getCurrencyUnit();
        boolean held = p.account() == Account.RECEIVABLE
                || p.account() == Account.CLIENT_CREDIT
                || p.account() == Account.CLIENT_DEPOSITS;
        if (!held || currency.equals(own)) {
            return null;
        }
        return jdbc.sql("""
                SELECT COALESCE(SUM(amount_minor), 0), COALESCE(SUM(own_minor), 0) FROM posting
                 WHERE client_id = :client AND account = :account AND currency = :currency
                   AND (account <> 'RECEIVABLE' OR invoice_id = :invoice)
                """)
                .param("client", clientId)
                .param("account", p.account())
                .param("currency", currency.getCode())
                .param("invoice", p.document())
                .query((rs, n) -> new Valuation.Carried(
                        Money.ofMinor(currency, rs.getLong(1)), Money.ofMinor(own, rs.getLong(2))))
                .single();
    }

    @Bean
    ClientRows postingsOfClients() {
        return ClientRows.of(jdbc, "journal_entry", "posting");
    }
}
