package quill.server.business;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;
import quill.core.money.Exchange;
import quill.core.money.TypedNumber;
import quill.server.common.BusinessClock;

/** Table EXCHANGE_RATE: what 1 of another currency is in the own one, from a day on. Noted by a person. */
@Service
public class Rates {
    private final JdbcClient jdbc;
    private final BusinessService business;
    private final BusinessClock clock;

    Rates(JdbcClient jdbc, BusinessService business, BusinessClock clock) {
        this.jdbc = jdbc;
        this.business = business;
        this.clock = clock;
    }

    /** A rate. @param fromOn ISO date from which it holds; empty for today */
    public record Rate(String currency, String fromOn, String rate) {}

    /** All rates, by currency and newest first. */
    public List<Rate> all() {
        return jdbc.sql("SELECT currency, from_on, rate FROM exchange_rate ORDER BY currency, from_on DESC")
                .query((rs, n) -> new Rate(
                        rs.getString(1),
                        rs.getDate(2).toLocalDate().toString(),
                        rs.getBigDecimal(3).stripTrailingZeros().toPlainString()))
                .list();
    }

    /** Notes one; a second for the same day takes the place of the first. @throws RefusedException with all slips */
    @Transactional
    public void note(Rate rate) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit own = business.business().currencyUnit();
        CurrencyUnit currency = TypedNumber.currency("currency", rate.currency(), problems);
        if (own.equals(currency)) {
            problems.add(new Problem("currency", rate.currency(), "is the currency of your books; choose another"));
        }
        BigDecimal value = TypedNumber.read("rate", rate.rate(), 10, false, problems);
        if (value != null && Exchange.refusalOf(value) != null) {
            problems.add(new Problem("rate", rate.rate(), Exchange.refusalOf(value)));
        }
        LocalDate typed = TypedDate.read("fromOn", rate.fromOn(), problems);
        LocalDate from = typed == null ? clock.today() : typed;
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        jdbc.sql("MERGE INTO exchange_rate (currency, from_on, rate) KEY (currency, from_on) VALUES (:c, :from, :rate)")
                .param("c", currency.getCode())
                .param("from", from)
                .param("rate", value)
                .update();
    }

    /** The latest rate of each currency on a day. */
    public Map<CurrencyUnit, BigDecimal> on(LocalDate day) {
        Map<CurrencyUnit, BigDecimal> rates = new HashMap<>();
        jdbc.sql("SELECT currency, rate FROM exchange_rate WHERE from_on <= :day ORDER BY currency, from_on")
                .param("day", day)
                .query(rs -> {
                    rates.put(CurrencyUnit.of(rs.getString(1)), rs.getBigDecimal(2));
                });
        return rates;
    }

    /** How amounts of a currency are booked on a day; empty where no rate was ever noted. */
    public Optional<Exchange> exchange(CurrencyUnit currency, LocalDate day) {
        CurrencyUnit own = business.business().currencyUnit();
        return currency.equals(own)
                ? Optional.of(Exchange.none(own))
                : Optional.ofNullable(on(day).get(currency)).map(r -> new Exchange(own, r));
    }

    /** Notes a document's rate where the currency has none yet, so that its payments can be booked. */
    @Transactional
    public void noteFirst(CurrencyUnit currency, LocalDate day, Exchange exchange) {
        if (!currency.equals(exchange.own()) && !on(day).containsKey(currency)) {
            note(new Rate(currency.getCode(), day.toString(), exchange.rate().toPlainString()));
        }
    }
}
