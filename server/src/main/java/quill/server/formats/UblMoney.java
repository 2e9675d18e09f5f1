package quill.server.formats;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.AllowanceChargeType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.MonetaryTotalType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxCategoryType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxSchemeType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxSubtotalType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxTotalType;
import oasis.names.specification.ubl.schema.xsd.commonbasiccomponents_21.AllowanceChargeReasonType;
import oasis.names.specification.ubl.schema.xsd.commonbasiccomponents_21.TaxExemptionReasonType;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.document.TaxGroup;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedExtra;
import quill.core.issued.IssuedLine;
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxTotal;
import quill.server.common.Texts;

/**
 * A document's amounts as EN 16931 has them: all without tax. Where its prices have the tax inside, the net of each
 * set of taxes is shared over the lines, discounts and charges of the set.
 */
final class UblMoney {
    private static final int PRICE_DECIMALS = 10;
    private final IssuedDocument d;
    private final CurrencyUnit currency;
    private final Money[] lines;
    private final Map<IssuedExtra.Part, Money> parts = new IdentityHashMap<>();

    UblMoney(IssuedDocument d) {
        this.d = d;
        this.currency = d.currency();
        this.lines = new Money[d.lines().size()];
        for (int g = 0; g < d.sums().groups().size(); g++) {
            share(g);
        }
    }

    private void share(int group) {
        List<Money> amounts = new ArrayList<>();
        List<Integer> places = new ArrayList<>();
        List<IssuedExtra.Part> extras = new ArrayList<>();
        for (int i = 0; i < d.lines().size(); i++) {
            if (d.lines().get(i).group() == group) {
                places.add(i);
                amounts.add(d.lines().get(i).net());
            }
        }
        partsOf(d.body().discounts(), group).forEach(p -> {
            extras.add(p);
            amounts.add(p.amount().negated());
        });
        partsOf(d.body().charges(), group).forEach(p -> {
            extras.add(p);
            amounts.add(p.amount());
        });
        TaxGroup g = d.sums().groups().get(group);
        List<Money> nets = d.sums().taxInside() && !amounts.isEmpty() ? Split.scaled(amounts, g.net()) : amounts;
        for (int i = 0; i < nets.size(); i++) {
            if (i < places.size()) {
                lines[places.get(i)] = nets.get(i);
            } else {
                parts.put(extras.get(i - places.size()), nets.get(i));
            }
        }
    }

    private static List<IssuedExtra.Part> partsOf(List<IssuedExtra> extras, int group) {
        return extras.stream()
                .flatMap(e -> e.parts().stream())
                .filter(p -> p.group() == group)
                .toList();
    }

    Money net(int line) {
        return lines[line];
    }

    /** What a line's own discount comes to without tax; zero where the document shows none apart. */
    Money off(int line) {
        IssuedLine l = d.lines().get(line);
        if (l.sums().off().isZero() || l.net().isZero()) {
            return Money.zero(currency);
        }
        return d.sums().taxInside()
                ? Split.scaled(List.of(l.net(), l.sums().off()), scaledGross(line))
                        .get(1)
                : l.sums().off();
    }

    private Money scaledGross(int line) {
        IssuedLine l = d.lines().get(line);
        return Amounts.round(
                currency,
                lines[line]
                        .getAmount()
                        .multiply(l.sums().gross().getAmount())
                        .divide(l.net().getAmount(), 34, RoundingMode.HALF_UP));
    }

    /** The price of one without tax, such that price x quantity less the discount is the line's net. */
    BigDecimal price(int line) {
        IssuedLine l = d.lines().get(line);
        BigDecimal price = Amounts.priced(l.unitPrice(), currency);
        BigDecimal quantity = l.quantity();
        Money gross = lines[line].plus(off(line));
        if (quantity.signum() == 0
                || Amounts.round(currency, price.multiply(quantity)).isEqual(gross)) {
            return price;
        }
        return gross.getAmount().divide(quantity, PRICE_DECIMALS, RoundingMode.HALF_UP);
    }

    Tax taxOf(int group) {
        return d.sums().groups().get(group).taxes().get(0);
    }

    /** Document discounts and charges, each set of taxes apart. */
    List<AllowanceChargeType> allowancesAndCharges() {
        List<AllowanceChargeType> all = new ArrayList<>();
        d.body().discounts().forEach(e -> add(all, e, false));
        d.body().charges().forEach(e -> add(all, e, true));
        return all;
    }

