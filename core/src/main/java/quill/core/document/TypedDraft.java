package quill.core.document;

import java.util.List;
import java.util.Map;
import quill.core.id.ClientId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.money.DecimalMark;
import quill.core.schedule.TypedTerm;

/**
 * A draft as it was typed. Nothing in it need be valid: it is kept so that a slip of the pen loses nothing.
 *
 * @param clientId whom it is for; null until chosen
 * @param currency ISO 4217 code
 * @param rate what 1 of that currency is in the business's own; empty for the latest rate of the business
 * @param subject what it is for, in a few words
 * @param reference the client's purchase order number
 * @param supplyDate ISO date of supply
 * @param supplyEnd last day of the period of supply; empty where the supply was on one day
 * @param cash whether the client pays in cash, so that what is due is rounded to a coin
 * @param prepaid what is taken from deposits held; empty for nothing
 * @param memo for the business only, never printed
 * @param fields the business's own fields, by their labels
 * @param lateFee this invoice's own policy; null where the client's or the business's holds
 * @param offer what only a quote says; null for all else
 * @param job the accepted quote that it bills; null for what stands for itself
 * @param plan what it offers its client before it is paid; null for nothing
 * @param mark the decimal mark with which its numbers were typed, {@code .} or {@code ,}; null is a point. A changed
 *     setting changes no draft and no copy
 */
