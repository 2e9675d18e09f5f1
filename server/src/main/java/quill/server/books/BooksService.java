package quill.server.books;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.ClientAccount;
import quill.core.ledger.Entry;
import quill.core.ledger.Posting;
import quill.core.ledger.Valuation;
import quill.core.money.Exchange;
import quill.server.audit.Happenings;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.common.BusinessClock;
import quill.server.common.Ids;
import quill.server.common.Texts;

/** The journal: entries are added, never changed. What a client owes is read from the postings. */
@Service
public class BooksService {
    private final JdbcClient jdbc;
    private final PostingRepository postings;
    private final Rates rates;
    private final BusinessService business;
    private final BusinessClock clock;

    BooksService(
            JdbcClient jdbc, PostingRepository postings, Rates rates, BusinessService business, BusinessClock clock) {
        this.jdbc = jdbc;
        this.postings = postings;
        this.rates = rates;
        this.business = business;
        this.clock = clock;
    }

    /** What an entry belongs to; any of it may be null. */
    public record About(ClientId clientId, DocumentId invoiceId, Long paymentId) {}

    /** A posting of what a client owes, or has here. @param minor in minor units of the currency */
    public record OfClient(ClientId clientId, Account account, String currency, long minor) {}

    /** Every posting of what clients owe, and of their credit and deposits. */
    public List<OfClient> ofClients() {
        return postings.ofClients();
    }

    /** A stored entry with its postings. */
    public record Booked(
            long id,
            Entry.Event event,
            LocalDate on,
            String text,
            ClientId clientId,
            Long reverses,
            String who,
            List<BookedPosting> postings) {}

    /** A stored posting: a debit above zero, a credit below it. */
    public record BookedPosting(Account account, String detail, String category, Money amount) {}

    /** What stands on an account in all. @param detail of income the category, of tax its id; else empty */
    public record Balance(Account account, String detail, Money amount) {}

    /**
     * Books an entry, dated today, within the running transaction: at the rate of the day, or at that of the entry which
     * it takes back, so that money which never was leaves nothing behind.
     *
     * @param reverses id of the entry that this one takes back, or null; an entry is taken back once
     * @return the entry's id
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public long book(Entry entry, String text, About about, Long reverses) {
        CurrencyUnit currency = entry.postings().get(0).amount().getCurrencyUnit();
        Exchange exchange = Optional.ofNullable(reverses)
                .flatMap(id -> postings.rateOf(id, business.business().currencyUnit()))
                .or(() -> rates.exchange(currency, clock.today()))
                .orElseThrow(() -> new IllegalStateException("no rate for " + currency + " on " + clock.today()));
        return book(entry, text, about, reverses, exchange);
    }

    /** The same at a rate of its own: what belongs to a document is booked at the document's. */
    @Transactional(propagation = Propagation.MANDATORY)
    public long book(Entry entry, String text, About about, Long reverses, Exchange exchange) {
        List<Money> usual =
                entry.postings().stream().map(p -> exchange.of(p.amount())).toList();
        return post(insert(entry.event(), text, about, reverses), entry.postings(), usual, about.clientId());
    }

    /**
     * Books the opposite of an entry, dated today, at the values it was booked at, whatever the rate is by now.
     *
     * @param id of the entry to reverse; an entry is reversed once
     * @return the new entry's id
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public long reverse(long id, Entry.Event event, String text, About about) {
        List<PostingRepository.Valued> was = postings.of(id, business.business().currencyUnit());
        return post(
                insert(event, text, about, id),
                was.stream().map(v -> v.posting().reversed()).toList(),
                was.stream().map(v -> v.own().negated()).toList(),
                about.clientId());
    }

    private long post(long id, List<Posting> all, List<Money> usual, ClientId clientId) {
        CurrencyUnit own = usual.get(0).getCurrencyUnit();
        Valuation valuation = Valuation.of(
                all,
                usual,
                all.stream().map(p -> postings.carried(p, clientId, own)).toList());
        for (int i = 0; i < all.size(); i++) {
            postings.insert(id, all.get(i), valuation.sides().get(i), clientId);
        }
        Money difference = valuation.difference();
        if (!difference.isZero()) {
            postings.insert(id, new Posting(Account.EXCHANGE_DIFFERENCES, "", null, difference), difference, clientId);
        }
        return id;
    }

    private long insert(Entry.Event event, String text, About about, Long reverses) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO journal_entry (event, booked_on, booked_at, text, client_id, invoice_id, movement_id,
                  reverses_id, who)
                VALUES (:event, :on, :at, :text, :client, :invoice, :payment, :reverses, :who)
                """)
                .param("event", event)
                .param("on", clock.today())
                .param("at", clock.instant())
                .param("text", Texts.fit(text, 1000))
                .param("client", about.clientId())
                .param("invoice", about.invoiceId())
                .param("payment", about.paymentId())
                .param("reverses", reverses)
                .param("who", Happenings.who())
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** The latest entry of this event for an invoice, with its postings. */
    public Optional<Booked> entryOf(Entry.Event event, DocumentId invoiceId) {
        return entries("WHERE event = :event AND invoice_id = :invoice ORDER BY id DESC", 1, event.name(), invoiceId)
                .stream()
                .findFirst();
    }

