package quill.server.formats;

import com.helger.xsds.ccts.cct.schemamodule.AmountType;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.AllowanceChargeType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxCategoryType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxSubtotalType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxTotalType;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.catalogue.UnitCodes;
import quill.core.document.Charge;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentDiscount;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;

/** Reads an invoice or credit note in UBL into what the core reckons, beside the figures that it states itself. */
public final class UblReading {
    private static final int EXACT_DECIMALS = 12;
    private final UblSource source;
    private final CurrencyUnit currency;
    private final Map<String, Tax> taxes = new LinkedHashMap<>();
    private final Map<String, String> reasons = new LinkedHashMap<>();

    private UblReading(UblSource source, CurrencyUnit currency) {
        this.source = source;
        this.currency = currency;
    }

    /**
     * What was read.
     *
     * @param body to be reckoned
     * @param lineNets what each of the body's lines comes to by the file, charges on lines being lines of their own
     * @param stated the totals by the file
     */
    public record Read(String number, boolean creditNote, DocumentBody body, List<Money> lineNets, Stated stated) {
        /**
         * Where the file's own figures and the reckoned ones part, in words; empty where they agree.
         *
         * @param totals what the core made of the body
         */
        public List<String> differences(Totals totals) {
            List<String> said = new ArrayList<>();
            for (int i = 0; i < lineNets.size(); i++) {
                compare(
                        said,
                        "line " + (i + 1),
                        lineNets.get(i),
                        totals.lines().get(i).net());
            }
            compare(said, "net", stated.net(), totals.net());
            compare(said, "tax", stated.tax(), totals.tax());
            compare(said, "total", stated.total(), totals.total());
            compare(said, "payable", stated.payable(), totals.due().plus(stated.rounding()));
            return said;
        }

        private static void compare(List<String> said, String what, Money stated, Money reckoned) {
            if (!stated.isEqual(reckoned)) {
                said.add("The file states " + Amounts.grouped(stated) + " as " + what + ", its lines come to "
                        + Amounts.grouped(reckoned) + ".");
            }
        }
    }

    /** Totals as a file states them. */
    public record Stated(Money net, Money tax, Money total, Money prepaid, Money rounding, Money payable) {}

    /**
     * Reads a file.
     *
     * @throws RefusedException where it is no UBL 2.1 invoice or credit note, or says what cannot be read
     */
    public static Read read(byte[] bytes) {
        return read(UblSource.parse(bytes));
    }

