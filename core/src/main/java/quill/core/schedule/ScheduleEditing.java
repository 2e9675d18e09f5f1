package quill.core.schedule;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.core.money.TypedNumber;

/**
 * Changes a schedule that is being written: several installments at one stroke, one more, all equal, a division moved.
 * What a person typed stays text; only what changes is written anew.
 */
public final class ScheduleEditing {
    private static final Pattern TIMES = Pattern.compile("(\\d{1,6}) ?[x×]");
    private static final Pattern PERCENTS =
            Pattern.compile("\\d{1,3}(?:\\.\\d{1,4})?%?(?: ?/ ?\\d{1,3}(?:\\.\\d{1,4})?%?)+");
    private static final String EQUAL = "equal";
    private static final String MONTHLY = new Due.Monthly(null).typed();
    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    private final List<TypedTerm> terms;
    private final Money due;
    private final LocalDate issuedOn;

    /** @param due what is split; above zero @param issuedOn the day from which days count */
    public ScheduleEditing(List<TypedTerm> terms, Money due, LocalDate issuedOn) {
        this.terms = List.copyOf(terms);
        this.due = due;
        this.issuedOn = issuedOn;
    }

    /** Whether a share stands for several installments: {@code 12x}, or {@code 30/40/30}. */
    public static boolean isSeveral(String share) {
        String typed = share.strip().toLowerCase(Locale.ROOT);
        return TIMES.matcher(typed).matches() || PERCENTS.matcher(typed).matches();
    }

    /**
     * Puts several installments in the place of one: {@code 12x} is twelve equal ones, {@code 30/40/30} three by
     * percentages. The first falls due when the one did, each other a month later, or as it can go on.
     *
     * @throws RefusedException naming the share, for less than 2 or more than there may be
     */
    public List<TypedTerm> several(int place, String share) {
        if (place < 0 || place >= terms.size() || share == null || !isSeveral(share)) {
            throw new RefusedException(
                    "schedule[" + place + "].share",
                    share,
                    "write 12x for equal ones, or percentages such as 30/40/30");
        }
        String typed = share.strip().toLowerCase(Locale.ROOT);
        List<String> shares = shares(typed);
        int most = ScheduleMaking.MAX - (terms.size() - 1);
        if (shares.size() < 2 || shares.size() > most) {
            throw new RefusedException(
                    "schedule[" + place + "].share", share, "from 2 to " + most + " installments, such as 12x");
        }
        List<TypedTerm> all = new ArrayList<>(terms.subList(0, place));
        TypedTerm was = terms.get(place);
        String after = following(was.days());
        for (int i = 0; i < shares.size(); i++) {
            all.add(new TypedTerm(was.deposit() && i == 0, shares.get(i), i == 0 ? was.days() : after));
        }
        all.addAll(terms.subList(place + 1, terms.size()));
        return all;
    }

    private List<String> shares(String typed) {
        Matcher times = TIMES.matcher(typed);
        if (times.matches()) {
            // More than there may be is refused by its number; no list of it is made.
            int count = Math.min(Integer.parseInt(times.group(1)), ScheduleMaking.MAX + 1);
            return Collections.nCopies(count, EQUAL);
        }
        List<String> shares = new ArrayList<>();
        for (String percent : typed.split("/")) {
            shares.add(TypedNumber.withoutSign(percent) + "%");
        }
        return shares;
    }

    /**
     * One more, a month after the last. Equal ones stay equal, with the new one among them; else it is taken from the one
     * that takes the rest, or from the last.
     */
    public List<TypedTerm> add() {
        List<TypedTerm> all = new ArrayList<>(terms);
        if (all.size() >= ScheduleMaking.MAX) {
            throw new RefusedException("schedule", all.size(), "at most " + ScheduleMaking.MAX + " installments");
        }
        int last = all.size() - 1;
        String next = following(all.get(last).days());
        int rest = placeOf("rest");
        if (rest >= 0) {
            all.set(rest, all.get(rest).with(EQUAL));
        } else if (placeOf(EQUAL) < 0) {
            List<String> halves = halves(last);
            all.set(last, all.get(last).with(halves.get(0)));
            all.add(new TypedTerm(false, halves.get(1), next));
            return all;
        }
        all.add(new TypedTerm(false, EQUAL, next));
        return all;
    }

    private int placeOf(String word) {
        for (int i = 0; i < terms.size(); i++) {
            if (word.equalsIgnoreCase(text(terms.get(i).share()))) {
                return i;
            }
        }
        return -1;
    }

    /** The last share in two: an odd ten-thousandth of a percent, or an odd minor unit, stays with the first. */
    private List<String> halves(int place) {
        Share share = share(place);
        if (share instanceof Share.OfPercent p) {
            BigDecimal half = p.percent().rate().divide(BigDecimal.valueOf(2), 4, RoundingMode.UP);
            return List.of(percent(half), percent(p.percent().rate().subtract(half)));
        }
        if (share instanceof Share.OfAmount a) {
            List<Money> two = Split.equally(a.amount(), 2);
            return List.of(Amounts.plain(two.get(0)), Amounts.plain(two.get(1)));
        }
        throw new RefusedException(
                "schedule[" + place + "].share",
                terms.get(place).share(),
                "must be mended before one more is taken from it");
    }

