package quill.core.document;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import quill.core.Problem;
import quill.core.money.TypedNumber;
import quill.core.schedule.Term;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;

/** Turns what was typed into lines and terms, and names every field that cannot be read. */
public final class DraftReading {
    private static final int MAX_LINES = 1000;
    private static final int MAX_DESCRIPTION = 500;
    private static final int PRICE_DECIMALS = 6;

    private final TypedDraft typed;
    private final Map<String, Tax> taxes;
    private final CurrencyUnit own;
    private final List<Problem> problems = new ArrayList<>();

    private DraftReading(TypedDraft typed, Map<String, Tax> taxes, CurrencyUnit own) {
        this.typed = typed;
        this.taxes = taxes;
        this.own = own;
    }

    /**
     * What could be read.
     *
     * @param lines only those without a problem, with the place each had in the draft
     * @param problems every field that could not be read; empty where the draft is whole
     */
    public record Read(
            CurrencyUnit currency,
            List<Line> lines,
            List<Integer> places,
            List<Term> terms,
            LocalDate supplyDate,
            LocalDate supplyEnd,
            List<Problem> problems) {}

    /**
     * Reads a draft. Lines left wholly empty are passed over.
     *
     * @param taxes the business's taxes by id; what a line without one falls to where the business is not registered
     * @param own the business's currency, the only one that a document may have so far
     */
    public static Read read(TypedDraft typed, Map<String, Tax> taxes, CurrencyUnit own) {
        return new DraftReading(typed, taxes, own).read();
    }

    private Read read() {
        CurrencyUnit currency = currency();
        List<Line> lines = new ArrayList<>();
        List<Integer> places = new ArrayList<>();
        if (typed.lines().size() > MAX_LINES) {
            problems.add(new Problem(
                    "lines", String.valueOf(typed.lines().size()), "at most " + MAX_LINES + " lines are allowed"));
        }
        for (int i = 0; i < Math.min(MAX_LINES, typed.lines().size()); i++) {
            if (!typed.lines().get(i).isBlank()) {
                Line line = line("lines[" + i + "].", typed.lines().get(i), currency);
                if (line != null) {
                    lines.add(line);
                    places.add(i);
                }
            }
        }
        mixture(lines, places);
        List<Term> terms = Term.readAll(typed.schedule(), currency, problems);
        LocalDate supply = date("supplyDate", typed.supplyDate());
        LocalDate end = date("supplyEnd", typed.supplyEnd());
        if (supply != null && end != null && end.isBefore(supply)) {
            problems.add(new Problem("supplyEnd", typed.supplyEnd(), "must not be before " + supply));
        }
        return new Read(currency, lines, places, terms, supply, end, problems);
    }

    private CurrencyUnit currency() {
        CurrencyUnit read = TypedNumber.currency("currency", typed.currency(), problems);
        if (read != null && !read.equals(own)) {
            problems.add(new Problem(
                    "currency", typed.currency(), "must be " + own + ", the currency of this business's books"));
        }
        return own;
    }

    private Line line(String path, TypedDraft.TypedLine line, CurrencyUnit currency) {
        int before = problems.size();
        if (TypedDraft.blank(line.description())) {
            problems.add(new Problem(path + "description", "", "say what this line is for"));
        } else if (line.description().length() > MAX_DESCRIPTION) {
            problems.add(new Problem(
                    path + "description",
                    line.description().substring(0, 40) + "…",
                    "at most " + MAX_DESCRIPTION + " characters are allowed"));
        }
        BigDecimal quantity = TypedNumber.read(path + "quantity", line.quantity(), PRICE_DECIMALS, true, problems);
        BigDecimal price = TypedNumber.read(path + "unitPrice", line.unitPrice(), PRICE_DECIMALS, false, problems);
        Discount discount = Discount.read(path + "discount", line.discount(), currency, problems);
        List<Tax> borne = borne(path + "taxes", line);
        return problems.size() > before
                ? null
                : new Line(
                        line.description().strip(),
                        quantity,
                        line.unit() == null ? "" : line.unit().strip(),
                        price,
                        discount,
                        borne);
    }

    private List<Tax> borne(String field, TypedDraft.TypedLine line) {
        List<Tax> borne = new ArrayList<>();
        for (String id : line.taxes()) {
            Tax tax = taxes.get(id);
            if (tax == null) {
                problems.add(new Problem(field, id, "is not one of the business's taxes: " + taxes.keySet()));
            } else if (!borne.contains(tax)) {
                borne.add(tax);
            }
        }
        if (line.taxes().isEmpty()) {
            Tax outside = taxes.get("none");
            if (outside == null) {
                problems.add(new Problem(field, "", "choose a tax; a registered business has no line without one"));
            } else {
                borne.add(outside);
            }
        }
        return borne;
    }

    /** O mixes with nothing else (EN 16931, BR-O-11 to BR-O-14). */
    private void mixture(List<Line> lines, List<Integer> places) {
        boolean other = lines.stream().flatMap(l -> l.taxes().stream()).anyMatch(t -> t.category() != TaxCategory.O);
        for (int i = 0; other && i < lines.size(); i++) {
            if (lines.get(i).taxes().stream().anyMatch(t -> t.category() == TaxCategory.O)) {
                problems.add(new Problem(
                        "lines[" + places.get(i) + "].taxes", "O", "category O stands with no other on one document"));
            }
        }
    }

    private LocalDate date(String field, String text) {
        if (TypedDraft.blank(text)) {
            return null;
        }
        try {
            LocalDate date = LocalDate.parse(text.strip());
            if (date.getYear() < 1900 || date.getYear() > 2999) {
                throw new DateTimeParseException("year", text, 0);
            }
            return date;
        } catch (DateTimeParseException e) {
            problems.add(new Problem(field, text, "write a date such as 2027-03-15"));
            return null;
        }
    }
}
