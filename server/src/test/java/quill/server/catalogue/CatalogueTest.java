package quill.server.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.catalogue.TypedBundle;
import quill.core.catalogue.TypedBundle.BundlePart;
import quill.core.catalogue.TypedItem;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.DecimalMark;
import quill.core.schedule.TypedTerm;
import quill.server.Server;
import quill.server.business.BusinessService;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.tables.TableImport;
import quill.server.tables.TableImport.How;
import quill.server.tables.TableImport.TablePlan;

public class CatalogueTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final How LOOK = new How(null, null, null, null, null);
    private Server server;
    private CatalogueService catalogue;
    private ClientId client;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        catalogue = server.bean(CatalogueService.class);
        client = server.client("Kestrel Theatre", true);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private StoredItem item(String code, String description, String price, String stock) {
        return catalogue.item(catalogue.make(
                new TypedItem(code, description, "", Map.of("EUR", price), List.of(), "", false, stock, "2")));
    }

    private String inStock(StoredItem item) {
        return catalogue.item(item.id()).item().stock().toPlainString();
    }

    private TypedDraft draft(TypedLine... lines) {
        return TypedDraft.in("EUR")
                .client(client)
                .subject("strings")
                .supplyDate(DAY.toString())
                .lines(List.of(lines))
                .schedule(List.of(new TypedTerm(false, "rest", "30")))
                .build();
    }

    private static TypedLine of(StoredItem item, String quantity) {
        return new TypedLine(
                item.item().description(),
                quantity,
                "",
                "24.50",
                "",
                List.of("none"),
                item.id(),
                "as agreed",
                null,
                null);
    }

    @Test
    public void whatIsIssuedLeavesTheShelfAndComesBackWithACreditNote() {
        StoredItem strings = item("S-1", "Bass string", "24.50", "10");
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId id = invoices.begin(draft(of(strings, "4"), of(strings, "3")));
        assertThat(inStock(strings)).isEqualTo("10");
        invoices.issue(id, 1);
        assertThat(inStock(strings)).isEqualTo("3");

        Crediting.Wanted two = new Crediting.Wanted(
                "lines", "sent too many", List.of(new Crediting.TypedPart(0, "2")), List.of(), "", false);
        server.bean(Crediting.class).write(id, two);
        assertThat(inStock(strings)).isEqualTo("5");
        server.bean(Crediting.class).write(id, Crediting.Wanted.rest("all of it", false));
        assertThat(inStock(strings)).isEqualTo("10");
        assertThat(catalogue.movements(strings.id()))
                .extracting(Stock.Movement::kind)
                .containsExactly(Stock.Moved.CREDITED, Stock.Moved.CREDITED, Stock.Moved.ISSUED, Stock.Moved.COUNTED);
    }

    @Test
    public void theSheetSaysWhereThereIsLessThanWantedAndNothingOfWhatIsNotCounted() {
        StoredItem few = item("F-1", "Hammer head", "11.20", "2");
        StoredItem uncounted = item("U-1", "Concert tuning", "93", "");
        Documents documents = server.bean(Documents.class);
        assertThat(documents
                        .reckon(draft(of(few, "1"), of(few, "2"), of(uncounted, "9")))
                        .notes())
                .containsExactly("Hammer head: 3 wanted, only 2 in stock.");
        assertThat(documents.reckon(draft(of(few, "2"))).notes()).isEmpty();
    }

    @Test
    public void whoeverHasAnOldCountOnScreenOverwritesNothing() {
        StoredItem item = item("V-1", "Tuning pin", "1.10", "5");
        InvoicesService invoices = server.bean(InvoicesService.class);
        invoices.issue(invoices.begin(draft(of(item, "1"))), 1);
        TypedItem counted =
                new TypedItem("V-1", "Tuning pin", "", Map.of("EUR", "1.10"), List.of(), "", false, "5", "");
        assertThatThrownBy(() -> catalogue.change(item.id(), item.version(), counted))
                .isInstanceOf(ConflictException.class);
        assertThat(inStock(item)).isEqualTo("4");
    }

    @Test
    public void aCodeBelongsToOneItem() {
        item("C-1", "One", "1", "");
        assertThatThrownBy(() -> item("c-1", "Another", "1", ""))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::field).containsExactly("code"));
    }

    @Test
    public void aBundleBecomesItsLinesWithThePricesOfToday() {
        StoredItem tuning = item("B-1", "Spring tuning", "93", "");
        StoredItem travel = item("B-2", "Travel", "0.6", "");
        TypedBundle care = new TypedBundle(
                "Yearly care", List.of(new BundlePart(tuning.id(), "2"), new BundlePart(travel.id(), "14.5")));
        catalogue.keep(0, 0, care);
        CatalogueService.LineChoice choice = catalogue.choices("yearly", EUR).get(0);
        assertThat(choice.bundle()).isTrue();
        assertThat(choice.under()).isEqualTo("Spring tuning, Travel");
        assertThat(choice.lines())
                .extracting(TypedLine::quantity, TypedLine::unitPrice, TypedLine::item)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("2", "93.00", tuning.id()),
                        org.assertj.core.groups.Tuple.tuple("14.5", "0.60", travel.id()));
        assertThat(catalogue.choices("spring", CurrencyUnit.GBP).get(0).under()).contains("no price in GBP");
        assertThatThrownBy(() -> catalogue.keep(0, 0, new TypedBundle("x", List.of(new BundlePart(99_999, "1")))))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::field).containsExactly("parts[0].item"));
    }

    @Test
    public void aRetiredItemIsOfferedNoMore() {
        StoredItem old = item("R-1", "Ivory polish", "5", "");
        assertThat(catalogue.choices("ivory", EUR)).hasSize(1);
        catalogue.retire(old.id(), old.version(), true);
        assertThat(catalogue.choices("ivory", EUR)).isEmpty();
    }

    private TablePlan take(byte[] file, How how) {
        return server.bean(TableImport.class)
                .read(file, how, () -> new ItemTable(catalogue, EUR, catalogue.all()), mark());
    }

    private DecimalMark mark() {
        return DecimalMark.of(server.bean(BusinessService.class).mark());
    }

    private static How taking(TablePlan seen, Map<Integer, List<String>> mended, List<Integer> leftOut) {
        return new How(seen.columns(), seen.lettering().mark(), mended, leftOut, seen.fingerprint());
    }

    @Test
    public void tenThousandRowsWithThreeBadOnesAreTakenOnceTheThreeAreMendedOrLeftOut() {
        List<String> rows = new ArrayList<>(List.of("Code;Désignation;Name;Price;In stock"));
        IntStream.rangeClosed(1, 10_000)
                .forEach(i -> rows.add("N-" + i + ";;Étude à 4 mains " + i + ";1.2" + i % 10 + "0,50;7"));
        rows.set(17, "N-17;;;1,50;7");
        rows.set(5000, "N-5000;;No price;free;7");
        rows.set(9000, "N-2;;Twice;3,00;7");
        byte[] latin = String.join("\r\n", rows).getBytes(StandardCharsets.ISO_8859_1);
        TablePlan seen = take(latin, LOOK);
        assertThat(seen.lettering().charset()).contains("Latin-1");
        assertThat(seen.lettering().separator()).isEqualTo(";");
        assertThat(seen.lettering().mark()).isEqualTo(",");
        assertThat(seen.columns()).containsExactly("code", "", "description", "price.EUR", "stock");
        assertThat(seen.sample().get(0).values()).containsExactly("N-1", "Étude à 4 mains 1", "1210.50", "7");
        assertThat(seen.bad()).extracting(TableImport.BadRow::row).containsExactly(18, 5001, 9001);
        assertThat(seen.bad().get(2).problems().get(0).message()).contains("row 3");
        assertThat(seen.counts().fresh()).isEqualTo(9997);
        long before = count();
        assertThatThrownBy(() -> take(latin, taking(seen, Map.of(), List.of()))).isInstanceOf(RefusedException.class);
        assertThat(count()).isEqualTo(before);

        Map<Integer, List<String>> mended =
                Map.of(18, List.of("N-17", "", "Named", "1,50", "7"), 5001, List.of("N-5000", "", "Priced", "9", "7"));
        How again = new How(seen.columns(), seen.lettering().mark(), mended, List.of(9001), "");
        TablePlan good = take(latin, again);
        assertThat(good.counts().bad()).isZero();
        assertThat(take(latin, taking(good, mended, List.of(9001))).taken()).isTrue();
        assertThat(count()).isEqualTo(before + 9999);
        assertThat(take(latin, again).counts().same()).isEqualTo(9999);
    }

    private long count() {
        return server.jdbc().sql("SELECT COUNT(*) FROM item").query(Long.class).single();
    }

    @DataProvider
    public Object[][] charsets() {
        return new Object[][] {
            {"\uFEFF", StandardCharsets.UTF_8, ";"},
            {"", StandardCharsets.UTF_8, ","},
            {"\uFEFF", StandardCharsets.UTF_16LE, "\t"},
            {"\uFEFF", StandardCharsets.UTF_16BE, "|"},
            {"", StandardCharsets.ISO_8859_1, ";"}
        };
    }

    @Test(dataProvider = "charsets")
    public void lettersAndSeparatorsAreFoundOut(String mark, Charset charset, String between) {
        String text = mark + String.join(between, "What", "Unit", "Price") + "\n"
                + String.join(between, "\"Flügel" + between + " \"\"groß\"\"\nneu\"", "h", "12") + "\n\n";
        TablePlan plan = take(text.getBytes(charset), LOOK);
        assertThat(plan.sample().get(0).values()).containsExactly("Flügel" + between + " \"groß\"\nneu", "h", "12.00");
        assertThat(plan.counts().rows()).isEqualTo(1);
    }

    @DataProvider
    public Object[][] noTables() {
        return new Object[][] {
            {new byte[] {0, 1, 2, 3}},
            {new byte[0]},
            {"Code,What".getBytes(StandardCharsets.UTF_8)},
            {"Code,What\n\"open,1\n2,3".getBytes(StandardCharsets.UTF_8)}
        };
    }

    @Test(dataProvider = "noTables")
    public void whatIsNoTableIsRefusedWithAReason(byte[] file) {
        assertThatThrownBy(() -> take(file, LOOK))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::field).containsExactly("file"));
    }

    @Test
    public void whatWasWrittenIsReadAgainAsTheSameWithFormulasOutOfTheWay() {
        catalogue.make(new TypedItem(
                "=cmd|' /C calc'!A0",
                "+1 @home, \"quoted\"\nand more",
                "h",
                Map.of("EUR", "93", "GBP", "80.125"),
                List.of(),
                "Parts",
                true,
                "-1",
                "0.5"));
        List<StoredItem> all =
                catalogue.all().stream().filter(s -> !s.retired()).toList();
        List<List<String>> rows = new ItemTable(catalogue, EUR, all).rows(all);
        assertThat(rows.stream().flatMap(List::stream).filter(c -> c.contains("cmd") || c.contains("home")))
                .allMatch(c -> c.startsWith("'"));
        byte[] file = quill.server.common.Csv.file("x.csv", rows).getBody();
        TablePlan plan = take(file, LOOK);
        assertThat(plan.counts().bad()).isZero();
        assertThat(plan.counts().fresh()).isZero();
        // Only the line break, which a spreadsheet would show as another row, is lost.
        assertThat(plan.counts().changed()).isEqualTo(1);
    }

    @Test
    public void whatOthersChangedMeanwhileIsShownAnew() {
        item("M-1", "Metronome", "30", "");
        byte[] file = "Code,What,Price\nM-1,Metronome,35".getBytes(StandardCharsets.UTF_8);
        TablePlan seen = take(file, LOOK);
        assertThat(seen.counts().changed()).isEqualTo(1);
        take(file, taking(seen, Map.of(), List.of()));
        assertThatThrownBy(() -> take(file, taking(seen, Map.of(), List.of()))).isInstanceOf(ConflictException.class);
        StoredItem now = catalogue.all().stream()
                .filter(s -> s.item().code().equals("M-1"))
                .findFirst()
                .orElseThrow();
        assertThat(now.item().prices().get("EUR")).isEqualByComparingTo(new BigDecimal(35));
        assertThat(now.item().warnBelow()).isEqualByComparingTo("2");
    }

    @Test
    public void discountsAndChargesAreKeptForReuseOnceTheyCanBeRead() {
        KeptExtras extras = server.bean(KeptExtras.class);
        extras.keep(new KeptExtras.KeptExtra(0, true, "Delivery", "25.00", List.of()));
        extras.keep(new KeptExtras.KeptExtra(0, false, "Early bird", "5%", List.of()));
        assertThat(extras.all())
                .extracting(KeptExtras.KeptExtra::description)
                .containsExactly("Early bird", "Delivery");
        assertThatThrownBy(() -> extras.keep(new KeptExtras.KeptExtra(0, true, " ", "x", List.of("no such tax"))))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(quill.core.Problem::field)
                                .contains("description", "amount", "taxes"));
        assertThatThrownBy(() -> extras.keep(new KeptExtras.KeptExtra(0, false, "All of it", "", List.of())))
                .isInstanceOf(RefusedException.class);
        extras.all().forEach(e -> extras.forget(e.id()));
        assertThat(extras.all()).isEmpty();
    }
}
