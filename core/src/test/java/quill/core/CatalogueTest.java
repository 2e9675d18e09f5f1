package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.catalogue.Item;
import quill.core.catalogue.ItemReading;
import quill.core.catalogue.TypedBundle;
import quill.core.catalogue.TypedItem;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.money.DecimalMark;
import quill.core.money.Percent;
import quill.core.table.ColumnKind;
import quill.core.table.Columns;
import quill.core.table.PastedRows;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;

public class CatalogueTest {
    private static final Map<String, Tax> TAXES =
            Map.of("full", new Tax("full", "VAT 21%", new Percent(new BigDecimal(21)), TaxCategory.S, false, ""));
    private static final List<ColumnKind> KINDS = List.of(
            new ColumnKind("code", "Code", List.of("sku", "article no"), false),
            new ColumnKind("description", "Description", List.of("designation", "what"), true));

    private static TypedItem item(String price, String stock, String... taxes) {
        return new TypedItem(
                " T-1 ",
                " Concert tuning ",
                "h",
                Map.of("EUR", price, "GBP", ""),
                List.of(taxes),
                " Tuning ",
                false,
                stock,
                "2");
    }

    private static List<String> fields(Throwable thrown) {
        return ((RefusedException) thrown)
                .problems().stream().map(Problem::field).toList();
    }

    @Test
    public void noItemStandsWhereDepositsDo() {
        TypedItem deposit = new TypedItem(
                "D", "Deposit", "", Map.of("EUR", "1.00"), List.of("full"), "Deposits invoiced", false, "", "");
        assertThat(ItemReading.read(deposit, TAXES).problems())
                .extracting(Problem::field)
                .containsExactly("category");
    }

    @Test
    public void readsWhatWasTypedAndLeavesOutWhatIsEmpty() {
        Item read = ItemReading.read(item("3*31", "", "vat 21%", "full"), TAXES).item();
        assertThat(read.code()).isEqualTo("T-1");
        assertThat(read.description()).isEqualTo("Concert tuning");
        assertThat(read.prices()).isEqualTo(Map.of("EUR", new BigDecimal("93")));
        assertThat(read.taxes()).containsExactly("full");
        assertThat(read.stock()).isNull();
        assertThat(read.isLow()).isFalse();
    }

    @Test
    public void namesEverySlipOfARow() {
        TypedItem typed = new TypedItem(
                "x".repeat(41),
                " ",
                "",
                Map.of("EUR", "-3", "EURO", "1"),
                List.of("VAT 19%"),
                "y".repeat(61),
                false,
                "many",
                "");
        ItemReading.Read read = ItemReading.read(typed, TAXES);
        assertThat(read.item()).isNull();
        assertThat(read.problems())
                .extracting(Problem::field)
                .containsExactlyInAnyOrder(
                        "code", "description", "prices.EUR", "prices.EURO", "taxes", "category", "stock");
        assertThat(read.problems())
                .filteredOn(p -> p.field().equals("taxes"))
                .singleElement()
                .satisfies(p -> assertThat(p.message()).contains("VAT 21%"));
    }

    @DataProvider
    public Object[][] counts() {
        return new Object[][] {
            {"3", "2", false},
            {"2", "2", false},
            {"1.5", "2", true},
            {"-1", "", true},
            {"", "2", false}
        };
    }

    @Test(dataProvider = "counts")
    public void warnsOfFewOnlyWhereTheyAreCounted(String stock, String below, boolean low) {
        assertThat(Item.isLow(number(stock), number(below))).isEqualTo(low);
    }

    private static BigDecimal number(String text) {
        return text.isEmpty() ? null : new BigDecimal(text);
    }

    @Test
    public void aCommaIsTheMarkWhereTheBusinessTypesOne() {
        Item read = ItemReading.read(item("1.234,5", "1.200").plain(DecimalMark.COMMA), TAXES)
                .item();
        assertThat(read.prices().get("EUR")).isEqualByComparingTo("1234.5");
        assertThat(read.stock()).isEqualByComparingTo("1200");
    }

    @Test
    public void aBundleNeedsANameLinesAndQuantities() {
        assertThat(new TypedBundle("Yearly care", List.of(new TypedBundle.BundlePart(1, "2"))).quantities())
                .containsExactly(new BigDecimal(2));
        assertThatThrownBy(() -> new TypedBundle("", List.of()).quantities())
                .satisfies(e -> assertThat(fields(e)).containsExactly("name", "parts"));
        assertThatThrownBy(() -> new TypedBundle("x", List.of(new TypedBundle.BundlePart(1, "two"))).quantities())
                .satisfies(e -> assertThat(fields(e)).containsExactly("parts[0].quantity"));
    }

    @Test
    public void knowsColumnsByTheirHeadsWhateverTheirAccentsAndSigns() {
        assertThat(Columns.recognise(List.of("Article-No.", "DÉSIGNATION", "What", "Colour"), KINDS))
                .containsExactly("code", "description", "", "");
        assertThat(Columns.missing(List.of("code"), KINDS).orElseThrow().name()).isEqualTo("description");
    }

    @Test
    public void aChoiceOfColumnsIsChecked() {
        Columns.check(List.of("description", "", ""), KINDS);
        assertThatThrownBy(() -> Columns.check(List.of("code", "colour", "code"), KINDS))
                .satisfies(e -> assertThat(fields(e)).containsExactly("columns[1]", "columns[2]", "columns"));
    }

    @DataProvider
    public Object[][] pasted() {
        return new Object[][] {
            {"Tuning|2|93,00;Travel, by car|18|0,62", "description,quantity,unitPrice", "Tuning/2//93,00/"},
            {"Tuning|93.00", "description,unitPrice", "Tuning/1//93.00/"},
            {"T-1|Concert tuning|2|h|93.00|186.00", ",description,quantity,unit,unitPrice,", "Concert tuning/2/h/93.00/"
            },
            {"Qty|What|Each|Less;2|Strings|24.50|10%", "quantity,description,unitPrice,discount", "Strings/2//24.50/10%"
            },
            {"Strings|2|24.50|10%", "description,quantity,unitPrice,discount", "Strings/2//24.50/10%"},
            {"Only words", "description", "Only words/1///"},
        };
    }

    @Test(dataProvider = "pasted")
    public void pastedColumnsAreKnownByHeadsOrByWhatStandsInThem(String text, String columns, String first) {
        List<List<String>> rows = Arrays.stream(text.split(";"))
                .map(r -> List.of(r.split("\\|", -1)))
                .toList();
        PastedRows.Recognised how = PastedRows.recognise(rows, DecimalMark.POINT);
        assertThat(String.join(",", how.columns())).isEqualTo(columns);
        TypedLine line = PastedRows.lines(rows, how, List.of("full")).get(0);
        assertThat(String.join(
                        "/", line.description(), line.quantity(), line.unit(), line.unitPrice(), line.discount()))
                .isEqualTo(first);
        assertThat(line.taxes()).containsExactly("full");
    }

    @Test
    public void blankPastedRowsAreLeftOut() {
        List<List<String>> rows = List.of(List.of("A", "1"), List.of(" ", ""), List.of("B", "2"));
        PastedRows.Recognised how = PastedRows.recognise(rows, DecimalMark.COMMA);
        assertThat(PastedRows.lines(rows, how, List.of()))
                .extracting(TypedLine::description)
                .containsExactly("A", "B");
    }
}