    /** The id of the entry that booked a payment. */
    public long entryOfPayment(long paymentId) {
        return jdbc.sql("""
                SELECT id FROM journal_entry WHERE movement_id = :payment AND event IN ('PAYMENT', 'DEPOSIT') ORDER BY id LIMIT 1
                """).param("payment", paymentId).query(Long.class).single();
    }

    /** The journal, newest first, from before an id. */
    public List<Booked> journal(long before, int most) {
        return entries("WHERE id < :invoice ORDER BY id DESC", most, "", before);
    }

    /** What was booked of some movements, in its order. */
    public List<Booked> ofMovements(Collection<Long> ids) {
        return ids.isEmpty() ? List.of() : entries("WHERE movement_id IN (:invoice) ORDER BY id", 200, "", ids);
    }

    private List<Booked> entries(String which, int most, String event, Object id) {
        var statement = jdbc.sql("""
                SELECT id, event, booked_on, text, client_id, reverses_id, who FROM journal_entry
                """ + which + " LIMIT :most");
        if (which.contains(":event")) {
            statement = statement.param("event", event);
        }
        return statement
                .param("invoice", id)
                .param("most", most)
                .query((rs, n) -> new Booked(
                        rs.getLong("id"),
                        Entry.Event.valueOf(rs.getString("event")),
                        rs.getDate("booked_on").toLocalDate(),
                        rs.getString("text"),
                        Ids.client(rs, "client_id"),
                        rs.getObject("reverses_id", Long.class),
                        rs.getString("who"),
                        List.of()))
                .list()
                .stream()
                .map(b -> new Booked(
                        b.id(), b.event(), b.on(), b.text(), b.clientId(), b.reverses(), b.who(), postings(b.id())))
                .toList();
    }

    private List<BookedPosting> postings(long entryId) {
        return jdbc.sql("""
                SELECT account, detail, category, currency, amount_minor FROM posting WHERE entry_id = :entry ORDER BY id
                """)
                .param("entry", entryId)
                .query((rs, n) -> new BookedPosting(
                        Account.valueOf(rs.getString("account")),
                        rs.getString("detail"),
                        rs.getString("category"),
                        money(rs.getString("currency"), rs.getLong("amount_minor"))))
                .list();
    }

    /**
     * What a client owes by the postings: receivable less client credit and deposits held, below zero where the
     * client is owed.
     */
    public Money balanceOf(ClientId clientId, CurrencyUnit currency) {
        return sum(clientId, currency, Account.RECEIVABLE)
                .plus(sum(clientId, currency, Account.CLIENT_CREDIT))
                .plus(sum(clientId, currency, Account.CLIENT_DEPOSITS));
    }

    /** Money received from a client that no debt has taken yet: zero or more. */
    public Money creditOf(ClientId clientId, CurrencyUnit currency) {
        return sum(clientId, currency, Account.CLIENT_CREDIT).negated();
    }

    /** Money held for work to come: zero or more. */
    public Money depositsOf(ClientId clientId, CurrencyUnit currency) {
        return sum(clientId, currency, Account.CLIENT_DEPOSITS).negated();
    }

    /** Deposits held, by client; those without any are not in it. */
    public Map<ClientId, Money> depositsByClient(CurrencyUnit currency) {
        Map<ClientId, Money> deposits = new HashMap<>();
        jdbc.sql("""
                SELECT client_id, -SUM(amount_minor) AS minor FROM posting
                 WHERE account = 'CLIENT_DEPOSITS' AND currency = :currency
                 GROUP BY client_id HAVING SUM(amount_minor) <> 0
                """).param("currency", currency.getCode()).query(rs -> {
            deposits.put(new ClientId(rs.getLong("client_id")), Money.ofMinor(currency, rs.getLong("minor")));
        });
        return deposits;
    }

    /** What an account holds for one client by its postings. */
    public Money sum(ClientId clientId, CurrencyUnit currency, Account account) {
        long minor = jdbc.sql("""
                SELECT COALESCE(SUM(amount_minor), 0) FROM posting
                 WHERE client_id = :client AND account = :account AND currency = :currency
                """)
                .param("client", clientId)
                .param("account", account)
                .param("currency", currency.getCode())
                .query(Long.class)
                .single();
        return Money.ofMinor(currency, minor);
    }

