package quill.core.quote;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.Extent;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedExtra;
import quill.core.issued.IssuedLine;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.tax.Tax;

/**
 * Writes the draft of an invoice that bills a part of an accepted quote: a percentage of the whole, a quantity of some
 * lines, or all that is left. The parts sum to the quote to the cent: each share of a discount or a charge is
 * round(cumulative) less what was billed before, and the last takes what is left of each line.
 */
public final class Staging {
    private final Agreed agreed;
    private final CurrencyUnit currency;
    private final boolean relieved;

    private Staging(Agreed agreed) {
        this.agreed = agreed;
        this.relieved = agreed.chosen().taxInside() && !agreed.quote().sums().taxInside();
        this.currency = agreed.currency();
    }

    /** A percentage of the whole. @throws RefusedException naming {@code percent} for more than is left of every line */
    public static TypedDraft ofPercent(Agreed agreed, Percent percent) {
        Staging staging = new Staging(agreed);
        List<TypedLine> lines = new ArrayList<>();
        for (int i = 0; i < agreed.quote().lines().size(); i++) {
            Money part = staging.atMost(percent.of(agreed.quote().lines().get(i).net()), agreed.left(i));
            if (!part.isZero()) {
                lines.add(staging.sum(i, percent + " of ", part));
            }
        }
        if (lines.isEmpty()) {
            throw new RefusedException("percent", percent, "nothing is left of the quote to bill");
        }
        return staging.draft(lines, staging.extras(true, percent, null), staging.extras(false, percent, null));
    }