public record TypedDraft(
        ClientId clientId,
        String currency,
        String rate,
        String subject,
        String reference,
        String project,
        String supplyDate,
        String supplyEnd,
        boolean taxInside,
        Boolean cash,
        List<TypedLine> lines,
        List<TypedExtra> discounts,
        List<TypedExtra> charges,
        String prepaid,
        List<TypedTerm> schedule,
        String notes,
        String terms,
        String memo,
        Map<String, String> fields,
        TypedLateFeePolicy lateFee,
        TypedOffer offer,
        TypedJob job,
        TypedInstallmentOffer plan,
        String mark) {
    /**
     * A line as typed.
     *
     * @param discount empty, {@code 10%} or {@code 25.00}
     * @param item the catalogue's item of which it was made; null for a line of its own
     * @param note printed under it; may be null
     * @param serial the number of the piece that is sold, printed under it; null where none is asked for
     * @param category of income, never printed; empty or null for the item's own
     * @param choice on a quote, whether its client can choose the line: {@code ticked} or {@code unticked} to begin with;
     *     null where it cannot
     * @param of the line of the accepted quote that it bills, or bills a part of, by its place; null for a line of its own
     */
    public record TypedLine(
            String description,
            String quantity,
            String unit,
            String unitPrice,
            String discount,
            List<String> taxes,
            Long item,
            String note,
            String serial,
            String category,
            String choice,
            Integer of) {
        /** A line that is left out. */
        public static final TypedLine BLANK = new TypedLine("", "", "", "", "", List.of());

        /** Missing taxes are none. */
        public TypedLine {
            taxes = taxes == null ? List.of() : List.copyOf(taxes);
        }

        /** A line that nobody can choose. */
        public TypedLine(
                String description,
                String quantity,
                String unit,
                String unitPrice,
                String discount,
                List<String> taxes,
                Long item,
                String note,
                String serial,
                String category) {
            this(description, quantity, unit, unitPrice, discount, taxes, item, note, serial, category, null, null);
        }

        /** A line of its own, with nothing under it. */
        public TypedLine(
                String description,
                String quantity,
                String unit,
                String unitPrice,
                String discount,
                List<String> taxes) {
            this(description, quantity, unit, unitPrice, discount, taxes, null, null, null, null, null, null);
        }

        /** The same as a client can choose it; null where nobody chooses it any more. */
        public TypedLine choose(String to) {
            return new TypedLine(
                    description, quantity, unit, unitPrice, discount, taxes, item, note, serial, category, to, of);
        }

        /** The same as it bills a line of a quote. @param place of that line */
        public TypedLine billing(int place) {
            return new TypedLine(
                    description,
                    quantity,
                    unit,
                    unitPrice,
                    discount,
                    taxes,
                    item,
                    note,
                    serial,
                    category,
                    choice,
                    place);
        }

        /** So much of the same line. @param some the quantity @param off the discount */
        public TypedLine some(String some, String off) {
            return new TypedLine(
                    description, some, unit, unitPrice, off, taxes, item, note, serial, category, choice, of);
        }

        /** A part of the same line as a sum: it takes nothing of what is in stock. @param under category of income */
        public TypedLine sum(String under, String words, String one, String price) {
            return new TypedLine(words, one, "", price, "", taxes, null, note, null, under, choice, of);
        }

        /** The same under another category of income. */
        TypedLine under(String other) {
            return new TypedLine(
                    description, quantity, unit, unitPrice, discount, taxes, item, note, serial, other, choice, of);
        }

        private TypedLine plain(DecimalMark m) {
            return new TypedLine(
                    description,
                    m.plain(quantity),
                    unit,
                    m.plain(unitPrice),
                    m.plain(discount),
                    taxes,
                    item,
                    note,
                    serial,
                    category,
                    choice,
                    of);
        }

        /** Whether nothing at all is typed in it. */
        public boolean saysNothing() {
            return blank(description) && blank(quantity) && blank(unitPrice) && blank(discount);
        }
    }

    /**
     * A document discount or a charge as typed.
     *
     * @param amount {@code 10%} of the lines, or {@code 25.00}
     * @param taxes of a charge; a discount without any is split over all sets of taxes
     */
    public record TypedExtra(String description, String amount, List<String> taxes) {
        /** Missing taxes are none. */
        public TypedExtra {
            taxes = taxes == null ? List.of() : List.copyOf(taxes);
        }

        boolean isBlank() {
            return blank(description) && blank(amount);
        }
    }

    /** Begins one in a currency. */
    public static DraftBuilder in(String currency) {
        return new DraftBuilder(currency);
    }

    /** Begins another that says the same. */
    public DraftBuilder changed() {
        return new DraftBuilder(this);
    }

    /** What is left out is empty, or no. */
    public TypedDraft {
        cash = Boolean.TRUE.equals(cash);
        lines = lines == null ? List.of() : List.copyOf(lines);
        discounts = discounts == null ? List.of() : List.copyOf(discounts);
        charges = charges == null ? List.of() : List.copyOf(charges);
        schedule = schedule == null ? List.of() : List.copyOf(schedule);
        fields = fields == null ? Map.of() : Map.copyOf(fields);
    }

    /** The same for another day of supply: what a copy begins with. */
    public TypedDraft suppliedOn(String day) {
        return changed()
                .rate("")
                .supplyDate(day)
                .supplyEnd("")
                .prepaid("")
                .job(null)
                .build();
    }

    /** The same for another client. */
    public TypedDraft forClient(ClientId other) {
        return changed().client(other).build();
    }

    /** The same, each line that names no category of income under that of its item. @param ofItems by their ids */
    public TypedDraft categorised(Map<Long, String> ofItems) {
        return changed()
                .lines(lines.stream()
                        .map(l -> blank(l.category) && l.item != null ? l.under(ofItems.get(l.item)) : l)
                        .toList())
                .build();
    }

    /** The same with its numbers as programs write them, whatever mark they were typed with. */
    public TypedDraft plain() {
        DecimalMark m = DecimalMark.of(mark);
        return m == DecimalMark.POINT
                ? this
                : changed()
                        .rate(m.plain(rate))
                        .lines(lines.stream().map(l -> l.plain(m)).toList())
                        .discounts(plain(discounts, m))
                        .charges(plain(charges, m))
                        .prepaid(m.plain(prepaid))
                        .schedule(schedule.stream().map(t -> t.plain(m)).toList())
                        .lateFee(lateFee == null ? null : lateFee.plain(m))
                        .plan(plan == null ? null : plan.plain(m))
                        .mark(null)
                        .build();
    }

    private static List<TypedExtra> plain(List<TypedExtra> extras, DecimalMark m) {
        return extras.stream()
                .map(e -> new TypedExtra(e.description, m.plain(e.amount), e.taxes))
                .toList();
    }

    static boolean blank(String text) {
        return text == null || text.isBlank();
    }
}
