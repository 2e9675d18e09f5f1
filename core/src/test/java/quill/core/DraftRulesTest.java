package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.CashRounding;
import quill.core.document.DocumentReckoning;
import quill.core.document.DraftReading;
import quill.core.document.DraftRules;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.money.Percent;
import quill.core.schedule.TypedTerm;
import quill.core.tax.Exemption;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;

/** What a draft is read against: taxes and their categories, the client's state, rates, coins. */
public class DraftRulesTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);
    private static final Map<String, Tax> TAXES = new LinkedHashMap<>();

    static {
        TAXES.put("high", Tax.standard("high", "VAT 21%", "21"));
        TAXES.put("city", Tax.standard("city", "City 2%", "2"));
        for (TaxCategory c : List.of(TaxCategory.AE, TaxCategory.K, TaxCategory.G, TaxCategory.O)) {
            TAXES.put(c.name(), new Tax(c.name(), "Tax " + c, Percent.of("0"), c, false, "because " + c));
        }
    }

    @Test(dataProvider = "categories")
    public void categoriesAskForWhatTheyNeed(
            List<String> first, List<String> second, String seller, DraftRules.Buyer buyer, String field, String says) {
        TypedDraft draft = draft(List.of(line(first), line(second)), List.of(), List.of(), "EUR", "", "");
        assertThat(DraftReading.read(draft, rules(seller, buyer)).problems())
                .anySatisfy(p -> assertThat(p.field() + ": " + p.message())
                        .startsWith(field + ": ")
                        .contains(says));
    }

    @DataProvider
    Object[][] categories() {
        DraftRules.Buyer nobody = new DraftRules.Buyer("", "", null);
        DraftRules.Buyer abroad = new DraftRules.Buyer("FR123", "", null);
        List<String> high = List.of("high");
        return new Object[][] {
            {high, List.of("O"), "BE1", nobody, "lines[1].taxes", "category O stands with no other"},
            {high, List.of("AE"), "BE1", nobody, "lines[1].taxes", "AE needs the client's tax number"},
            {List.of("AE"), List.of("AE"), "", abroad, "lines[0].taxes", "AE needs your own tax number"},
            {List.of("K"), List.of("K"), "BE1", abroad, "lines[0].taxes", "K needs the client's country"},
            {List.of("G"), List.of("G"), "", nobody, "lines[0].taxes", "G needs your own tax number"},
            {List.of("high", "AE"), high, "BE1", abroad, "lines[0].taxes", "only taxes at a rate"},
        };
    }

    @Test
    public void aSupplyWithinTheUnionNeedsItsDay() {
        TypedDraft draft = draft(List.of(line(List.of("K"))), List.of(), List.of(), "EUR", "", "");
        TypedDraft undated = draft.suppliedOn("");
        DraftRules rules = rules("BE1", new DraftRules.Buyer("FR1", "FR", null));
        assertThat(DraftReading.read(draft, rules).problems()).isEmpty();
        assertThat(DraftReading.read(undated, rules).problems())
                .extracting(Problem::field)
                .containsExactly("supplyDate");
    }

    @Test
    public void aCertificateHoldsUpToItsLastDayAndIsNamedWhenItHasEnded() {
        TypedDraft draft = draft(List.of(line(List.of("high"))), List.of(), List.of(), "EUR", "", "");
        var valid = DraftReading.read(draft, rules("BE1", new DraftRules.Buyer("", "", new Exemption("C-1", TODAY))));
        assertThat(DocumentReckoning.reckon(valid.body()).tax().isZero()).isTrue();
        assertThat(valid.notes()).singleElement().asString().contains("no tax is charged");
        var ended = DraftReading.read(
                draft, rules("BE1", new DraftRules.Buyer("", "", new Exemption("C-1", TODAY.minusDays(1)))));
        assertThat(DocumentReckoning.reckon(ended.body()).tax()).isEqualTo(Money.parse("EUR 21.00"));
        assertThat(ended.notes()).singleElement().asString().contains("C-1 ended on 14 March 2027: tax is charged");
    }

    @Test
    public void extrasAreReadAndEachSlipIsNamed() {
        TypedDraft draft = draft(
                List.of(line(List.of("high"))),
                List.of(new TypedExtra("", "", List.of()), new TypedExtra("Loyal", "120%", List.of())),
                List.of(
                        new TypedExtra("", "5", List.of("high")),
                        new TypedExtra("Delivery", "", List.of("high")),
                        new TypedExtra("Delivery", "7.50", List.of())),
                "EUR",
                "",
                "12.345");
        assertThat(DraftReading.read(draft, rules("BE1", null)).problems())
                .extracting(Problem::field)
                .containsExactly(
                        "discounts[1].amount",
                        "charges[0].description",
                        "charges[1].amount",
                        "charges[2].taxes",
                        "prepaid");
    }

    @Test
    public void anotherCurrencyTakesTheTypedRateOrTheLatestOne() {
        List<TypedLine> lines = List.of(line(List.of("high", "city")));
        assertThat(DraftReading.read(draft(lines, List.of(), List.of(), "GBP", "1.2", ""), rules("BE1", null))
                        .exchange()
                        .rate())
                .isEqualByComparingTo("1.2");
        DraftReading.Read dollars =
                DraftReading.read(draft(lines, List.of(), List.of(), "USD", "", ""), rules("BE1", null));
        assertThat(dollars.problems()).isEmpty();
        assertThat(dollars.exchange().rate()).isEqualByComparingTo("0.93");
        assertThat(DraftReading.read(draft(lines, List.of(), List.of(), "GBP", "", ""), rules("BE1", null))
                        .problems())
                .extracting(Problem::field)
                .containsExactly("rate");
        assertThat(DraftReading.read(draft(lines, List.of(), List.of(), "GBP", "0", ""), rules("BE1", null))
                        .problems())
                .extracting(Problem::message)
                .containsExactly("must be above zero");
    }

    @Test
    public void cashIsRoundedWhereACoinIsSet() {
        TypedLine line = new TypedLine("Work", "1", "", "9.99", "", List.of("O"));
        Totals euro = DocumentReckoning.reckon(
                DraftReading.read(draft(List.of(line), List.of(), List.of(), "EUR", "", ""), rules("", null))
                        .body());
        assertThat(euro.due()).isEqualTo(Money.parse("EUR 10.00"));
        var dollars = DraftReading.read(draft(List.of(line), List.of(), List.of(), "USD", "", ""), rules("", null));
        assertThat(DocumentReckoning.reckon(dollars.body()).due()).isEqualTo(Money.parse("USD 9.99"));
        assertThat(dollars.notes()).singleElement().asString().contains("No smallest coin is set for USD");
    }

    private static DraftRules rules(String seller, DraftRules.Buyer buyer) {
        return new DraftRules(
                TAXES,
                CurrencyUnit.EUR,
                TaxRounding.PER_TAX,
                Map.of(CurrencyUnit.USD, new BigDecimal("0.93")),
                Map.of(CurrencyUnit.EUR, new CashRounding(Money.parse("EUR 0.05"))),
                seller,
                buyer,
                TODAY);
    }

    private static TypedLine line(List<String> taxes) {
        return new TypedLine("Work", "1", "", "100.00", "", taxes);
    }

    private static TypedDraft draft(
            List<TypedLine> lines,
            List<TypedExtra> discounts,
            List<TypedExtra> charges,
            String currency,
            String rate,
            String prepaid) {
        return TypedDraft.in(currency)
                .client(new ClientId(1))
                .rate(rate)
                .supplyDate("2027-03-10")
                .cash(true)
                .lines(lines)
                .discounts(discounts)
                .charges(charges)
                .prepaid(prepaid)
                .schedule(List.of(new TypedTerm(false, "rest", "0")))
                .build();
    }
}
