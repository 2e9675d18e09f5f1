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
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.server.common.Texts;
import quill.server.invoices.FixedDocument;
import quill.server.invoices.FixedDocument.ExtraPart;
import quill.server.invoices.FixedDocument.PrintedExtra;
import quill.server.invoices.FixedDocument.PrintedGroup;
import quill.server.invoices.FixedDocument.PrintedLine;
import quill.server.invoices.FixedDocument.PrintedTax;

/**
 * A document's amounts as EN 16931 has them: all without tax. Where its prices have the tax inside, the net of each
 * set of taxes is shared over the lines, discounts and charges of the set.
 */
final class UblMoney {
    private static final int PRICE_DECIMALS = 10;
    private final FixedDocument d;
    private final CurrencyUnit currency;
    private final Money[] lines;
    private final Map<ExtraPart, Money> parts = new IdentityHashMap<>();

    UblMoney(FixedDocument d) {
        this.d = d;
        this.currency = CurrencyUnit.of(d.currency());
        this.lines = new Money[d.lines().size()];
        for (int g = 0; g < d.groups().size(); g++) {
            share(g);
        }
    }

    private void share(int group) {
        List<Money> amounts = new ArrayList<>();
        List<Integer> places = new ArrayList<>();
        List<ExtraPart> extras = new ArrayList<>();
        for (int i = 0; i < d.lines().size(); i++) {
            if (d.lines().get(i).group() == group) {
                places.add(i);
                amounts.add(d.lines().get(i).net().money());
            }
        }
        partsOf(d.discounts(), group).forEach(p -> {
            extras.add(p);
            amounts.add(p.amount().money().negated());
        });
        partsOf(d.charges(), group).forEach(p -> {
            extras.add(p);
            amounts.add(p.amount().money());
        });
        PrintedGroup g = d.groups().get(group);
        List<Money> nets = d.taxInside() && !amounts.isEmpty()
                ? Split.scaled(amounts, g.net().money())
                : amounts;
        for (int i = 0; i < nets.size(); i++) {
            if (i < places.size()) {
                lines[places.get(i)] = nets.get(i);
            } else {
                parts.put(extras.get(i - places.size()), nets.get(i));
            }
        }
    }

    private static List<ExtraPart> partsOf(List<PrintedExtra> extras, int group) {
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
        PrintedLine l = d.lines().get(line);
        if (l.off() == null || l.off().money().isZero() || l.net().money().isZero()) {
            return Money.zero(currency);
        }
        return d.taxInside()
                ? Split.scaled(List.of(l.net().money(), l.off().money()), scaledGross(line))
                        .get(1)
                : l.off().money();
    }

    private Money scaledGross(int line) {
        PrintedLine l = d.lines().get(line);
        return Amounts.round(
                currency,
                lines[line]
                        .getAmount()
                        .multiply(l.net().money().plus(l.off().money()).getAmount())
                        .divide(l.net().money().getAmount(), 34, RoundingMode.HALF_UP));
    }

    /** The price of one without tax, such that price x quantity less the discount is the line's net. */
    BigDecimal price(int line) {
        PrintedLine l = d.lines().get(line);
        BigDecimal price = new BigDecimal(l.unitPrice());
        BigDecimal quantity = new BigDecimal(l.quantity());
        Money gross = lines[line].plus(off(line));
        if (quantity.signum() == 0
                || Amounts.round(currency, price.multiply(quantity)).isEqual(gross)) {
            return price;
        }
        return gross.getAmount().divide(quantity, PRICE_DECIMALS, RoundingMode.HALF_UP);
    }

    PrintedTax taxOf(int group) {
        return d.taxes().get(d.groups().get(group).taxes().get(0));
    }

    /** Document discounts and charges, each set of taxes apart. */
    List<AllowanceChargeType> allowancesAndCharges() {
        List<AllowanceChargeType> all = new ArrayList<>();
        d.discounts().forEach(e -> add(all, e, false));
        d.charges().forEach(e -> add(all, e, true));
        return all;
    }

    private void add(List<AllowanceChargeType> all, PrintedExtra extra, boolean charge) {
        for (ExtraPart part : extra.parts()) {
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

    TaxCategoryType category(PrintedTax tax, boolean reason) {
        TaxCategoryType c = new TaxCategoryType();
        c.setID(tax.category());
        if (!"O".equals(tax.category())) {
            c.setPercent(new BigDecimal(tax.rate().replace("%", "")));
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
        total.setTaxAmount(d.tax().money().getAmount()).setCurrencyID(currency.getCode());
        for (PrintedTax tax : d.taxes()) {
            String key = "S".equals(tax.category()) ? tax.category() + tax.rate() : tax.category();
            TaxSubtotalType before = subtotals.get(key);
            if (before == null) {
                TaxSubtotalType s = new TaxSubtotalType();
                s.setTaxableAmount(tax.base().money().getAmount()).setCurrencyID(currency.getCode());
                s.setTaxAmount(tax.amount().money().getAmount()).setCurrencyID(currency.getCode());
                s.setTaxCategory(category(tax, true));
                subtotals.put(key, s);
                total.addTaxSubtotal(s);
            } else {
                before.setTaxableAmount(
                        before.getTaxableAmountValue().add(tax.base().money().getAmount()));
                before.getTaxableAmount().setCurrencyID(currency.getCode());
                before.setTaxAmount(
                        before.getTaxAmountValue().add(tax.amount().money().getAmount()));
                before.getTaxAmount().setCurrencyID(currency.getCode());
            }
        }
        List<TaxTotalType> totals = new ArrayList<>(List.of(total));
        if (d.own() != null) {
            TaxTotalType own = new TaxTotalType();
            own.setTaxAmount(d.own().tax().money().getAmount())
                    .setCurrencyID(d.own().currency());
            totals.add(own);
        }
        return totals;
    }

    MonetaryTotalType totals() {
        Money sum = Amounts.sum(currency, List.of(lines));
        Money allowances = sumOf(d.discounts()).negated();
        Money charges = sumOf(d.charges());
        String code = currency.getCode();
        MonetaryTotalType t = new MonetaryTotalType();
        t.setLineExtensionAmount(sum.getAmount()).setCurrencyID(code);
        t.setTaxExclusiveAmount(d.net().money().getAmount()).setCurrencyID(code);
        t.setTaxInclusiveAmount(d.total().money().getAmount()).setCurrencyID(code);
        if (!allowances.isZero()) {
            t.setAllowanceTotalAmount(allowances.getAmount()).setCurrencyID(code);
        }
        if (!charges.isZero()) {
            t.setChargeTotalAmount(charges.getAmount()).setCurrencyID(code);
        }
        if (!d.prepaid().money().isZero()) {
            t.setPrepaidAmount(d.prepaid().money().getAmount()).setCurrencyID(code);
        }
        if (!d.rounding().money().isZero()) {
            t.setPayableRoundingAmount(d.rounding().money().getAmount()).setCurrencyID(code);
        }
        t.setPayableAmount(d.due().money().getAmount()).setCurrencyID(code);
        return t;
    }

    private Money sumOf(List<PrintedExtra> extras) {
        return Amounts.sum(
                currency,
                extras.stream().flatMap(e -> e.parts().stream()).map(parts::get).toList());
    }
}
