package quill.core.document;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.TypedDate;
import quill.core.catalogue.Item;
import quill.core.money.Exchange;
import quill.core.money.TypedNumber;
import quill.core.schedule.Term;
import quill.core.tax.Tax;
import quill.core.tax.TaxRounding;

/** Turns what was typed into lines and terms, and names every field that cannot be read. */
public final class DraftReading {
    private static final Pattern QUANTITY_WITH_UNIT = Pattern.compile("\\s*(.*\\d)\\s*(" + TypedNumber.UNIT + ")\\s*");
    private static final int MAX_LINES = 1000;
    private static final int MAX_EXTRAS = 20;
    private static final int MAX_DESCRIPTION = 500;
    private static final int MAX_SHORT = 200;
    private static final int MAX_SERIAL = 80;
    private static final int MAX_TEXT = 4000;
    private static final int PRICE_DECIMALS = 6;
    private static final int RATE_DECIMALS = 10;
    private static final int MAX_TAXES = 8;
    private static final int MAX_PROBLEMS = 200;

    private final TypedDraft typed;
    private final DraftRules rules;
    private final List<Problem> problems = new ArrayList<>();

    private DraftReading(TypedDraft typed, DraftRules rules) {
        this.typed = typed;
        this.rules = rules;
    }

    /**
     * What could be read.
     *
     * @param body only the lines without a problem, and what could be read of the rest
     * @param places for each of these lines the place that it had in the draft
     * @param exchange to the own currency
     * @param problems every field that could not be read; empty where the draft is whole
     * @param notes what the person should know though nothing is wrong, such as a certificate that has ended
     */
    public record Read(
            DocumentBody body,
            List<Integer> places,
            List<Integer> discountPlaces,
            List<Integer> chargePlaces,
            Exchange exchange,
            List<Term> terms,
            LocalDate supplyDate,
            LocalDate supplyEnd,
            List<Problem> problems,
            List<String> notes) {
        /** The currency that the document is in. */
        public CurrencyUnit currency() {
            return body.currency();
        }

        /** The lines that could be read. */
        public List<Line> lines() {
            return body.lines();
        }
    }

    /** Reads a draft in the own currency, with nothing known of the client. */
    public static Read read(TypedDraft typed, Map<String, Tax> taxes, CurrencyUnit own) {
        DraftRules rules =
                new DraftRules(taxes, own, TaxRounding.PER_TAX, Map.of(), Map.of(), "", null, LocalDate.of(2000, 1, 1));
        return read(typed, rules);
    }

    /** Reads a draft. Lines left wholly empty are passed over. */
    public static Read read(TypedDraft typed, DraftRules rules) {
        return new DraftReading(typed, rules).read();
    }

    private Read read() {
        CurrencyUnit read = TypedNumber.currency("currency", typed.currency(), problems);
        CurrencyUnit currency = read == null ? rules.own() : read;
        Exchange exchange = exchange(currency);
        Map<Integer, Line> lines = new LinkedHashMap<>();
        if (typed.lines().size() > MAX_LINES) {
            problems.add(new Problem(
                    "lines", String.valueOf(typed.lines().size()), "at most " + MAX_LINES + " lines are allowed"));
        }
        for (int i = 0; i < Math.min(MAX_LINES, typed.lines().size()); i++) {
            if (!typed.lines().get(i).saysNothing()) {
                Line line = line("lines[" + i + "].", typed.lines().get(i), currency);
                if (line != null) {
                    lines.put(i, line);
                }
            }
        }
        keepWithinBounds(lines, exchange);
        Map<Integer, Charge> discounts = extras("discounts", typed.discounts(), currency, false);
        Map<Integer, Charge> charges = extras("charges", typed.charges(), currency, true);
        LocalDate supply = day("supplyDate", typed.supplyDate());
        LocalDate end = day("supplyEnd", typed.supplyEnd());
        if (supply != null && end != null && end.isBefore(supply)) {
            problems.add(
                    new Problem("supplyEnd", typed.supplyEnd(), "must not be before " + TypedDate.inWords(supply)));
        }
        new TaxChecks(rules, supply != null, problems).check(lines, discounts, charges);
        DocumentBody body = new DocumentBody(
                currency,
                List.copyOf(lines.values()),
                discounts.values().stream()
                        .map(d -> new DocumentDiscount(d.description(), d.extent(), d.taxes()))
                        .toList(),
                List.copyOf(charges.values()),
                typed.taxInside(),
                rules.rounding(),
                rules.exemption(),
                prepaid(currency),
                typed.cash() ? rules.coins().get(currency) : null);
        List<Term> terms = Term.readAll(typed.schedule(), currency, rules.issuedOn(), problems);
        texts();
        return new Read(
                body,
                List.copyOf(lines.keySet()),
                List.copyOf(discounts.keySet()),
                List.copyOf(charges.keySet()),
                exchange,
                terms,
                supply,
                end,
                problems.size() <= MAX_PROBLEMS ? problems : problems.subList(0, MAX_PROBLEMS),
                notes(currency));
    }

