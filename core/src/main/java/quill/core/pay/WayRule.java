package quill.core.pay;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.TypedWord;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

/**
 * When a way to pay is offered, what it costs and when its money is there.
 *
 * @param currencies that it takes; empty for all
 * @param countries of clients that it is offered in; empty for all
 * @param smallest in the own currency; null for none
 * @param ceiling in the own currency; null for none
 * @param fee of what is paid
 * @param fixed for each payment, in the currency that is paid
 * @param days working days until the money arrives
 */
public record WayRule(
        WayToPay way,
        boolean on,
        Set<String> currencies,
        Set<String> countries,
        Money smallest,
        Money ceiling,
        Percent fee,
        BigDecimal fixed,
        int days) {
    /** Working days until a bank debit is certain (common practice). */
    public static final int DEBIT_DAYS = 3;

    private static final int MOST_DAYS = 60;

    /** Copies the sets. */
    public WayRule {
        currencies = Set.copyOf(currencies);
        countries = Set.copyOf(countries);
    }

    /** What decides whether a way is offered. @param inOwn the same sum in the own currency @param country may be empty */
    public record Asked(Money sum, Money inOwn, String country) {}

    /** Reads the rules of one way; null where a problem was added. @param path before the field in a problem's name */
    public static WayRule read(String path, TypedWay typed, CurrencyUnit own, List<Problem> problems) {
        int before = problems.size();
        WayToPay way = TypedWord.read(path + "way", typed.way(), WayToPay.class, problems);
        Set<String> currencies = currencies(path + "currencies", typed.currencies(), problems);
        Set<String> countries = countries(path + "countries", typed.countries(), problems);
        Money smallest = limit(path + "smallest", typed.smallest(), own, problems);
        Money ceiling = limit(path + "ceiling", typed.ceiling(), own, problems);
        if (smallest != null && ceiling != null && ceiling.isLessThan(smallest)) {
            problems.add(new Problem(
                    path + "ceiling", typed.ceiling(), "must not be below the smallest amount, " + shown(smallest)));
        }
        BigDecimal percent = number(path + "feePercent", typed.feePercent(), 4, 100, problems);
        BigDecimal fixed = number(path + "feeFixed", typed.feeFixed(), own.getDecimalPlaces(), 1000, problems);
        BigDecimal days = number(path + "days", typed.days(), 0, MOST_DAYS, problems);
        return problems.size() > before
                ? null
                : new WayRule(
                        way,
                        typed.on(),
                        currencies,
                        countries,
                        smallest,
                        ceiling,
                        new Percent(percent),
                        fixed,
                        days.intValue());
    }

    private static Set<String> words(String typed) {
        return typed == null || typed.isBlank()
                ? Set.of()
                : Arrays.stream(typed.strip().toUpperCase(Locale.ROOT).split("[\\s,;]+"))
                        .filter(w -> !w.isEmpty())
                        .collect(Collectors.toCollection(TreeSet::new));
    }

    private static Set<String> currencies(String field, String typed, List<Problem> problems) {
        Set<String> all = words(typed);
        all.forEach(c -> TypedNumber.currency(field, c, problems));
        return all;
    }

    private static Set<String> countries(String field, String typed, List<Problem> problems) {
        Set<String> known = Set.of(Locale.getISOCountries());
        Set<String> all = words(typed);
        all.stream()
                .filter(c -> !known.contains(c))
                .forEach(c -> problems.add(new Problem(field, c, "must be codes of two letters, such as IE or GB")));
        return all;
    }

    private static Money limit(String field, String typed, CurrencyUnit own, List<Problem> problems) {
        return typed == null || typed.isBlank() ? null : TypedNumber.amount(field, typed, own, problems);
    }

    private static BigDecimal number(String field, String typed, int decimals, int most, List<Problem> problems) {
        String plain = typed == null || typed.isBlank() ? "0" : typed;
        BigDecimal value = TypedNumber.read(field, plain, decimals, true, problems);
        if (value != null && (value.signum() < 0 || value.compareTo(BigDecimal.valueOf(most)) > 0)) {
            problems.add(new Problem(field, typed, "must be from 0 to " + most));
        }
        return value == null ? BigDecimal.ZERO : value;
    }

    /** Why it is not offered for a sum; empty where it is. The first rule that removes it is named. */
    public String missing(Asked asked) {
        String currency = asked.sum().getCurrencyUnit().getCode();
        if (!on) {
            return "it is switched off";
        }
        if (!currencies.isEmpty() && !currencies.contains(currency)) {
            return "it takes " + named(currencies) + ", not " + currency;
        }
        if (!countries.isEmpty() && !countries.contains(asked.country())) {
            return asked.country().isEmpty()
                    ? "it is offered in " + named(countries) + ", and the client’s country is not known"
                    : "it is offered in " + named(countries) + ", not in " + asked.country();
        }
        if (smallest != null && asked.inOwn().isLessThan(smallest)) {
            return shown(asked.inOwn()) + " is below its smallest amount, " + shown(smallest);
        }
        if (ceiling != null && asked.inOwn().isGreaterThan(ceiling)) {
            return shown(asked.inOwn()) + " is above its ceiling, " + shown(ceiling);
        }
        return "";
    }

    private static String shown(Money sum) {
        return sum.getCurrencyUnit().getCode() + " " + Amounts.grouped(sum);
    }

    private static String named(Set<String> all) {
        return String.join(", ", new TreeSet<>(all));
    }

    /** What it costs the business to take a sum: round(percent) and the fixed sum, never more than the sum itself. */
    public Money cost(Money sum) {
        Money cost = fee.of(sum).plus(Money.of(sum.getCurrencyUnit(), fixed, RoundingMode.HALF_UP));
        return Amounts.min(cost, sum);
    }

    /** How that is reckoned: {@code 2.9% of 726.00 + 0.30}. */
    public String costWords(Money sum) {
        String percent = fee.rate().signum() == 0
                ? ""
                : fee.rate().stripTrailingZeros().toPlainString() + "% of " + Amounts.grouped(sum);
        String plain = fixed.signum() == 0
                ? ""
                : Amounts.grouped(Money.of(sum.getCurrencyUnit(), fixed, RoundingMode.HALF_UP));
        return percent.isEmpty() || plain.isEmpty() ? percent + plain : percent + " + " + plain;
    }

    /** When money that is paid on a day is there: so many days later, not counting weekends. */
    public LocalDate arrives(LocalDate paidOn) {
        return workingDaysAfter(paidOn, days);
    }

    /** So many days later, not counting weekends. */
    public static LocalDate workingDaysAfter(LocalDate from, int days) {
        LocalDate day = from;
        for (int left = days; left > 0; ) {
            day = day.plusDays(1);
            if (day.getDayOfWeek() != DayOfWeek.SATURDAY && day.getDayOfWeek() != DayOfWeek.SUNDAY) {
                left--;
            }
        }
        return day;
    }
}