    private void add(List<AllowanceChargeType> all, IssuedExtra extra, boolean charge) {
        for (IssuedExtra.Part part : extra.parts()) {
            Money amount = charge ? parts.get(part) : parts.get(part).negated();
            if (!amount.isZero()) {
                AllowanceChargeType a = allowance(charge, amount, extra.description());
                a.addTaxCategory(category(taxOf(part.group()), false));
                all.add(a);
            }
        }
    }

    AllowanceChargeType allowance(boolean charge, Money amount, String reason) {
        AllowanceChargeType a = new AllowanceChargeType();
        a.setChargeIndicator(charge);
        a.addAllowanceChargeReason(new AllowanceChargeReasonType(Texts.printable(reason)));
        a.setAmount(amount.getAmount()).setCurrencyID(currency.getCode());
        return a;
    }

    TaxCategoryType category(Tax tax, boolean reason) {
        TaxCategoryType c = new TaxCategoryType();
        c.setID(tax.category().name());
        if (tax.category() != TaxCategory.O) {
            c.setPercent(tax.rate().rate());
        }
        if (reason && !tax.reason().isEmpty()) {
            c.addTaxExemptionReason(new TaxExemptionReasonType(Texts.printable(tax.reason())));
        }
        c.setTaxScheme(scheme("VAT"));
        return c;
    }

    static TaxSchemeType scheme(String id) {
        TaxSchemeType scheme = new TaxSchemeType();
        scheme.setID(id);
        return scheme;
    }

    /** The breakdown by category and rate (BG-23), and the tax in the business's own currency where it has another. */
    List<TaxTotalType> taxTotals() {
        Map<String, TaxSubtotalType> subtotals = new HashMap<>();
        TaxTotalType total = new TaxTotalType();
        total.setTaxAmount(d.sums().tax().amount().getAmount()).setCurrencyID(currency.getCode());
        for (TaxTotal of : d.sums().taxes()) {
            Tax tax = of.tax();
            String key = tax.category() == TaxCategory.S
                    ? "S" + tax.rate()
                    : tax.category().name();
            TaxSubtotalType before = subtotals.get(key);
            if (before == null) {
                TaxSubtotalType s = new TaxSubtotalType();
                s.setTaxableAmount(of.base().getAmount()).setCurrencyID(currency.getCode());
                s.setTaxAmount(of.amount().getAmount()).setCurrencyID(currency.getCode());
                s.setTaxCategory(category(tax, true));
                subtotals.put(key, s);
                total.addTaxSubtotal(s);
            } else {
                before.setTaxableAmount(
                        before.getTaxableAmountValue().add(of.base().getAmount()));
                before.getTaxableAmount().setCurrencyID(currency.getCode());
                before.setTaxAmount(before.getTaxAmountValue().add(of.amount().getAmount()));
                before.getTaxAmount().setCurrencyID(currency.getCode());
            }
        }
        List<TaxTotalType> totals = new ArrayList<>(List.of(total));
        if (d.exchange() != null) {
            Money ownTax = d.exchange().of(d.sums().tax().amount());
            TaxTotalType own = new TaxTotalType();
            own.setTaxAmount(ownTax.getAmount())
                    .setCurrencyID(ownTax.getCurrencyUnit().getCode());
            totals.add(own);
        }
        return totals;
    }

    MonetaryTotalType totals() {
        Money sum = Amounts.sum(currency, List.of(lines));
        Money allowances = sumOf(d.body().discounts()).negated();
        Money charges = sumOf(d.body().charges());
        String code = currency.getCode();
        MonetaryTotalType t = new MonetaryTotalType();
        t.setLineExtensionAmount(sum.getAmount()).setCurrencyID(code);
        t.setTaxExclusiveAmount(d.sums().net().amount().getAmount()).setCurrencyID(code);
        t.setTaxInclusiveAmount(d.sums().total().amount().getAmount()).setCurrencyID(code);
        if (!allowances.isZero()) {
            t.setAllowanceTotalAmount(allowances.getAmount()).setCurrencyID(code);
        }
        if (!charges.isZero()) {
            t.setChargeTotalAmount(charges.getAmount()).setCurrencyID(code);
        }
        if (!d.sums().prepaid().amount().isZero()) {
            t.setPrepaidAmount(d.sums().prepaid().amount().getAmount()).setCurrencyID(code);
        }
        if (!d.sums().rounding().amount().isZero()) {
            t.setPayableRoundingAmount(d.sums().rounding().amount().getAmount()).setCurrencyID(code);
        }
        t.setPayableAmount(d.sums().due().amount().getAmount()).setCurrencyID(code);
        return t;
    }

    private Money sumOf(List<IssuedExtra> extras) {
        return Amounts.sum(
                currency,
                extras.stream().flatMap(e -> e.parts().stream()).map(parts::get).toList());
    }
}
