package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.Charge;
import quill.core.document.CreditReckoning;
import quill.core.document.Creditable;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentDiscount;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Income;
import quill.core.document.IncomeReckoning;
import quill.core.document.Line;
import quill.core.document.Taken;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;

/** Income by the business's own categories: a few by hand, many generated. */
public class IncomeTest {
    private static final Tax HIGH = new Tax("high", "VAT 21%", Percent.of("21"), TaxCategory.S, false, "");
    private static final Tax ZERO = new Tax("zero", "Zero", Percent.of("0"), TaxCategory.Z, false, "");

    private static Line line(String price, String category, Tax tax) {
        return new Line(
                "work", BigDecimal.ONE, "", new BigDecimal(price), new Extent.None(), List.of(tax), null, "", category);
    }

    private static Totals totals(boolean inside, List<DocumentDiscount> off, List<Charge> charges, Line... lines) {
        return DocumentReckoning.reckon(new DocumentBody(
                CurrencyUnit.EUR, List.of(lines), off, charges, inside, TaxRounding.PER_TAX, null, null, null));
    }

    private static String words(List<Income> income) {
        return income.stream()
                .map(i ->
                        i.tax() + " " + i.category() + " " + i.net().getAmount().toPlainString())
                .collect(Collectors.joining(", "));
    }

    private static String of(Totals totals) {
        return words(IncomeReckoning.ofInvoice(Creditable.of(totals)));
    }

    @Test
    public void eachCategoryHasItsLines() {
        assertThat(of(totals(
                        false,
                        List.of(),
                        List.of(),
                        line("60", "Tuning", HIGH),
                        line("30", "Strings", HIGH),
                        line("5", "Tuning", HIGH),
                        line("9", "Strings", ZERO),
                        line("1", "", HIGH))))
                .isEqualTo("S Tuning 65.00, S Strings 30.00, S  1.00, Z Strings 9.00");
    }

    @Test
    public void aDiscountOnTheWholeIsSplitAndAChargeHasNoCategory() {
        Totals t = totals(
                false,
                List.of(new DocumentDiscount("loyal", new Extent.OfPercent(Percent.of("10")), List.of())),
                List.of(new Charge("delivery", new Extent.OfAmount(Money.of(CurrencyUnit.EUR, 10)), List.of(HIGH))),
                line("60", "Tuning", HIGH),
                line("30", "Strings", HIGH));
        assertThat(of(t)).isEqualTo("S Tuning 54.00, S Strings 27.00, S  10.00");
        Totals third = totals(
                false,
                List.of(new DocumentDiscount(
                        "loyal", new Extent.OfAmount(Money.of(CurrencyUnit.EUR, new BigDecimal("0.01"))), List.of())),
                List.of(),
                line("1", "Tuning", HIGH),
                line("1", "Strings", HIGH),
                line("1", "Hire", HIGH));
        assertThat(of(third)).isEqualTo("S Tuning 0.99, S Strings 1.00, S Hire 1.00");
    }

    @Test
    public void ofPricesWithTheTaxInsideTheTaxIsNoIncome() {
        assertThat(of(totals(true, List.of(), List.of(), line("121", "Tuning", HIGH), line("60.50", "Hire", HIGH))))
                .isEqualTo("S Tuning 100.00, S Hire 50.00");
    }

    @Test
    public void aReturnedPartLowersItsCategoryAlone() {
        Line back = new Line(
                "string",
                new BigDecimal("-2"),
                "",
                new BigDecimal("10"),
                new Extent.None(),
                List.of(HIGH),
                null,
                "",
                "Strings");
        assertThat(of(totals(false, List.of(), List.of(), line("60", "Tuning", HIGH), back)))
                .isEqualTo("S Tuning 60.00, S Strings -20.00");
    }

    @Test
    public void creditedByLinesOrByAmountEachCategoryGivesWhatItHas() {
        Creditable invoice = Creditable.of(
                totals(false, List.of(), List.of(), line("60", "Tuning", HIGH), line("30", "Strings", HIGH)));
        var strings = CreditReckoning.ofLines(invoice, Taken.nothing(invoice), Map.of(1, BigDecimal.ONE), List.of());
        assertThat(words(strings.income())).isEqualTo("S Strings 30.00");
        var part = CreditReckoning.ofAmount(
                invoice, Taken.nothing(invoice), Money.of(CurrencyUnit.EUR, new BigDecimal("36.30")));
        assertThat(words(part.income())).isEqualTo("S Tuning 20.00, S Strings 10.00");
        var rest = CreditReckoning.ofRest(invoice, part.after());
        assertThat(words(rest.income())).isEqualTo("S Tuning 40.00, S Strings 20.00");
    }

    @Test
    public void categoriesSumToTheNetOfTheirTaxWhateverTheDocument() {
        Documents documents = new Documents(71, Documents.ALL);
        int several = 0;
        for (int i = 0; i < 5_000; i++) {
            Totals t = Documents.totals(
                    documents.next(CurrencyUnit.of(List.of("EUR", "JPY", "KWD").get(i % 3))));
            List<Income> income = IncomeReckoning.ofInvoice(Creditable.of(t));
            Map<TaxCategory, Money> sums = new HashMap<>();
            income.forEach(x -> sums.merge(x.tax(), x.net().negated(), Money::plus));
            for (TaxGroup g : t.groups()) {
                sums.merge(g.taxes().get(0).category(), g.net(), Money::plus);
            }
            assertThat(sums.values()).as("document " + i).allMatch(Money::isZero);
            assertThat(Amounts.sum(
                            t.net().getCurrencyUnit(),
                            income.stream().map(Income::net).toList()))
                    .isEqualTo(t.net());
            several += income.stream().map(Income::category).distinct().count() > 1 ? 1 : 0;
        }
        assertThat(several).isGreaterThan(2_000);
    }
}
