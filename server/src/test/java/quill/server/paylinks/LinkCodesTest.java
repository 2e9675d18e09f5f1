package quill.server.paylinks;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.client.j2se.BufferedImageLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.time.LocalDate;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.pay.LinkAmount;

/** A payment link as it is printed, or set into a page of one's own. */
public class LinkCodesTest {
    private static final String PAGE = "https://workshop.example/p/AbC-123_xyz";
    private static final Pattern SIDE = Pattern.compile("viewBox=\"0 0 (\\d+) ");
    private static final Pattern SQUARE = Pattern.compile("M(\\d+) (\\d+)h1v1h-1z");

    private static String read(BufferedImage image) throws Exception {
        return new QRCodeReader()
                .decode(new BinaryBitmap(new HybridBinarizer(new BufferedImageLuminanceSource(image))))
                .getText();
    }

    @Test
    public void thePictureLeadsToThePage() throws Exception {
        assertThat(read(ImageIO.read(new ByteArrayInputStream(LinkCodes.png(PAGE)))))
                .isEqualTo(PAGE);
    }

    /** The drawing is read square by square, each four dots wide. */
    @Test
    public void theDrawingLeadsToThePage() throws Exception {
        String svg = LinkCodes.svg(PAGE);
        Matcher side = SIDE.matcher(svg);
        assertThat(side.find()).isTrue();
        int dots = Integer.parseInt(side.group(1)) * 4;
        BufferedImage image = new BufferedImage(dots, dots, BufferedImage.TYPE_INT_RGB);
        var ink = image.createGraphics();
        ink.setColor(java.awt.Color.WHITE);
        ink.fillRect(0, 0, dots, dots);
        ink.setColor(java.awt.Color.BLACK);
        Matcher square = SQUARE.matcher(svg);
        while (square.find()) {
            ink.fillRect(Integer.parseInt(square.group(1)) * 4, Integer.parseInt(square.group(2)) * 4, 4, 4);
        }
        ink.dispose();
        assertThat(read(image)).isEqualTo(PAGE);
    }

    @Test
    public void theButtonCarriesNoMarkupOfItsTitle() {
        Money sum = Money.parse("EUR 25.00");
        PaymentLink link = new PaymentLink(
                1,
                "token",
                "<b>Course</b> & \"more\"",
                "",
                PaymentLink.LinkAsks.of(new LinkAmount(sum, sum)),
                List.of(),
                new PaymentLink.LinkRules(false, null, "", null, false, true),
                List.of(),
                new PaymentLink.AfterPaying("", ""),
                false,
                1,
                LocalDate.of(2027, 3, 1));
        assertThat(LinkCodes.button(link, PAGE))
                .contains("href=\"" + PAGE + "\"")
                .contains("&lt;b&gt;Course&lt;/b&gt; &amp; &quot;more&quot; · €25.00")
                .doesNotContain("<b>");
    }
}
