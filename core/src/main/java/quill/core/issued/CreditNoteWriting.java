package quill.core.issued;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.document.CreditTotals;
import quill.core.document.Extent;
import quill.core.document.TaxGroup;
import quill.core.money.Amounts;
import quill.core.tax.TaxTotal;

/**
 * Writes the credit note that takes an invoice back. One of the whole at once says the invoice's own lines, discounts and
 * charges again; one of a part says what it takes.
 */
public final class CreditNoteWriting {
    private final IssuedDocument of;
    private final CreditTotals note;
    private final boolean mirror;
    private final List<TaxGroup> taken;

    private CreditNoteWriting(IssuedDocument of, CreditTotals note, boolean mirror) {
        this.of = of;
        this.note = note;
        this.mirror = mirror;
        this.taken = note.groups().stream().filter(CreditNoteWriting::isTaken).toList();
    }

    /**
     * The note.
     *
     * @param number empty only while it is looked at before it is written
     * @param of the invoice as it was issued
     * @param note what it takes
     * @param mirror whether it takes the whole of an invoice of which nothing was taken before
     * @param layout how the business prints now; all else looks as the invoice did
     */
    public static IssuedDocument write(
            String number,
            IssuedDocument of,
            CreditTotals note,
            boolean mirror,
            String reason,
            LocalDate today,
            String layout) {
        CreditNoteWriting writing = new CreditNoteWriting(of, note, mirror);
        Matter matter = of.matter();
        return new IssuedDocument(
                number,
                today,
                new Corrects(of.number(), of.issuedOn(), reason, note.whole()),
                of.from(),
                of.to(),
                new Matter(
                        matter.subject(),
                        matter.reference(),
                        matter.project(),
                        matter.fields(),
                        matter.supplyDate(),
                        matter.supplyEnd(),
                        "",
                        "",
                        matter.footer()),
                mirror ? of.body() : writing.body(reason),
                writing.sums(),
                of.exchange(),
                Paying.NOTHING,
                new Look(
                        layout,
                        of.look().logo(),
                        of.look().accent(),
                        of.look().lineShows(),
                        of.look().typeface()));
    }

    private IssuedSums sums() {
        Money prepaid = mirror ? of.sums().prepaid().amount() : Money.zero(of.currency());
        Money due = note.total().minus(prepaid).plus(note.rounding());
        List<TaxTotal> taxes = note.taxes().stream()
                .filter(t -> mirror || !t.base().isZero() || !t.amount().isZero())
                .toList();
        return new IssuedSums(
                taxes,
                mirror ? note.groups() : taken,
                of.sums().taxInside(),
                new Reckoned(note.net(), netWhy()),
                new Reckoned(note.tax(), taxWhy()),
                new Reckoned(note.total(), note.totalWhy()),
                new Reckoned(prepaid, Why.of("goes back to deposits held")),
                new Reckoned(note.rounding(), Why.of("the invoice's rounding, taken back with the last of it")),
                new Reckoned(due, Why.of("total − prepaid + rounding", Amounts.grouped(due))));
    }

    private Why netWhy() {
        return Why.of(
                "the nets of what is taken back",
                note.groups().stream()
                                .filter(g -> !g.net().isZero())
                                .map(g -> Amounts.grouped(g.net()))
                                .collect(Collectors.joining(" + "))
                        + " = " + Amounts.grouped(note.net()));
    }

    private Why taxWhy() {
        return Why.of(
                "the sum of the taxes, each as shown",
                note.taxes().stream()
                                .map(t -> t.tax().name() + " " + Amounts.grouped(t.amount()))
                                .collect(Collectors.joining(" + "))
                        + " = " + Amounts.grouped(note.tax()));
    }

    private static boolean isTaken(TaxGroup g) {
        return !g.lines().isZero()
                || !g.charges().isZero()
                || !g.discount().isZero()
                || !g.total().isZero();
    }

    private int placeOf(int groupOfInvoice) {
        TaxGroup group = note.groups().get(groupOfInvoice);
        for (int i = 0; i < taken.size(); i++) {
            if (taken.get(i) == group) {
                return i;
            }
        }
        return 0;
    }

    private IssuedDocument.Body body(String reason) {
        List<IssuedLine> lines = note.lines().stream().map(this::part).toList();
        List<IssuedExtra> discounts = sharesOfDiscounts();
        if (!lines.isEmpty()) {
            return new IssuedDocument.Body(lines, discounts, charges());
        }
        // A document has a line at least: charges taken back alone stand as lines.
        List<IssuedLine> charges =
                charges().stream().map(CreditNoteWriting::asLine).toList();
        return new IssuedDocument.Body(charges.isEmpty() ? shares(reason) : charges, discounts, List.of());
    }

    private IssuedLine part(CreditTotals.Part part) {
        IssuedLine was = of.lines().get(part.item());
        return new IssuedLine(
                was.description(),
                part.quantity().stripTrailingZeros(),
                was.unit(),
                was.unitCode(),
                was.unitPrice(),
                was.discount(),
                IssuedLine.Sums.plain(part.net()),
                placeOf(was.group()),
                part.why(),
                was.note(),
                was.item(),
                was.category());
    }

    /** An amount is taken from every set of taxes. */
    private List<IssuedLine> shares(String reason) {
        List<IssuedLine> lines = new ArrayList<>();
        for (int i = 0; i < taken.size(); i++) {
            Money share = taken.get(i).lines();
            lines.add(own(
                    "Taken back: " + reason,
                    share.isNegative() ? BigDecimal.ONE.negate() : BigDecimal.ONE,
                    share,
                    i,
                    Why.of("the share of what is left at this rate", Amounts.grouped(share))));
        }
        return lines;
    }

    private static IssuedLine asLine(IssuedExtra charge) {
        return own(
                charge.description(),
                BigDecimal.ONE,
                charge.amount(),
                charge.parts().get(0).group(),
                charge.why());
    }

    private static IssuedLine own(String description, BigDecimal quantity, Money net, int group, Why why) {
        return new IssuedLine(
                description,
                quantity,
                "",
                "",
                quantity.signum() < 0 ? net.getAmount().abs() : net.getAmount(),
                new Extent.None(),
                IssuedLine.Sums.plain(net),
                group,
                why,
                "",
                null,
                "");
    }

    private List<IssuedExtra> sharesOfDiscounts() {
        List<IssuedExtra.Part> parts = new ArrayList<>();
        Money sum = Money.zero(of.currency());
        for (int i = 0; i < taken.size(); i++) {
            Money discount = taken.get(i).discount();
            if (!discount.isZero()) {
                parts.add(new IssuedExtra.Part(i, discount));
                sum = sum.plus(discount);
            }
        }
        return parts.isEmpty()
                ? List.of()
                : List.of(new IssuedExtra(
                        "Their share of the discount",
                        new Extent.None(),
                        sum,
                        sum,
                        parts,
                        Why.of("the invoice's discounts, in proportion to the lines", Amounts.grouped(sum))));
    }

    private List<IssuedExtra> charges() {
        return note.charges().stream()
                .map(part -> {
                    IssuedExtra was = of.body().charges().get(part.item());
                    int group = placeOf(was.parts().get(0).group());
                    return new IssuedExtra(
                            was.description(),
                            was.extent(),
                            was.base(),
                            was.amount(),
                            List.of(new IssuedExtra.Part(group, was.amount())),
                            was.why());
                })
                .toList();
    }
}