    /**
     * Quantities of some lines.
     *
     * @param quantities by the line's place in the quote, from 0
     * @throws RefusedException naming {@code lines[i].quantity}, with what is left
     */
    public static TypedDraft ofLines(Agreed agreed, Map<Integer, BigDecimal> quantities) {
        Staging staging = new Staging(agreed);
        List<Problem> problems = new ArrayList<>();
        List<TypedLine> lines = new ArrayList<>();
        Map<Integer, Money> billing = new TreeMap<>();
        new TreeMap<>(quantities).forEach((place, quantity) -> {
            if (quantity.signum() != 0) {
                staging.line(place, quantity, lines, billing, problems);
            }
        });
        if (lines.isEmpty() && problems.isEmpty()) {
            problems.add(new Problem("lines", "", "say how much of at least one line is to be billed"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return staging.draft(lines, staging.extras(true, null, billing), List.of());
    }

    /** All that is left. @throws RefusedException where nothing is */
    public static TypedDraft ofRest(Agreed agreed) {
        Staging staging = new Staging(agreed);
        List<TypedLine> lines = new ArrayList<>();
        boolean done = !agreed.invoices().isEmpty() && agreed.left().stream().allMatch(Money::isZero);
        for (int i = 0; i < agreed.quote().lines().size() && !done; i++) {
            Money left = agreed.left(i);
            if (agreed.billed(i).isZero()) {
                lines.add(staging.asAgreed(i));
            } else if (!left.isZero()) {
                lines.add(staging.sum(i, "Rest of ", left));
            }
        }
        if (lines.isEmpty()) {
            throw new RefusedException("what", "rest", "all of this quote is billed");
        }
        return staging.draft(lines, staging.extras(true, null, null), staging.extras(false, null, null));
    }

    /** What is left of a line in its own unit; null where so much is not left in whole, but a sum. */
    public static BigDecimal quantityLeft(Agreed agreed, int line) {
        IssuedLine of = agreed.quote().lines().get(line);
        if (agreed.billed(line).isZero()) {
            return of.quantity();
        }
        if (of.net().isZero()) {
            return BigDecimal.ZERO;
        }
        BigDecimal left = of.quantity()
                .multiply(agreed.left(line).getAmount())
                .divide(of.net().getAmount(), 6, RoundingMode.HALF_UP)
                .stripTrailingZeros();
        return Amounts.share(of.net(), left, of.quantity()).isEqual(agreed.left(line)) ? left : null;
    }

    private TypedLine typed(int line) {
        int place = agreed.places().get(line);
        return agreed.chosen().lines().get(place).billing(place);
    }

    /** The tax inside a price is not charged to an exempt client: what is left of such a line can only be said as a sum. */
    private TypedLine asAgreed(int line) {
        return relieved ? sum(line, "", agreed.left(line)) : typed(line);
    }

    /** A part of a line as a sum: one of it, at what it comes to. */
    private TypedLine sum(int line, String before, Money part) {
        return typed(line)
                .sum(
                        agreed.quote().lines().get(line).category(),
                        before + agreed.quote().lines().get(line).description(),
                        part.isNegative() ? "-1" : "1",
                        Amounts.plain(part.abs()));
    }

    private Money atMost(Money part, Money left) {
        return part.abs().isGreaterThan(left.abs()) ? left : part;
    }

    private void line(
            int place,
            BigDecimal quantity,
            List<TypedLine> lines,
            Map<Integer, Money> billing,
            List<Problem> problems) {
        String field = "lines[" + place + "].quantity";
        if (place < 0 || place >= agreed.quote().lines().size()) {
            problems.add(new Problem(field, String.valueOf(place), "there is no such line"));
            return;
        }
        IssuedLine of = agreed.quote().lines().get(place);
        Money left = agreed.left(place);
        BigDecimal quantityLeft = quantityLeft(agreed, place);
        BigDecimal most = quantityLeft == null
                ? of.quantity().multiply(left.getAmount()).divide(of.net().getAmount(), 6, RoundingMode.DOWN)
                : quantityLeft;
        if (quantity.signum() != most.signum() || quantity.abs().compareTo(most.abs()) > 0) {
            problems.add(new Problem(
                    field,
                    quantity.toPlainString(),
                    most.signum() == 0
                            ? "all of this line is billed"
                            : "must be above zero and at most "
                                    + most.stripTrailingZeros().toPlainString() + ", what is left of the line"));
            return;
        }
        Money part = quantity.compareTo(most) == 0 && quantityLeft != null
                ? left
                : Amounts.share(of.net(), quantity, of.quantity());
        billing.put(place, part);
        TypedLine whole = typed(place);
        Money gross = Amounts.round(currency, quantity.multiply(of.unitPrice()));
        // Its own price says it, unless the cents of the parts before, or a discount of a fixed sum, make it otherwise.
        boolean plain = !relieved
                && of.discount().of(gross).isEqual(gross.minus(part))
                && !(of.discount() instanceof Extent.OfAmount);
        lines.add(
                plain
                        ? whole.some(quantity.stripTrailingZeros().toPlainString(), whole.discount())
                        : sum(
                                place,
                                quantity.stripTrailingZeros().toPlainString()
                                        + (of.unit().isEmpty() ? "" : " " + of.unit()) + " of ",
                                part));
    }

    /** What a discount or a charge comes to in one set of taxes, all of the same words together. */
    private record Share(String words, int group, Money amount) {}

    private static List<Share> shares(IssuedDocument document, boolean discounts) {
        List<IssuedExtra> extras =
                discounts ? document.body().discounts() : document.body().charges();
        List<Share> shares = new ArrayList<>();
        for (IssuedExtra extra : extras) {
            for (IssuedExtra.Part part : extra.parts()) {
                Money sum = part.amount();
                Share before = null;
                for (Share s : shares) {
                    before = s.words.equals(extra.description()) && s.group == part.group() ? s : before;
                }
                shares.remove(before);
                shares.add(
                        new Share(extra.description(), part.group(), before == null ? sum : before.amount.plus(sum)));
            }
        }
        return shares;
    }

    /**
     * Discounts or charges, for each set of taxes apart.
     *
     * @param percent of each; null for what the lines ask for
     * @param billing what is billed now of the quote's lines: a discount goes with them; null for all that is left
     */
    private List<TypedExtra> extras(boolean discounts, Percent percent, Map<Integer, Money> billing) {
        List<TypedExtra> extras = new ArrayList<>();
        for (Share share : shares(agreed.quote(), discounts)) {
            Money left = share.amount.minus(billed(share, discounts));
            Money now = percent != null
                    ? atMost(percent.of(share.amount), left)
                    : billing == null ? left : withLines(share, left, billing);
            if (!now.isZero()) {
                extras.add(new TypedExtra(share.words, Amounts.plain(now), taxesOf(share.group)));
            }
        }
        return extras;
    }

    /** As they were typed: an exempt client's lines are issued under another. */
    private List<String> taxesOf(int group) {
        for (int i = 0; i < agreed.quote().lines().size(); i++) {
            if (agreed.quote().lines().get(i).group() == group) {
                return typed(i).taxes();
            }
        }
        return ids(agreed.quote(), group);
    }

    private static List<String> ids(IssuedDocument document, int group) {
        return document.sums().groups().get(group).taxes().stream().map(Tax::id).toList();
    }

    /** A discount goes with the lines that it lowers, by what is billed of them so far. */
    private Money withLines(Share share, Money left, Map<Integer, Money> billing) {
        Money whole = Money.zero(currency);
        Money cumulative = Money.zero(currency);
        for (int i = 0; i < agreed.quote().lines().size(); i++) {
            if (group(i) == share.group) {
                whole = whole.plus(agreed.quote().lines().get(i).net());
                cumulative = cumulative.plus(agreed.billed(i)).plus(billing.getOrDefault(i, Money.zero(currency)));
            }
        }
        Money zero = Money.zero(currency);
        if (whole.isZero() || billing.keySet().stream().noneMatch(i -> group(i) == share.group)) {
            return zero;
        }
        Money before = share.amount.minus(left);
        Money now = atMost(
                Amounts.share(share.amount, cumulative.getAmount(), whole.getAmount())
                        .minus(before),
                left);
        return now.isNegative() == share.amount.isNegative() ? now : zero;
    }

    private int group(int line) {
        return agreed.quote().lines().get(line).group();
    }

    /** What invoices have of a discount or a charge already, known by its words and its taxes. */
    private Money billed(Share share, boolean discounts) {
        List<String> taxes = ids(agreed.quote(), share.group);
        return agreed.invoices().stream()
                .map(Agreed.Invoice::document)
                .flatMap(d -> shares(d, discounts).stream()
                        .filter(s ->
                                s.words.equals(share.words) && ids(d, s.group).equals(taxes))
                        .map(Share::amount))
                .reduce(Money.zero(currency), Money::plus);
    }

    private TypedDraft draft(List<TypedLine> lines, List<TypedExtra> discounts, List<TypedExtra> charges) {
        return agreed.chosen()
                .changed()
                .lines(lines)
                .discounts(discounts)
                .charges(charges)
                .taxInside(agreed.chosen().taxInside() && !relieved)
                .offer(null)
                .build();
    }
}
