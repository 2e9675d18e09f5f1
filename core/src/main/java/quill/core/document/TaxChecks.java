package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import quill.core.Problem;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;

/**
 * What the categories of EN 16931 ask of a document: O stands with no other (BR-O-11 to BR-O-14), several taxes of a
 * line are all at a rate or it is one tax, AE and K need both parties' tax numbers (BR-AE-2, BR-IC-2), K the day and
 * the country of delivery as well (BR-IC-11, BR-IC-12), G the seller's number (BR-G-2).
 */
final class TaxChecks {
    private final DraftRules rules;
    private final boolean supplied;
    private final List<Problem> problems;

    TaxChecks(DraftRules rules, boolean supplied, List<Problem> problems) {
        this.rules = rules;
        this.supplied = supplied;
        this.problems = problems;
    }

    private record Bearer(String field, List<Tax> taxes) {}

    void check(Map<Integer, Line> lines, Map<Integer, Charge> discounts, Map<Integer, Charge> charges) {
        List<Bearer> bearers = new ArrayList<>();
        lines.forEach((i, l) -> bearers.add(new Bearer("lines[" + i + "].taxes", l.taxes())));
        discounts.forEach((i, d) -> bearers.add(new Bearer("discounts[" + i + "].taxes", d.taxes())));
        charges.forEach((i, c) -> bearers.add(new Bearer("charges[" + i + "].taxes", c.taxes())));
        boolean other = bearers.stream().flatMap(b -> b.taxes().stream()).anyMatch(t -> t.category() != TaxCategory.O);
        for (Bearer b : bearers) {
            if (other && b.taxes().stream().anyMatch(t -> t.category() == TaxCategory.O)) {
                problems.add(new Problem(b.field(), "O", "category O stands with no other on one document"));
            }
            if (b.taxes().size() > 1 && b.taxes().stream().anyMatch(t -> t.category() != TaxCategory.S)) {
                problems.add(new Problem(
                        b.field(), Tax.names(b.taxes()), "only taxes at a rate can stand together on one line"));
            }
            b.taxes().forEach(t -> numbers(b.field(), t));
        }
    }

    private void numbers(String field, Tax tax) {
        TaxCategory c = tax.category();
        boolean both = c == TaxCategory.AE || c == TaxCategory.K;
        if ((both || c == TaxCategory.G) && TypedDraft.blank(rules.seller())) {
            problems.add(new Problem(field, c.name(), "category " + c + " needs your own tax number, in Settings"));
        }
        DraftRules.Buyer buyer = rules.buyer();
        if (buyer == null) {
            return;
        }
        if (both && TypedDraft.blank(buyer.taxNumber())) {
            problems.add(new Problem(field, c.name(), "category " + c + " needs the client's tax number"));
        }
        if (c == TaxCategory.K && TypedDraft.blank(buyer.country())) {
            problems.add(new Problem(field, c.name(), "category K needs the client's country, where it is delivered"));
        }
        if (c == TaxCategory.K && !supplied) {
            problems.add(new Problem("supplyDate", "", "category K needs the date of delivery"));
        }
    }
}