    static Read read(UblSource source) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = TypedNumber.currency("currency", source.currency(), problems);
        if (source.totals() == null || source.lines().isEmpty()) {
            problems.add(new Problem("file", "", "must have lines and totals"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new UblReading(source, currency).read();
    }

    private Read read() {
        statedTaxes().ifPresent(t -> t.getTaxSubtotal().forEach(this::reason));
        List<Line> lines = new ArrayList<>();
        List<Money> nets = new ArrayList<>();
        for (UblSource.SourceLine line : source.lines()) {
            read(line, lines, nets);
        }
        List<DocumentDiscount> discounts = new ArrayList<>();
        List<Charge> charges = new ArrayList<>();
        for (AllowanceChargeType extra : source.extras()) {
            List<Tax> set = List.of(tax(extra.hasTaxCategoryEntries() ? extra.getTaxCategoryAtIndex(0) : null));
            Extent extent = new Extent.OfAmount(money(extra.getAmount()));
            if (isCharge(extra)) {
                charges.add(new Charge(reason(extra), extent, set));
            } else {
                discounts.add(new DocumentDiscount(reason(extra), extent, set));
            }
        }
        Money prepaid = money(source.totals().getPrepaidAmount());
        DocumentBody body =
                new DocumentBody(currency, lines, discounts, charges, false, TaxRounding.PER_TAX, null, prepaid, null);
        return new Read(source.number(), source.creditNote(), body, nets, stated(prepaid));
    }

    private Stated stated(Money prepaid) {
        return new Stated(
                money(source.totals().getTaxExclusiveAmount()),
                statedTaxes().map(t -> money(t.getTaxAmount())).orElse(Money.zero(currency)),
                money(source.totals().getTaxInclusiveAmount()),
                prepaid,
                money(source.totals().getPayableRoundingAmount()),
                money(source.totals().getPayableAmount()));
    }

    /** The tax in the document's currency; a second total may state it in another. */
    private Optional<TaxTotalType> statedTaxes() {
        return source.taxes().stream()
                .filter(t -> t.getTaxAmount() != null
                        && (t.getTaxAmount().getCurrencyID() == null
                                || t.getTaxAmount().getCurrencyID().equals(currency.getCode())))
                .findFirst();
    }

    private void reason(TaxSubtotalType subtotal) {
        TaxCategoryType category = subtotal.getTaxCategory();
        if (category == null) {
            return;
        }
        String words = category.hasTaxExemptionReasonEntries()
                ? category.getTaxExemptionReasonAtIndex(0).getValue()
                : category.getTaxExemptionReasonCodeValue();
        if (words != null) {
            reasons.putIfAbsent(category.getIDValue(), words);
        }
    }

    private void read(UblSource.SourceLine line, List<Line> lines, List<Money> nets) {
        BigDecimal quantity =
                line.quantity() == null ? BigDecimal.ONE : line.quantity().getValue();
        BigDecimal price = line.price() == null ? BigDecimal.ZERO : line.price().getPriceAmountValue();
        BigDecimal base = line.price() == null || line.price().getBaseQuantityValue() == null
                ? BigDecimal.ONE
                : line.price().getBaseQuantityValue();
        if (base.signum() <= 0) {
            throw new RefusedException("file", base.toPlainString(), "has a price for a quantity of zero or less");
        }
        if (quantity.multiply(price).abs().compareTo(base.multiply(TypedNumber.LARGEST)) >= 0
                || quantity.abs().compareTo(TypedNumber.LIMIT) >= 0
                || price.abs().compareTo(TypedNumber.LARGEST) >= 0) {
            throw new RefusedException(
                    "file", name(line), "has a line of " + TypedNumber.LARGEST_IN_WORDS + " or more");
        }
        List<Tax> set = List.of(tax(
                line.item() == null || line.item().hasNoClassifiedTaxCategoryEntries()
                        ? null
                        : line.item().getClassifiedTaxCategoryAtIndex(0)));
        Money off = Money.zero(currency);
        Money net = money(line.net());
        for (AllowanceChargeType extra : line.extras()) {
            Money amount = money(extra.getAmount());
            if (isCharge(extra)) {
                lines.add(single(reason(extra), amount, set));
                nets.add(amount);
                net = net.minus(amount);
            } else {
                off = off.plus(amount);
            }
        }
        // Only quantity x price has a meaning of its own, so the sign of a price below zero goes to the quantity.
        boolean turned = price.signum() < 0;
        lines.add(new Line(
                name(line),
                turned ? quantity.negate() : quantity,
                line.quantity() == null ? "" : UnitCodes.words(line.quantity().getUnitCode()),
                base.compareTo(BigDecimal.ONE) == 0 ? price.abs() : price.abs().divide(base, MathContext.DECIMAL128),
                off.isZero() ? new Extent.None() : new Extent.OfAmount(off),
                set,
                null,
                description(line),
                ""));
        nets.add(net);
    }

    private Line single(String what, Money amount, List<Tax> set) {
        BigDecimal one = amount.isNegative() ? BigDecimal.ONE.negate() : BigDecimal.ONE;
        return new Line(what, one, "", amount.getAmount().abs(), new Extent.None(), set);
    }

    private static String name(UblSource.SourceLine line) {
        String name = line.item() == null ? null : line.item().getNameValue();
        return name == null || name.isBlank() ? "Line" : name.strip();
    }

    private static String description(UblSource.SourceLine line) {
        return line.item() == null
                ? ""
                : line.item().getDescription().stream()
                        .map(d -> d.getValue() == null ? "" : d.getValue().strip())
                        .filter(d -> !d.isEmpty())
                        .collect(Collectors.joining("\n"));
    }

    private static boolean isCharge(AllowanceChargeType extra) {
        return extra.getChargeIndicator() != null && extra.getChargeIndicator().isValue();
    }

    private static String reason(AllowanceChargeType extra) {
        return extra.hasAllowanceChargeReasonEntries()
                ? extra.getAllowanceChargeReasonAtIndex(0).getValue()
                : isCharge(extra) ? "Charge" : "Discount";
    }

    private Tax tax(TaxCategoryType category) {
        if (category == null || category.getIDValue() == null) {
            throw new RefusedException("file", "", "has a line without a tax category");
        }
        BigDecimal rate = category.getPercentValue() == null ? BigDecimal.ZERO : category.getPercentValue();
        String key = category.getIDValue() + " " + rate.stripTrailingZeros().toPlainString();
        return taxes.computeIfAbsent(key, k -> tax(category.getIDValue(), rate));
    }

    private Tax tax(String code, BigDecimal rate) {
        TaxCategory category;
        try {
            category = TaxCategory.valueOf(code);
        } catch (IllegalArgumentException e) {
            throw new RefusedException("file", code, "has a tax category that is none of S, Z, E, AE, K, G, O");
        }
        String reason = category.needsReason() ? reasons.getOrDefault(code, "as on the document that was read") : "";
        String plain = rate.stripTrailingZeros().toPlainString();
        return new Tax(code + plain, code + " " + plain + "%", new Percent(rate), category, false, reason);
    }

    private Money money(AmountType amount) {
        return amount == null ? Money.zero(currency) : money(amount.getValue());
    }

    private Money money(BigDecimal amount) {
        BigDecimal exact = amount == null ? BigDecimal.ZERO : amount;
        if (exact.setScale(EXACT_DECIMALS, RoundingMode.HALF_UP)
                        .abs()
                        .compareTo(TypedNumber.LIMIT.multiply(BigDecimal.TEN.pow(3)))
                >= 0) {
            throw new RefusedException("file", exact.toPlainString(), "has an amount that is too large");
        }
        return Amounts.round(currency, exact);
    }
}