    /** What each client owes by the postings, in each currency, by its code; clients without any are not in it. */
    public Map<ClientId, SortedMap<String, Money>> balancesByClient() {
        Map<ClientId, SortedMap<String, Long>> minor = new HashMap<>();
        jdbc.sql("""
                SELECT client_id, currency, amount_minor FROM posting
                 WHERE account IN ('RECEIVABLE', 'CLIENT_CREDIT', 'CLIENT_DEPOSITS')
                """).query(rs -> {
            minor.computeIfAbsent(new ClientId(rs.getLong(1)), k -> new TreeMap<>())
                    .merge(rs.getString(2), rs.getLong(3), Math::addExact);
        });
        Map<ClientId, SortedMap<String, Money>> balances = new HashMap<>();
        minor.forEach((client, sums) -> {
            SortedMap<String, Money> owes = new TreeMap<>();
            sums.forEach((currency, sum) -> owes.put(currency, money(currency, sum)));
            balances.put(client, owes);
        });
        return balances;
    }

    /**
     * Every account's balance.
     *
     * @param own in the own currency; together they are zero
     * @param inOthers what of them is in each other currency, in that; those of a currency are together zero
     */
    public record Balances(List<Balance> own, List<Balance> inOthers) {}

    /** All balances, by account and detail, from one reading of the postings. */
    public Balances balances() {
        CurrencyUnit own = business.business().currencyUnit();
        Map<Standing, Long> values = new HashMap<>();
        Map<Standing, Long> others = new HashMap<>();
        // Added up here: grouped by H2 it takes three times as long.
        jdbc.sql("SELECT account, detail, currency, amount_minor, own_minor FROM posting")
                .query(rs -> {
                    String account = rs.getString(1);
                    String detail = rs.getString(2);
                    String currency = rs.getString(3);
                    values.merge(new Standing(account, detail, own.getCode()), rs.getLong(5), Math::addExact);
                    if (!currency.equals(own.getCode())) {
                        others.merge(new Standing(account, detail, currency), rs.getLong(4), Math::addExact);
                    }
                });
        return new Balances(balances(values), balances(others));
    }

    /** Where an amount stands. */
    private record Standing(String account, String detail, String currency) {}

    private static final Comparator<Standing> IN_ORDER = Comparator.comparing(Standing::account)
            .thenComparing(Standing::detail)
            .thenComparing(Standing::currency);

    private static List<Balance> balances(Map<Standing, Long> minor) {
        return minor.entrySet().stream()
                .sorted(Map.Entry.comparingByKey(IN_ORDER))
                .map(e -> new Balance(
                        Account.valueOf(e.getKey().account()),
                        e.getKey().detail(),
                        money(e.getKey().currency(), e.getValue())))
                .toList();
    }

    /** Currencies, other than the own one, in which anything was booked for a client. */
    public List<CurrencyUnit> otherCurrenciesOf(ClientId clientId) {
        return jdbc
                .sql("SELECT DISTINCT currency FROM posting WHERE client_id = :client ORDER BY currency")
                .param("client", clientId)
                .query(String.class)
                .list()
                .stream()
                .filter(c -> !c.equals(business.business().currency()))
                .map(CurrencyUnit::of)
                .toList();
    }

    /** The account of a client, oldest first, with the running balance. */
    public List<ClientAccount.Row> accountOf(ClientId clientId, CurrencyUnit currency) {
        List<ClientAccount.Movement> movements = jdbc.sql("""
                SELECT e.id, e.booked_on, e.text, SUM(p.amount_minor) AS change
                  FROM journal_entry e JOIN posting p ON p.entry_id = e.id
                 WHERE e.client_id = :client AND p.currency = :currency
                   AND p.account IN ('RECEIVABLE', 'CLIENT_CREDIT', 'CLIENT_DEPOSITS')
                 GROUP BY e.id, e.booked_on, e.text
                 ORDER BY e.id
                """)
                .param("client", clientId)
                .param("currency", currency.getCode())
                .query((rs, n) -> new ClientAccount.Movement(
                        rs.getLong("id"),
                        rs.getDate("booked_on").toLocalDate(),
                        rs.getString("text"),
                        "",
                        Money.ofMinor(currency, rs.getLong("change"))))
                .list();
        return ClientAccount.of(currency, movements);
    }

    private static Money money(String currency, long minor) {
        return Money.ofMinor(CurrencyUnit.of(currency), minor);
    }
}