    /**
     * No line and no document reaches 10^12, in its own currency or in that of the books: above it a slip is likelier
     * than an invoice, and sums of minor units would leave their range. Lines beyond are told and not reckoned.
     */
    private void keepWithinBounds(Map<Integer, Line> lines, Exchange exchange) {
        lines.entrySet().removeIf(e -> {
            boolean beyond = grossOf(e.getValue()).compareTo(TypedNumber.LARGEST) >= 0;
            if (beyond) {
                problems.add(new Problem(
                        "lines[" + e.getKey() + "].quantity",
                        typed.lines().get(e.getKey()).quantity(),
                        "times the price must be below " + TypedNumber.LARGEST_IN_WORDS));
            }
            return beyond;
        });
        BigDecimal sum = lines.values().stream().map(DraftReading::grossOf).reduce(BigDecimal.ZERO, BigDecimal::add);
        if (sum.compareTo(TypedNumber.LARGEST) >= 0) {
            problems.add(new Problem(
                    "lines", sum.toBigInteger().toString(), "come to more than " + TypedNumber.LARGEST_IN_WORDS));
            lines.clear();
        } else if (sum.multiply(exchange.rate()).compareTo(TypedNumber.LARGEST) >= 0) {
            problems.add(new Problem(
                    "rate",
                    typed.rate(),
                    "brings this above " + TypedNumber.LARGEST_IN_WORDS + " in the currency of your books"));
            lines.clear();
        }
    }

    private static BigDecimal grossOf(Line line) {
        return line.quantity().multiply(line.unitPrice()).abs();
    }

    private Exchange exchange(CurrencyUnit currency) {
        if (currency.equals(rules.own())) {
            return Exchange.none(rules.own());
        }
        BigDecimal rate = rules.rates().get(currency);
        if (!TypedDraft.blank(typed.rate())) {
            rate = TypedNumber.read("rate", typed.rate(), RATE_DECIMALS, false, problems);
        } else if (rate == null) {
            problems.add(new Problem(
                    "rate", "", "say what 1 " + currency + " is in " + rules.own() + ", or note a rate in Settings"));
        }
        String refusal = rate == null ? null : Exchange.refusalOf(rate);
        if (refusal != null) {
            problems.add(new Problem("rate", typed.rate(), refusal));
        }
        return rate == null || refusal != null ? Exchange.none(rules.own()) : new Exchange(rules.own(), rate);
    }

    private Money prepaid(CurrencyUnit currency) {
        return TypedDraft.blank(typed.prepaid())
                ? null
                : TypedNumber.amount("prepaid", typed.prepaid(), currency, problems);
    }

    private List<String> notes(CurrencyUnit currency) {
        List<String> notes = new ArrayList<>();
        var buyer = rules.buyer();
        if (buyer != null && buyer.exemption() != null && rules.exemption() == null) {
            notes.add("The client's certificate " + buyer.exemption().certificate() + " ended on "
                    + TypedDate.inWords(buyer.exemption().until()) + ": tax is charged.");
        } else if (rules.exemption() != null) {
            notes.add(rules.exemption().tax().reason() + ": no tax is charged.");
        }
        if (typed.cash() && !rules.coins().containsKey(currency)) {
            notes.add("No smallest coin is set for " + currency + " in Settings, so cash is not rounded.");
        }
        for (int i = 0; i < Math.min(MAX_LINES, typed.lines().size()); i++) {
            TypedDraft.TypedLine line = typed.lines().get(i);
            if (line.serial() != null && line.serial().isBlank() && !line.saysNothing()) {
                notes.add("Line " + (i + 1) + " has no serial number yet.");
            }
        }
        return notes;
    }

    /** A day as people type it, the nearest to the day of issue where the text alone does not say; null for none. */
    private LocalDate day(String field, String text) {
        return TypedDraft.blank(text)
                ? null
                : LooseDate.read(field, text, rules.issuedOn(), LooseDate.Lean.NEAR, problems);
    }

    private void texts() {
        length("subject", typed.subject(), MAX_SHORT);
        length("reference", typed.reference(), MAX_SHORT);
        length("project", typed.project(), MAX_SHORT);
        length("notes", typed.notes(), MAX_TEXT);
        length("terms", typed.terms(), MAX_TEXT);
        length("memo", typed.memo(), MAX_TEXT);
        typed.fields().forEach((label, value) -> length("fields." + label, value, MAX_SHORT));
    }