    /** All equal but a deposit, which stays as it is. */
    public List<TypedTerm> equal() {
        return terms.stream().map(t -> t.deposit() ? t : t.with(EQUAL)).toList();
    }

    /**
     * Moves the division between an installment and the next: to a whole percent, or a whole unit where either is a fixed
     * sum. The one that takes the rest, or equal ones, take what is left.
     *
     * @param place of the first of the two
     * @param thousandths where the division stands, of the whole
     * @throws RefusedException where it would leave nothing of one of them
     */
    public List<TypedTerm> divide(int place, int thousandths) {
        if (place < 0 || place + 1 >= terms.size()) {
            throw new RefusedException("place", place, "there is a division after every installment but the last");
        }
        List<Installment> now = ScheduleMaking.make(due, issuedOn, read(terms));
        BigDecimal edge =
                due.getAmount().multiply(BigDecimal.valueOf(thousandths)).movePointLeft(3);
        for (Installment above : now.subList(0, place)) {
            edge = edge.subtract(above.amount().getAmount());
        }
        List<TypedTerm> all = new ArrayList<>(terms);
        boolean sums = share(place) instanceof Share.OfAmount || share(place + 1) instanceof Share.OfAmount;
        if (sums) {
            moveSums(all, place, edge, now);
        } else {
            movePercents(all, place, edge.multiply(HUNDRED).divide(due.getAmount(), 4, RoundingMode.HALF_UP), now);
        }
        ScheduleMaking.make(due, issuedOn, read(all));
        return all;
    }

    /** @param left what the first of the two shall have, before it is rounded to a whole unit */
    private void moveSums(List<TypedTerm> all, int place, BigDecimal left, List<Installment> now) {
        Money one = now.get(place).amount();
        Money other = now.get(place + 1).amount();
        Money moved = Money.of(due.getCurrencyUnit(), left.setScale(0, RoundingMode.HALF_UP))
                .minus(one);
        if (isDefinite(place)) {
            all.set(place, all.get(place).with(Amounts.plain(one.plus(moved))));
        }
        if (isDefinite(place + 1)) {
            all.set(place + 1, all.get(place + 1).with(Amounts.plain(other.minus(moved))));
        }
    }

    /** @param left what the first of the two shall have, in percent, before it is rounded to a whole one */
    private void movePercents(List<TypedTerm> all, int place, BigDecimal left, List<Installment> now) {
        if (share(place + 1) instanceof Share.OfPercent other) {
            BigDecimal had = share(place) instanceof Share.OfPercent one
                    ? one.percent().rate()
                    : percentOf(now.get(place).amount());
            BigDecimal both = had.add(other.percent().rate());
            BigDecimal first = share(place) instanceof Share.OfPercent
                    ? left.setScale(0, RoundingMode.HALF_UP)
                    : both.subtract(both.subtract(left).setScale(0, RoundingMode.HALF_UP));
            all.set(place + 1, all.get(place + 1).with(percent(both.subtract(first))));
            if (!isDefinite(place)) {
                return;
            }
        }
        all.set(place, all.get(place).with(percent(left.setScale(0, RoundingMode.HALF_UP))));
    }

    private BigDecimal percentOf(Money amount) {
        return amount.getAmount().multiply(HUNDRED).divide(due.getAmount(), 4, RoundingMode.HALF_UP);
    }

    /** Whether a share says itself what it is, rather than taking what others leave. */
    private boolean isDefinite(int place) {
        return share(place) instanceof Share.OfPercent || share(place) instanceof Share.OfAmount;
    }

    private Share share(int place) {
        List<Problem> problems = new ArrayList<>();
        Share share =
                Term.share("schedule[" + place + "].share", terms.get(place).share(), due.getCurrencyUnit(), problems);
        if (share == null) {
            throw new RefusedException(problems);
        }
        return share;
    }

    private List<Term> read(List<TypedTerm> typed) {
        List<Problem> problems = new ArrayList<>();
        List<Term> read = Term.readAll(typed, due.getCurrencyUnit(), issuedOn, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return read;
    }

    /** How it goes on after one of these. */
    private String following(String days) {
        Due last = DueReading.read("", days, issuedOn, new ArrayList<>());
        if (last instanceof Due.AtMilestone || last instanceof Due.NoDateYet) {
            return new Due.NoDateYet().typed();
        }
        return last instanceof Due.TwiceAMonth twice
                ? new Due.TwiceAMonth(twice.one(), twice.other(), null).typed()
                : MONTHLY;
    }

    private static String percent(BigDecimal rate) {
        return rate.stripTrailingZeros().toPlainString() + "%";
    }

    private static String text(String typed) {
        return typed == null ? "" : typed.strip();
    }
}
