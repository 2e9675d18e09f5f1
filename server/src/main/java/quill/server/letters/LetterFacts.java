package quill.server.letters;

import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import quill.core.letter.FieldSet;
import quill.core.letter.LetterField;
import quill.core.letter.Wording;
import quill.server.business.Business;
import quill.server.invoices.Measure;

/**
 * What a letter is about: what its fields say, and what is drawn in it. All of it from the books.
 *
 * @param from the business as it stands at the head and the foot
 * @param values what fields say, by their names; an empty one is left out
 * @param own what the business's own fields say, where no other has their names; read only where a letter names one
 * @param total of the rows; empty where they have none
 * @param measures the schedules that are drawn
 * @param payings how to pay what is owed, for each currency, that of its heading first; none where nothing is
 */
public record LetterFacts(
        Business from,
        Map<String, String> values,
        Supplier<Map<String, String>> own,
        List<Row> rows,
        String total,
        List<Drawn> measures,
        List<Paying> payings) {
    /** Copies. */
    public LetterFacts {
        values = Map.copyOf(values);
        rows = List.copyOf(rows);
        measures = List.copyOf(measures);
        payings = List.copyOf(payings);
    }

    /** The same, with all that its fields say known already. */
    public LetterFacts(
            Business from,
            Map<String, String> values,
            List<Row> rows,
            String total,
            List<Drawn> measures,
            List<Paying> payings) {
        this(from, values, Map::of, rows, total, measures, payings);
    }

    /** The same with something to pay. */
    public LetterFacts payable(List<Paying> how) {
        return new LetterFacts(from, values, own, rows, total, measures, how);
    }

    /** What the fields of a wording say; those of the business's own only where it has one. */
    public Map<String, String> values(Wording wording, FieldSet fields) {
        Map<String, String> all = new HashMap<>(values);
        if (wording.hasOwn(fields)) {
            own.get().forEach(all::putIfAbsent);
        }
        return all;
    }

    /**
     * A row of the small table.
     *
     * @param under said below it, smaller; may be empty
     * @param late whether that is a warning
     * @param link to the page of what it is about; empty where there is none
     */
    public record Row(String what, String under, boolean late, String amount, String link) {
        /** With nothing below it, leading nowhere. */
        public static Row plain(String what, String amount) {
            return new Row(what, "", false, amount, "");
        }
    }

    /** The schedule of a document as it stands. @param caption names it, and says how it is read */
    public record Drawn(String caption, List<Measure.Part> parts) {}

    /**
     * How to pay.
     *
     * @param button what leads to the page
     * @param iban in groups of four; empty where there is no account
     * @param code what the square code carries
     * @param transfer whether the code is a credit transfer, not the address of the page
     * @param sum what the code asks for
     */
    public record Paying(
            String button, String link, String iban, String reference, String code, boolean transfer, String sum) {}

    /** How to pay what it mainly asks for; null where nothing is owed. */
    public Paying paying() {
        return payings.isEmpty() ? null : payings.get(0);
    }

    /** The blocks that have something to draw. */
    public Set<LetterField> drawn() {
        Set<LetterField> drawn = EnumSet.noneOf(LetterField.class);
        if (!rows.isEmpty()) {
            drawn.add(LetterField.SUMS);
        }
        if (measures.stream().anyMatch(m -> m.parts().size() > 0)) {
            drawn.add(LetterField.MEASURE);
        }
        if (!payings.isEmpty()) {
            drawn.add(LetterField.HOW_TO_PAY);
        }
        return drawn;
    }

    /** Collects what fields say. */
    public static final class Values {
        private final Map<String, String> all = new LinkedHashMap<>();

        /** Puts what a field says; nothing for null. */
        public Values put(LetterField field, String value) {
            if (value != null) {
                all.put(field.title(), value);
            }
            return this;
        }

        /** Puts a field of the business's own, where no other has its name. */
        public Values own(String label, String value) {
            all.putIfAbsent(label, value);
            return this;
        }

        /** All of them. */
        public Map<String, String> all() {
            return all;
        }
    }
}