    private void length(String field, String text, int most) {
        if (text != null && text.strip().length() > most) {
            problems.add(new Problem(
                    field, text.strip().substring(0, 40) + "…", "at most " + most + " characters are allowed"));
        }
    }

    private Line line(String path, TypedDraft.TypedLine line, CurrencyUnit currency) {
        int before = problems.size();
        if (TypedDraft.blank(line.description())) {
            problems.add(new Problem(path + "description", "", "say what this line is for"));
        }
        length(path + "description", line.description(), MAX_DESCRIPTION);
        length(path + "note", line.note(), MAX_DESCRIPTION);
        length(path + "serial", line.serial(), MAX_SERIAL);
        length(path + "category", line.category(), Item.MAX_CATEGORY);
        Item.checkCategory(path + "category", line.category(), problems);
        // A quantity may carry its unit: 90 km, 6.5 h.
        Matcher withUnit = QUANTITY_WITH_UNIT.matcher(line.quantity() == null ? "" : line.quantity());
        boolean hours = TypedNumber.isHours(line.quantity());
        boolean ownUnit = !hours && withUnit.matches() && TypedDraft.blank(line.unit());
        String typed = ownUnit ? withUnit.group(1) : line.quantity();
        String unit = ownUnit ? withUnit.group(2) : hours && TypedDraft.blank(line.unit()) ? "h" : line.unit();
        BigDecimal quantity = TypedNumber.read(path + "quantity", typed, PRICE_DECIMALS, true, problems);
        BigDecimal price = TypedNumber.read(path + "unitPrice", line.unitPrice(), PRICE_DECIMALS, false, problems);
        Extent discount = Extent.read(path + "discount", line.discount(), currency, problems);
        List<Tax> borne = borne(path + "taxes", line.taxes(), true);
        return problems.size() > before
                ? null
                : new Line(
                        line.description().strip(),
                        quantity,
                        unit == null ? "" : unit.strip(),
                        price,
                        discount,
                        borne,
                        line.item(),
                        under(line),
                        TypedDraft.blank(line.category()) ? "" : line.category().strip());
    }

    private static String under(TypedDraft.TypedLine line) {
        String serial = TypedDraft.blank(line.serial())
                ? ""
                : "Serial number " + line.serial().strip();
        String note = TypedDraft.blank(line.note()) ? "" : line.note().strip();
        return serial.isEmpty() || note.isEmpty() ? serial + note : serial + "\n" + note;
    }

    /** Discounts and charges are typed alike; a discount needs no tax of its own. */
    private Map<Integer, Charge> extras(
            String list, List<TypedDraft.TypedExtra> extras, CurrencyUnit currency, boolean taxed) {
        Map<Integer, Charge> read = new LinkedHashMap<>();
        if (extras.size() > MAX_EXTRAS) {
            problems.add(new Problem(list, String.valueOf(extras.size()), "at most " + MAX_EXTRAS + " are allowed"));
        }
        for (int i = 0; i < Math.min(MAX_EXTRAS, extras.size()); i++) {
            TypedDraft.TypedExtra extra = extras.get(i);
            String path = list + "[" + i + "].";
            if (extra.isBlank()) {
                continue;
            }
            int before = problems.size();
            if (TypedDraft.blank(extra.description())) {
                problems.add(new Problem(path + "description", "", "say what it is for; it is printed"));
            }
            length(path + "description", extra.description(), MAX_SHORT);
            Extent extent = Extent.read(path + "amount", extra.amount(), currency, problems);
            if (extent instanceof Extent.None) {
                problems.add(new Problem(path + "amount", "", "write a percentage such as 10%, or an amount"));
            }
            List<Tax> taxes = borne(path + "taxes", extra.taxes(), taxed);
            if (problems.size() == before) {
                read.put(i, new Charge(extra.description().strip(), extent, taxes));
            }
        }
        return read;
    }

    private List<Tax> borne(String field, List<String> ids, boolean needed) {
        List<Tax> borne = new ArrayList<>();
        if (ids.size() > MAX_TAXES) {
            problems.add(new Problem(field, String.valueOf(ids.size()), "at most " + MAX_TAXES + " taxes are allowed"));
            return borne;
        }
        for (String id : ids) {
            Tax tax = rules.taxes().get(id);
            if (tax == null) {
                problems.add(new Problem(
                        field,
                        id,
                        "is not one of the business's taxes: " + rules.taxes().keySet()));
            } else if (!borne.contains(tax)) {
                borne.add(tax);
            }
        }
        if (ids.isEmpty() && needed) {
            Tax outside = rules.taxes().get("none");
            if (outside == null) {
                problems.add(new Problem(field, "", "choose a tax; a registered business has no line without one"));
            } else {
                borne.add(outside);
            }
        }
        return borne;
    }
}
