package quill.core;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.document.CashRounding;
import quill.core.document.Charge;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentDiscount;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.money.Percent;
import quill.core.tax.Exemption;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;

/** Documents made up by chance, the same for the same seed. */
final class Documents {
    static final Tax HIGH = Tax.standard("high", "VAT 21%", "21");
    static final Tax LOW = Tax.standard("low", "VAT 6%", "6");
    static final Tax ODD = Tax.standard("odd", "VAT 8.1%", "8.1");
    static final Tax ZERO = new Tax("zero", "Zero rated", Percent.of("0"), TaxCategory.Z, false, "");
    static final Tax GST = Tax.standard("gst", "GST", "5");
    static final Tax QST = Tax.standard("qst", "QST", "9.975");
    static final Tax UPON = Tax.compound("upon", "Upon", "10");
    static final List<List<Tax>> PLAIN = List.of(List.of(HIGH), List.of(LOW), List.of(ODD), List.of(ZERO));
    static final List<List<Tax>> ALL =
            List.of(List.of(HIGH), List.of(LOW), List.of(ODD), List.of(ZERO), List.of(GST, QST), List.of(GST, UPON));

    private final Random random;
    private final List<List<Tax>> sets;

    Documents(long seed, List<List<Tax>> sets) {
        this.random = new Random(seed);
        this.sets = sets;
    }

    /** A document that can be issued: what the rules refuse is left out. */
    DocumentBody next(CurrencyUnit currency) {
        while (true) {
            DocumentBody body = any(currency);
            try {
                if (DocumentReckoning.reckon(body).total().isPositive()) {
                    return body;
                }
            } catch (RefusedException e) {
                continue;
            }
        }
    }

    private DocumentBody any(CurrencyUnit currency) {
        List<Line> lines = new ArrayList<>();
        for (int n = 1 + random.nextInt(9); n > 0; n--) {
            lines.add(line(currency));
        }
        List<DocumentDiscount> discounts = new ArrayList<>();
        for (int n = Math.max(0, random.nextInt(4) - 1); n > 0; n--) {
            discounts.add(new DocumentDiscount("loyal", extent(currency, 20), List.of()));
        }
        List<Charge> charges = new ArrayList<>();
        for (int n = Math.max(0, random.nextInt(4) - 1); n > 0; n--) {
            charges.add(new Charge("delivery", extent(currency, 10), set()));
        }
        Money prepaid = random.nextInt(4) == 0 ? money(currency, 2_000) : null;
        CashRounding cash = random.nextInt(4) == 0 ? new CashRounding(Money.ofMinor(currency, 5)) : null;
        return new DocumentBody(
                currency,
                lines,
                discounts,
                charges,
                random.nextBoolean(),
                TaxRounding.values()[random.nextInt(2)],
                random.nextInt(8) == 0 ? new Exemption("C-7", null) : null,
                prepaid,
                cash);
    }

    private Line line(CurrencyUnit currency) {
        BigDecimal quantity = BigDecimal.valueOf(1 + random.nextInt(5_000), random.nextInt(4));
        if (random.nextInt(12) == 0) {
            quantity = quantity.negate();
        }
        BigDecimal price = BigDecimal.valueOf(random.nextInt(90_000), random.nextInt(5));
        Extent discount = quantity.signum() > 0 && random.nextInt(3) == 0 ? percent(100) : new Extent.None();
        // Not drawn, so that the documents stay those that they were before there were categories.
        String category = List.of("", "Tuning", "Strings", "Hire")
                .get(price.unscaledValue().intValue() % 4);
        return new Line("work", quantity, "h", price, discount, set(), null, "", category);
    }

    private List<Tax> set() {
        return sets.get(random.nextInt(sets.size()));
    }

    private Extent extent(CurrencyUnit currency, int most) {
        return random.nextBoolean() ? percent(most) : new Extent.OfAmount(money(currency, 3_000));
    }

    private Extent percent(int most) {
        return new Extent.OfPercent(new Percent(BigDecimal.valueOf(random.nextInt(most * 10), 1)));
    }

    private Money money(CurrencyUnit currency, int most) {
        return Money.ofMinor(currency, 1 + random.nextInt(most));
    }

    static Totals totals(DocumentBody body) {
        return DocumentReckoning.reckon(body);
    }
}
