package quill.core.issued;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.document.Creditable;
import quill.core.document.Income;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.money.Exchange;

/**
 * Everything that a document says, in values, fixed on the day of issue and never changed after. What is printed is
 * derived from it. It is valid, or there is none: whoever reads one back need not check it.
 *
 * @param number empty only while it is looked at before it is written
 * @param corrects for a credit note, what it takes back; else null
 * @param job of which it bills a part; null for what stands for itself
 * @param exchange into the business's own currency; null for a document in that currency
 */
public record IssuedDocument(
        String number,
        LocalDate issuedOn,
        Corrects corrects,
        Party from,
        Party to,
        Matter matter,
        Body body,
        IssuedSums sums,
        Exchange exchange,
        Paying paying,
        Look look,
        Job job) {
    /** One that stands for itself. */
    public IssuedDocument(
            String number,
            LocalDate issuedOn,
            Corrects corrects,
            Party from,
            Party to,
            Matter matter,
            Body body,
            IssuedSums sums,
            Exchange exchange,
            Paying paying,
            Look look) {
        this(number, issuedOn, corrects, from, to, matter, body, sums, exchange, paying, look, null);
    }

    /** The same where nothing is to be transferred for it: it names no bank account. */
    public IssuedDocument withoutAccount() {
        return new IssuedDocument(
                number,
                issuedOn,
                corrects,
                from,
                to,
                matter,
                body,
                sums,
                exchange,
                new Paying("", "", paying.reference(), paying.lateFee()),
                look,
                job);
    }

    /** What is sold, and what lowers or raises it as a whole. */
    public record Body(List<IssuedLine> lines, List<IssuedExtra> discounts, List<IssuedExtra> charges) {
        /** @throws IllegalArgumentException without a line */
        public Body {
            lines = List.copyOf(lines);
            discounts = List.copyOf(discounts);
            charges = List.copyOf(charges);
            if (lines.isEmpty()) {
                throw new IllegalArgumentException("a document has a line at least");
            }
        }

        /** What was reckoned of a draft. @param unitCodes of UN/ECE Recommendation 20, by the business's units */
        public static Body of(Totals t, UnaryOperator<String> unitCodes) {
            return new Body(
                    t.lines().stream()
                            .map(l -> IssuedLine.of(l, unitCodes.apply(l.line().unit())))
                            .toList(),
                    t.discounts().stream().map(IssuedExtra::of).toList(),
                    t.charges().stream().map(IssuedExtra::of).toList());
        }
    }

    /** @throws IllegalArgumentException where lines, discounts and charges are not what the sets of taxes come to */
    public IssuedDocument {
        Stream.of(number, issuedOn, from, to, matter, body, sums, paying, look).forEach(Objects::requireNonNull);
        for (int i = 0; i < sums.groups().size(); i++) {
            check(i, sums.groups().get(i), body);
        }
        int groups = sums.groups().size();
        if (body.lines().stream().anyMatch(l -> l.group() < 0 || l.group() >= groups)) {
            throw new IllegalArgumentException("a line stands in a set of taxes that the document does not have");
        }
    }

    private static void check(int group, TaxGroup said, Body body) {
        Money zero = Money.zero(said.net().getCurrencyUnit());
        Money lines = body.lines().stream()
                .filter(l -> l.group() == group)
                .map(IssuedLine::net)
                .reduce(zero, Money::plus);
        Money sum = lines.minus(partsOf(body.discounts(), group, zero)).plus(partsOf(body.charges(), group, zero));
        if (!sum.isEqual(said.sum())) {
            throw new IllegalArgumentException(
                    "what stands in set " + group + " sums to " + sum + ", not " + said.sum());
        }
    }

    private static Money partsOf(List<IssuedExtra> extras, int group, Money zero) {
        return extras.stream()
                .flatMap(e -> e.parts().stream())
                .filter(p -> p.group() == group)
                .map(IssuedExtra.Part::amount)
                .reduce(zero, Money::plus);
    }

    /** The invoice, as far as taking it back needs it. */
    public Creditable creditable() {
        return new Creditable(
                currency(),
                sums.taxInside(),
                body.lines().stream()
                        .map(l -> new Creditable.Item(l.quantity(), l.net(), l.group(), l.category()))
                        .toList(),
                body.charges().stream()
                        .map(c -> new Creditable.Item(
                                BigDecimal.ONE, c.amount(), c.parts().get(0).group()))
                        .toList(),
                sums.groups(),
                sums.rounding().amount(),
                job == null ? List.of() : job.deducted());
    }

    /** Whether it bills nothing but a deposit. */
    public boolean isForDeposit() {
        return corrects == null
                && body.lines().stream()
                        .allMatch(l -> l.category().equals(Income.DEPOSITS)
                                && l.quantity().signum() > 0);
    }

    /** In which everything on it is. */
    public CurrencyUnit currency() {
        return sums.currency();
    }

    /** Into the business's own currency; of nothing where it is in that already. */
    public Exchange exchangeInto(CurrencyUnit own) {
        return exchange == null ? Exchange.none(own) : exchange;
    }

    /** Its lines, in order. */
    public List<IssuedLine> lines() {
        return body.lines();
    }
}
