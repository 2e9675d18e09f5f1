package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.apache.commons.validator.routines.checkdigit.IBANCheckDigit;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.CreditorReference;
import quill.core.document.DraftReading;
import quill.core.document.NumberPattern;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.schedule.TypedTerm;
import quill.core.tax.Tax;

public class DraftReadingTest {
    private static final Map<String, Tax> TAXES =
            Map.of("high", Tax.standard("high", "VAT 21%", "21"), "none", Tax.outsideScope());

    @Test(dataProvider = "slips")
    public void eachSlipNamesItsFieldItsValueAndWhatIsAllowed(TypedLine line, String field, String allowed) {
        DraftReading.Read read = read("EUR", line, new TypedTerm(false, "rest", "0"));
        assertThat(read.problems()).singleElement().satisfies(problem -> {
            assertThat(problem.field()).isEqualTo("lines[0]." + field);
            assertThat(problem.message()).contains(allowed);
        });
        assertThat(read.lines()).isEmpty();
    }

    @DataProvider
    Object[][] slips() {
        return new Object[][] {
            {line("abc", "1.00", ""), "quantity", "such as 14.5"},
            {line("", "1.00", ""), "quantity", "write a number"},
            {line("1.1234567", "1.00", ""), "quantity", "at most 6 decimals"},
            {line("1000000000000", "1.00", ""), "quantity", "below 1,000,000,000"},
            {line("1", "-1.00", ""), "unitPrice", "not be below zero"},
            {line("1", "1.00", "120%"), "discount", "0% to 100%"},
            {line("1", "1.00", "0.005"), "discount", "at most 2 decimals"},
            {new TypedLine(" ", "1", "", "1", "", List.of("high")), "description", "say what"},
            {new TypedLine("Work", "1", "", "1", "", List.of("gone")), "taxes", "not one of"},
        };
    }

    @Test
    public void aQuantityMayCarryItsUnit() {
        var line = read("EUR", line("6,5 h", "1.00", ""), new TypedTerm(false, "rest", "0"))
                .lines()
                .get(0);
        assertThat(line.quantity()).isEqualByComparingTo("6.5");
        assertThat(line.unit()).isEqualTo("h");
        var other = read(
                        "EUR",
                        new TypedLine("Work", "90", "km", "1", "", List.of("high")),
                        new TypedTerm(false, "rest", "0"))
                .lines()
                .get(0);
        assertThat(other.unit()).isEqualTo("km");
        var square = read("EUR", line("2,5 m2", "1.00", ""), new TypedTerm(false, "rest", "0"))
                .lines()
                .get(0);
        assertThat(square.quantity()).isEqualByComparingTo("2.5");
        assertThat(square.unit()).isEqualTo("m2");
        assertThat(read("EUR", line("1e3", "1.00", ""), new TypedTerm(false, "rest", "0"))
                        .problems())
                .extracting(Problem::field)
                .contains("lines[0].quantity");
    }

    @Test
    public void currencyDateAndScheduleAreRead() {
        DraftReading.Read unknown = read("XQZ", line("1", "1", ""), new TypedTerm(false, "60", "x"));
        assertThat(unknown.problems()).extracting(Problem::field).containsExactly("currency", "schedule[0].days");
        assertThat(read("GBP", line("1", "1", ""), new TypedTerm(false, "", "0"))
                        .problems())
                .extracting(Problem::field)
                .containsExactly("rate", "schedule[0].share");
        DraftReading.Read dates = DraftReading.read(
                TypedDraft.in("EUR")
                        .client(new ClientId(1))
                        .supplyDate("31 Feb")
                        .lines(List.of(line("1", "1", "")))
                        .build(),
                TAXES,
                CurrencyUnit.EUR);
        assertThat(dates.problems()).extracting(Problem::field).containsExactly("supplyDate");
    }

    @Test
    public void outsideScopeMixesWithNothing() {
        TypedDraft mixed = TypedDraft.in("EUR")
                .client(new ClientId(1))
                .lines(List.of(line("1", "1", ""), new TypedLine("Other", "1", "", "1", "", List.of("none"))))
                .build();
        assertThat(DraftReading.read(mixed, TAXES, CurrencyUnit.EUR).problems())
                .extracting(Problem::field)
                .containsExactly("lines[1].taxes");
    }

    /** What stands there is no income, and an invoice of nothing else is a deposit invoice. */
    @Test
    public void noLineStandsWhereDepositsDo() {
        TypedLine line =
                new TypedLine("Work", "1", "", "100.00", "", List.of("high"), null, null, null, "deposits Invoiced ");
        assertThat(read("EUR", line, new TypedTerm(false, "rest", "0")).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.field() + " " + p.message())
                        .isEqualTo("lines[0].category is what deposits stand under; give the category another name"));
    }

    @Test
    public void emptyLinesArePassedOverAndGroupedNumbersRead() {
        TypedLine blank = new TypedLine("", "", "", "", "", List.of("high"));
        DraftReading.Read read = DraftReading.read(
                TypedDraft.in("EUR")
                        .client(new ClientId(1))
                        .lines(List.of(blank, line("1,234.5", "2", "5")))
                        .build(),
                TAXES,
                CurrencyUnit.EUR);
        assertThat(read.problems()).isEmpty();
        assertThat(read.places()).containsExactly(1);
        assertThat(read.lines().get(0).quantity()).isEqualByComparingTo("1234.5");
    }

    @Test
    public void numbersFollowThePattern() {
        NumberPattern pattern = new NumberPattern("{year}-{seq}");
        assertThat(pattern.format(2027, 31)).isEqualTo("2027-0031");
        assertThat(pattern.seriesOf(2027)).isEqualTo(2027);
        assertThat(new NumberPattern("R{seq}").seriesOf(2027)).isZero();
        assertThatThrownBy(() -> new NumberPattern("{year}")).hasMessageContaining("{seq}");
    }

    /** ISO 11649 and ISO 13616 use ISO 7064 MOD 97-10; checked by another library's implementation of it. */
    @Test
    public void creditorReferencesHaveRightCheckDigits() throws Exception {
        IBANCheckDigit other = new IBANCheckDigit();
        for (int i = 1; i < 500; i++) {
            String reference = CreditorReference.of("2027-" + String.format("%04d", i * 17));
            assertThat(other.isValid(reference)).as(reference).isTrue();
            assertThat(CreditorReference.isValid(reference)).isTrue();
        }
        // published samples: ISO 11649 RF18 5390 0754 7034; ISO 13616 GB82 WEST 1234 5698 7654 32
        assertThat(CreditorReference.isValid("RF18 5390 0754 7034")).isTrue();
        assertThat(CreditorReference.isValid("GB82 WEST 1234 5698 7654 32")).isTrue();
        assertThat(CreditorReference.isValid("GB82 WEST 1234 5698 7654 33")).isFalse();
        assertThat(CreditorReference.grouped("RF18539007547034")).isEqualTo("RF18 5390 0754 7034");
    }

    private static TypedLine line(String quantity, String price, String discount) {
        return new TypedLine("Work", quantity, "", price, discount, List.of("high"));
    }

    private static DraftReading.Read read(String currency, TypedLine line, TypedTerm term) {
        return DraftReading.read(
                TypedDraft.in(currency)
                        .client(new ClientId(1))
                        .lines(List.of(line))
                        .schedule(List.of(term))
                        .build(),
                TAXES,
                CurrencyUnit.EUR);
    }
}
