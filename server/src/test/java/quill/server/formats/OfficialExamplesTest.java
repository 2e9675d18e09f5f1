package quill.server.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.jar.JarFile;
import java.util.zip.ZipEntry;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.tax.TaxRounding;

/**
 * The official example invoices of EN 16931, of Peppol BIS Billing 3 and of the German XRechnung, read from the
 * archives that their validation artefacts ship in, reckoned again, and compared with the totals they state.
 */
public class OfficialExamplesTest {
    private static final String EN = "/external/test-files/1.3.16/ubl/";
    private static final String PEPPOL = "/external/test-files/openpeppol/2026.5/";
    private static final String GERMAN = "/external/test-files/3.0.2/ubl-inv/";

    /** Official and valid, but not to be multiplied out line by line: quantity, price or sign do not make the line. */
    private static final Map<String, String> LINES_AS_STATED = Map.ofEntries(
            Map.entry("ubl-tc434-example1.xml", "line 20 gives 2 back, with the sign on the line alone"),
            Map.entry("ubl-tc434-example10.xml", "the same lines as example 1"),
            Map.entry("guide-example1.xml", "the same lines as example 1"),
            Map.entry("ubl-tc434-example2.xml", "line 2 states less than its quantity at its price"),
            Map.entry("guide-example2.xml", "the same lines as example 2"),
            Map.entry("ubl-tc434-example3.xml", "its lines are half of their quantities at their prices"),
            Map.entry("guide-example3.xml", "its lines are a quarter of their quantities at their prices"),
            Map.entry("03.01a-INVOICE_ubl.xml", "line 13 is cut to 48.33 where half up gives 48.34"),
            Map.entry("03.04a-INVOICE_ubl.xml", "lines 2 and 3 are a cent above quantity x price"),
            Map.entry("03.05a-INVOICE_ubl.xml", "line 2 is a cent above quantity x price"));

    /** Not reckoned at all. */
    private static final Map<String, String> REFUSED = Map.of(
            "FT G2G_TD01 con Allegato, Bonifico e Split Payment.xml",
            "category B, the split payment of one country, which is not kept here");

    @Test(dataProvider = "examples")
    public void statedTotalsAreReckonedAgain(String name, byte[] bytes) {
        if (REFUSED.containsKey(name)) {
            assertThatThrownBy(() -> UblReading.read(bytes))
                    .as(REFUSED.get(name))
                    .hasMessageContaining("(B)");
            return;
        }
        UblReading.Read read = UblReading.read(bytes);
        String why = LINES_AS_STATED.get(name);
        DocumentBody body = why == null ? read.body() : asStated(read);
        assertThat(read.differences(DocumentReckoning.figures(body))).as(name).isEmpty();
        if (why != null) {
            assertThat(read.differences(DocumentReckoning.figures(read.body())))
                    .as(name + ": " + why)
                    .isNotEmpty();
        }
    }

    /** Example 8 is right only where tax is rounded once per rate; rounded on each line it would be 190.88. */
    @Test
    public void anOfficialExampleTellsRoundingPerRateFromRoundingPerLine() throws IOException {
        DocumentBody b = body(EN + "ubl-tc434-example8.xml");
        assertThat(DocumentReckoning.figures(b).tax().getAmount()).isEqualByComparingTo("190.87");
        DocumentBody perLine = new DocumentBody(
                b.currency(), b.lines(), b.discounts(), b.charges(), false, TaxRounding.PER_LINE, null, null, null);
        assertThat(DocumentReckoning.figures(perLine).tax().getAmount()).isEqualByComparingTo("190.88");
    }

    /** 156435.885 is 156435.89, and its negative twin -156435.89: half up away from zero. */
    @Test
    public void officialTwinsTellHalfUpFromOtherRoundings() throws IOException {
        for (String twin : List.of("BIS3_Invoice_positive.XML", "BIS3_Invoice_negativ.XML")) {
            Totals totals = DocumentReckoning.figures(body(EN + twin));
            assertThat(totals.taxes())
                    .anySatisfy(t -> assertThat(t.amount().getAmount().abs()).isEqualByComparingTo("156435.89"));
        }
    }

    private static DocumentBody body(String file) throws IOException {
        try (InputStream in = OfficialExamplesTest.class.getResourceAsStream(file)) {
            return UblReading.read(in.readAllBytes()).body();
        }
    }

    /** The stated amount of each line in place of quantity x price. */
    private static DocumentBody asStated(UblReading.Read read) {
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < read.body().lines().size(); i++) {
            Line line = read.body().lines().get(i);
            var net = read.lineNets().get(i).getAmount();
            lines.add(new Line(line.description(), java.math.BigDecimal.ONE, "", net, new Extent.None(), line.taxes()));
        }
        DocumentBody b = read.body();
        return new DocumentBody(
                b.currency(), lines, b.discounts(), b.charges(), false, TaxRounding.PER_TAX, null, b.prepaid(), null);
    }

    @DataProvider
    Object[][] examples() throws IOException {
        List<Object[]> all = new ArrayList<>();
        all.addAll(files(EN, "ubl-tc434-example8.xml", 19));
        all.addAll(files(PEPPOL + "billing/", "base-example.xml", 10));
        all.addAll(files(PEPPOL, "SB-base-example.xml", 9));
        all.addAll(files(GERMAN, "01.01a-INVOICE_ubl.xml", 33));
        return all.toArray(Object[][]::new);
    }

    private static List<Object[]> files(String folder, String known, int count) throws IOException {
        URL url = OfficialExamplesTest.class.getResource(folder + known);
        assertThat(url).as(folder + known).isNotNull();
        String archive = url.getPath().replaceAll("^file:|!.*$", "");
        List<Object[]> found = new ArrayList<>();
        try (JarFile jar = new JarFile(Path.of(archive).toFile())) {
            for (ZipEntry entry : jar.stream().toList()) {
                String name = "/" + entry.getName();
                String file = name.substring(name.lastIndexOf('/') + 1);
                boolean wanted =
                        name.equals(folder + file) && file.toLowerCase().endsWith(".xml");
                if (wanted && (!folder.equals(PEPPOL) || file.startsWith("SB-"))) {
                    try (InputStream in = jar.getInputStream(entry)) {
                        found.add(new Object[] {file, in.readAllBytes()});
                    }
                }
            }
        }
        assertThat(found).as(folder).hasSize(count);
        return found;
    }
}
