package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.time.LocalDate;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.testng.annotations.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;
import quill.core.ledger.DebtKind;
import quill.core.ledger.Standing;
import quill.server.common.Amount;
import quill.server.invoices.Measure.Part;

public class MeasureDrawingTest {
    @Test
    public void partsStandSideBySideAndEndWithTheBox() throws Exception {
        String svg = MeasureDrawing.svg(
                List.of(part(1, 400, 1000, Standing.SETTLED), part(2, 600, 0, Standing.LATE)), 664, 16);
        Document document =
                DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(new InputSource(new StringReader(svg)));
        NodeList boxes = document.getElementsByTagName("rect");
        assertThat(boxes.getLength()).isEqualTo(3); // two outlines, and the ink of what is paid
        double end = 0;
        for (int i = 0; i < boxes.getLength(); i++) {
            Element box = (Element) boxes.item(i);
            end = Math.max(end, number(box, "x") + number(box, "width"));
        }
        assertThat(end).isEqualTo(663.5);
    }

    @Test
    public void manyPartsEndWithTheBoxToo() {
        List<Part> twelve = java.util.stream.IntStream.rangeClosed(1, 12)
                .mapToObj(i -> part(i, 83, 0, Standing.COMING))
                .toList();
        String svg = MeasureDrawing.svg(twelve, 672, 16);
        int last = svg.lastIndexOf("x=\"");
        assertThat(svg.substring(last)).startsWith("x=\"618.5\" y=\"0.5\" width=\"53\" height=\"14\"");
    }

    @Test
    public void takenBackIsStruckThrough() {
        assertThat(MeasureDrawing.svg(List.of(part(1, 1000, 0, Standing.CREDITED)), 100, 10))
                .contains("<line ");
    }

    private static double number(Element box, String name) {
        return Double.parseDouble(box.getAttribute(name));
    }

    private static Part part(int position, int weight, int filled, Standing standing) {
        Amount amount = new Amount("1.00", "EUR");
        LocalDate due = LocalDate.of(2027, 3, 1);
        return new Part(
                position, position, DebtKind.INSTALLMENT, amount, amount, due, null, standing, "", 0, weight, filled);
    }
}
