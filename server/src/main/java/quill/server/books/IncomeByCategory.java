package quill.server.books;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.TreeMap;
import java.util.TreeSet;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.business.BusinessService;

/**
 * What invoices brought in, without tax and less what was credited, by the business's own categories and by year. Table
 * POSTING, read only. Categories that differ by capitals alone are one. Late-fee income has no category and is not in it.
 */
@Repository
public class IncomeByCategory {
    private final JdbcClient jdbc;
    private final BusinessService business;

    IncomeByCategory(JdbcClient jdbc, BusinessService business) {
        this.jdbc = jdbc;
        this.business = business;
    }

    /** @param years in order @param rows by category, what has none last */
    public record Report(List<Integer> years, List<Row> rows) {}

    /** @param category empty for what has none @param years of each year of the report, in the own currency */
    public record Row(String category, List<Money> years) {}

    private record Sum(int year, String category, long minor) {}

    /** All years in which something was booked. No rows where no line ever had a category. */
    public Report report() {
        List<Sum> sums = jdbc.sql("""
                SELECT EXTRACT(YEAR FROM e.booked_on) AS booked_year, p.category, -SUM(p.own_minor) AS minor
                  FROM posting p JOIN journal_entry e ON e.id = p.entry_id
                 WHERE p.account = 'INCOME'
                 GROUP BY booked_year, p.category HAVING SUM(p.own_minor) <> 0
                 ORDER BY booked_year, p.category
                """)
                .query((rs, n) -> new Sum(rs.getInt(1), rs.getString(2), rs.getLong(3)))
                .list();
        if (sums.stream().allMatch(s -> s.category().isEmpty())) {
            return new Report(List.of(), List.of());
        }
        List<Integer> years =
                new ArrayList<>(new TreeSet<>(sums.stream().map(Sum::year).toList()));
        Money zero = Money.zero(business.business().currencyUnit());
        TreeMap<String, List<Money>> rows = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        for (Sum sum : sums) {
            List<Money> ofYears =
                    rows.computeIfAbsent(sum.category(), c -> new ArrayList<>(Collections.nCopies(years.size(), zero)));
            int place = years.indexOf(sum.year());
            ofYears.set(place, ofYears.get(place).plusMinor(sum.minor()));
        }
        List<Money> none = rows.remove("");
        List<Row> ordered = new ArrayList<>();
        rows.forEach((category, amounts) -> ordered.add(new Row(category, amounts)));
        if (none != null) {
            ordered.add(new Row("", none));
        }
        return new Report(years, ordered);
    }
}
