package quill.server.documents;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import quill.core.Why;
import quill.core.issued.Corrects;
import quill.core.issued.Look;
import quill.core.issued.Matter;
import quill.core.issued.Party;
import quill.core.issued.Paying;
import quill.server.common.Amount;
import quill.server.common.Figure;

/**
 * An issued document as it is printed and shown: words and figures, derived from what was fixed on the day of issue.
 *
 * @param kind invoice or credit note
 * @param corrects for a credit note, what it takes back
 */
public record PrintedDocument(
        DocumentKind kind,
        String number,
        @Schema(nullable = true) Corrects corrects,
        Party from,
        Party to,
        LocalDate issuedOn,
        String currency,
        Matter matter,
        PrintedBody body,
        PrintedSums sums,
        Paying paying,
        Look look) {
    /** Whole, or none at all. @throws NullPointerException where something is missing that every document has */
    public PrintedDocument {
        Stream.of(kind, number, from, to, issuedOn, currency, matter, body, sums, paying, look)
                .forEach(Objects::requireNonNull);
    }

    /** What a client may read of it: its lines say no category, which is the business's own affair. */
    public PrintedDocument forClient() {
        return new PrintedDocument(
                kind, number, corrects, from, to, issuedOn, currency, matter, body.forClient(), sums, paying, look);
    }

    /**
     * The accepted quote of which it bills a part.
     *
     * @param total what was agreed
     * @param left after this document; below zero where more is billed than was agreed
     */
    public record PrintedJob(
            String quote, LocalDate quotedOn, Amount total, List<PrintedEarlier> earlier, Amount left) {
        /** Whether all of it is billed. */
        public boolean done() {
            return !left.money().isPositive();
        }
    }

    /** What was billed of it before. @param deducted whether this document takes it off */
    public record PrintedEarlier(String number, LocalDate on, String title, boolean deducted, Amount total) {}

    /**
     * Lines, with what is taken off them and added to them.
     *
     * @param taxInside whether prices include the tax
     * @param job null for what stands for itself
     */
    public record PrintedBody(
            boolean taxInside,
            List<PrintedLine> lines,
            List<PrintedExtra> discounts,
            List<PrintedExtra> charges,
            List<PrintedTax> taxes,
            List<PrintedGroup> groups,
            @Schema(nullable = true) PrintedJob job) {
        /** Whole, or none at all. @throws NullPointerException where something is missing */
        public PrintedBody {
            Stream.of(lines, discounts, charges, taxes, groups).forEach(Objects::requireNonNull);
        }

        private PrintedBody forClient() {
            return new PrintedBody(
                    taxInside,
                    lines.stream().map(PrintedLine::forClient).toList(),
                    discounts,
                    charges,
                    taxes,
                    groups,
                    job);
        }
    }

    /**
     * What it comes to.
     *
     * @param due total - prepaid + rounding
     * @param own what it is in the business's own currency, where it is written in another
     */
    public record PrintedSums(
            Figure net,
            Figure tax,
            Figure total,
            Figure prepaid,
            Figure rounding,
            Figure due,
            @Schema(nullable = true) InOwnCurrency own) {
        /** Whole, or none at all. @throws NullPointerException where something is missing */
        public PrintedSums {
            Stream.of(net, tax, total, prepaid, rounding, due).forEach(Objects::requireNonNull);
        }
    }

    /**
     * A line as printed.
     *
     * @param unitCode of UN/ECE Recommendation 20, as on the day of issue; empty for a unit that has none
     * @param discount as typed: {@code 10%} or {@code 25.00}
     * @param note printed under it; may be empty
     * @param item the catalogue's item of which it was made; null for a line of its own
     * @param category of income, of the business's own; never printed
     * @param group its set of taxes, from 0
     */
    public record PrintedLine(
            String description,
            String quantity,
            String unit,
            String unitCode,
            String unitPrice,
            String discount,
            String tax,
            String note,
            @Schema(nullable = true) Long item,
            String category,
            @Schema(nullable = true) Integer group,
            PrintedLineSums sums) {
        private PrintedLine forClient() {
            return new PrintedLine(
                    description, quantity, unit, unitCode, unitPrice, discount, tax, note, item, "", group, sums);
        }

        /** Whether its quantity is hours. */
        public boolean inHours() {
            return "HUR".equals(unitCode);
        }
    }

    /**
     * What a line comes to.
     *
     * @param gross before the discount
     * @param off what the discount comes to, any tax not charged to an exempt client included
     */
    public record PrintedLineSums(
            @Schema(nullable = true) Amount gross,
            @Schema(nullable = true) Amount off,
            Amount net,
            Why why) {}

    /** A document discount or charge. @param how {@code 10%}, or empty for a sum @param parts by set of taxes */
    public record PrintedExtra(
            String description, String how, Amount base, Amount amount, List<ExtraPart> parts, Why why) {}

    /** What of a discount or charge falls on one set of taxes. */
    public record ExtraPart(int group, Amount amount) {}

    /** A tax as printed; its reason is printed where nothing is charged. */
    public record PrintedTax(
            @Schema(nullable = true) String id,
            String name,
            String rate,
            @Schema(nullable = true) Boolean compound,
            String category,
            String reason,
            Amount base,
            Amount amount,
            Why why) {}

    /** A set of taxes with what bears it. @param taxes places in {@code taxes} @param amounts of each of them */
    public record PrintedGroup(
            List<Integer> taxes, Amount lines, Amount discount, Amount charges, Amount net, List<Amount> amounts) {}

    /** The tax in the business's own currency. @param rate what 1 of the document's currency is in it */
    public record InOwnCurrency(String currency, String rate, Figure tax, Figure total) {}

    /** What is printed as its name: Invoice, or Credit note. */
    public String title() {
        return kind.title();
    }

    /** Whether it takes back, rather than asks. */
    public boolean takesBack() {
        return kind == DocumentKind.CREDIT_NOTE;
    }
}
