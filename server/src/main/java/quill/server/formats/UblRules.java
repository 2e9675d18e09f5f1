package quill.server.formats;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.TaxGroup;
import quill.core.issued.IssuedDocument;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxTotal;
import quill.server.common.Texts;

/**
 * What EN 16931 cannot carry is refused, with the rule that it would break. Rule names are those of EN 16931-1:2017,
 * clause 6.4, and of its official validation artefacts.
 */
final class UblRules {
    private static final int DECIMALS = 2;

    private final IssuedDocument d;
    private final List<Problem> problems = new ArrayList<>();

    private UblRules(IssuedDocument d) {
        this.d = d;
    }

    /** @throws RefusedException with every reason at once */
    static void check(IssuedDocument document) {
        List<Problem> problems = new UblRules(document).problems();
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    private List<Problem> problems() {
        if (d.currency().getDecimalPlaces() > DECIMALS) {
            say(
                    "currency",
                    d.currency().getCode(),
                    "EN 16931 has amounts of at most two decimals (BR-DEC-1 to BR-DEC-28)");
        }
        for (TaxGroup g : d.sums().groups()) {
            if (g.taxes().size() > 1) {
                say("taxes", Tax.names(g.taxes()), "EN 16931 has one tax on a line (BG-30); several cannot be written");
            }
        }
        d.sums().taxes().forEach(this::tax);
        country("from.country", d.from().country(), "your own country is missing; add it in Settings (BR-9)");
        country("to.country", d.to().country(), "the client's country was not known at issue (BR-11)");
        return problems;
    }

    private void tax(TaxTotal of) {
        Tax t = of.tax();
        if (t.compound()) {
            say("taxes", t.name(), "a compound tax stands on other taxes, which EN 16931 does not know (BR-CO-17)");
        }
        if (t.category() == TaxCategory.S && t.rate().rate().signum() == 0) {
            say("taxes", t.name(), "category S needs a rate above zero (BR-S-5); a zero rate is category Z");
        }
        if (t.category() == TaxCategory.K || t.category() == TaxCategory.G) {
            vat("from.taxNumber", d.from().taxNumber(), t.category());
        }
        if (t.category() == TaxCategory.K) {
            vat("to.taxNumber", d.to().taxNumber(), t.category());
        }
        // BR-CO-17 compares with the product at two decimals, whatever the currency has, and allows less than one.
        BigDecimal whole =
                of.base().getAmount().multiply(t.rate().rate()).movePointLeft(2).setScale(2, RoundingMode.HALF_UP);
        BigDecimal off = of.amount().getAmount().subtract(whole).abs();
        if (off.compareTo(BigDecimal.ONE) >= 0) {
            say(
                    "taxes",
                    t.name(),
                    "its lines, rounded one by one, differ by " + off.toPlainString()
                            + " from its rate on the whole (BR-CO-17)");
        }
    }

    private void vat(String field, String number, TaxCategory category) {
        if (!isVat(number)) {
            say(
                    field,
                    number,
                    "category " + category
                            + " needs a tax number that begins with the country's two letters (BR-CO-9)");
        }
    }

    private void country(String field, String code, String why) {
        if (code.isEmpty()) {
            say(field, "", why);
        }
    }

    private void say(String field, String value, String why) {
        problems.add(new Problem(field, value, why));
    }

    /** Whether a number can be a VAT identifier: BR-CO-9 asks for the prefix of its country, EL for Greece. */
    static boolean isVat(String number) {
        String plain = number.replace(" ", "").toUpperCase(Locale.ROOT);
        return plain.length() > 2 && (Texts.isCountry(plain.substring(0, 2)) || plain.startsWith("EL"));
    }
}
