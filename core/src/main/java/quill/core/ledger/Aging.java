package quill.core.ledger;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.money.Amounts;

/**
 * Open money by days past due, each debt by its own due date: not due, 1-30, 31-60, 61-90, over 90 (common practice).
 *
 * @param sums a sum for every band, zero where nothing is open in it
 */
public record Aging(Map<Band, Money> sums) {
    /** A band of days past due. */
    public enum Band {
        NOT_DUE("not due", 0),
        DAYS_1_30("1–30 days", 30),
        DAYS_31_60("31–60 days", 60),
        DAYS_61_90("61–90 days", 90),
        OVER_90("over 90 days", Long.MAX_VALUE);

        private final String words;
        private final long last;

        Band(String words, long last) {
            this.words = words;
            this.last = last;
        }

        /** The band, for people. */
        public String words() {
            return words;
        }

        /** The band of a debt so many days late; on the due date itself nothing is late. */
        public static Band of(long daysLate) {
            for (Band band : values()) {
                if (daysLate <= band.last) {
                    return band;
                }
            }
            throw new IllegalStateException("no band for " + daysLate);
        }
    }

    /** Copies the sums. */
    public Aging {
        sums = new EnumMap<>(sums);
    }

    /** Sorts open debts, all in one currency, into the bands as they stand on a day. */
    public static Aging of(CurrencyUnit currency, Collection<OpenDebt> debts, LocalDate today) {
        Map<Band, List<Money>> bands = new EnumMap<>(Band.class);
        for (Band band : Band.values()) {
            bands.put(band, new ArrayList<>());
        }
        debts.forEach(
                d -> bands.get(Band.of(Standing.daysLate(d.dueOn(), today))).add(d.open()));
        Map<Band, Money> sums = new EnumMap<>(Band.class);
        bands.forEach((band, amounts) -> sums.put(band, Amounts.sum(currency, amounts)));
        return new Aging(sums);
    }

    /** What is open in one band. */
    public Money in(Band band) {
        return sums.get(band);
    }

    /** All bands together. */
    public Money total() {
        return sums.values().stream().reduce(Money::plus).orElseThrow();
    }
}
