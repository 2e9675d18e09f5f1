package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.client.j2se.BufferedImageLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.LocalDate;
import java.time.LocalTime;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.server.Server;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.dailyrun.DailyRun;
import quill.server.latefees.FeePolicies;

/** A reminder as it is written: its words, its paper, and a code that a banking application can read. */
public class ReminderLetterTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.account();
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(TypedLateFeePolicy.none(), "10", false, 0));
        server.bean(DailyRun.class).catchUp();
        client = server.client("Reader", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @DataProvider
    public Object[][] tones() {
        return new Object[][] {
            {2, "a note ahead of time, invoice 2027-0001, €100.00", "falls due on 6 March 2027"},
            {5, "a friendly reminder, invoice 2027-0001, €100.00", "is due today"},
            {8, "overdue, invoice 2027-0001, €100.00", "has been open since 6 March 2027"},
            {19, "final reminder, invoice 2027-0001, €101.00", "A final reminder: "},
        };
    }

    @Test(dataProvider = "tones")
    public void eachToneHasItsWords(int day, String subject, String words) {
        TypedLateFeePolicy policy = new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false);
        server.issue(client, "100.00", "100%@5", policy);
        for (int i = 1; i <= day; i++) {
            server.moveTo(BEGIN.plusDays(i), LocalTime.of(9, 0));
            server.bean(DailyRun.class).catchUp();
        }
        assertThat(last("subject")).endsWith(subject);
        assertThat(last("text")).contains(words).contains("See and pay: http");
        assertThat(last("html")).contains("cid:code").contains("XX51 LARK 0000 0004 20");
        boolean withFee = day == 19;
        assertThat(last("text").contains("late fee")).isEqualTo(withFee);
    }

    @Test
    public void thePaperSaysTheSameAndItsCodeCanBeRead() throws Exception {
        server.issue(client, "250.00", "40%@2 rest@2", null);
        server.moveTo(BEGIN.plusDays(5), LocalTime.of(9, 0));
        server.bean(DailyRun.class).catchUp();
        long id = server.jdbc()
                .sql("SELECT MAX(id) FROM message")
                .query(Long.class)
                .single();
        ReminderLetter letter = server.bean(Correspondence.class).reminderLetter(id);
        String text = textOf(server.bean(PdfMaking.class).reminder(letter));
        assertThat(text)
                .contains("Test Workshop")
                .contains("installment 1")
                .contains("installment 2")
                .contains("3 days late")
                .contains("€250.00")
                .contains("RF");
        // EPC069-12, value from memory: eleven lines, the amount with its currency, the reference before the last.
        String[] lines = read(SquareCode.png(letter.transfers().get(0).code())).split("\n", -1);
        assertThat(lines)
                .containsExactly(
                        "BCD",
                        "002",
                        "1",
                        "SCT",
                        "LARKXX20",
                        "Test Workshop",
                        "XX51LARK0000000420",
                        "EUR250.00",
                        "",
                        letter.transfers().get(0).reference().replace(" ", ""),
                        "");
    }

    @Test
    public void whereNoTransferCanBeCodedTheCodeLeadsToThePage() {
        Business own = server.bean(BusinessService.class).business();
        String page = "http://localhost/p/abc";
        assertThat(SquareCode.payload(own, Money.parse("GBP 10.00"), "RF18", page))
                .isEqualTo(page);
        assertThat(SquareCode.payload(own, Money.parse("EUR 0.00"), "RF18", page))
                .isEqualTo(page);
        assertThat(SquareCode.payload(own, Money.parse("EUR 1000000000.00"), "RF18", page))
                .isEqualTo(page);
        assertThat(SquareCode.payload(own, Money.parse("EUR 999999999.99"), "RF18", page))
                .startsWith("BCD");
    }

    private String last(String column) {
        return server.jdbc()
                .sql("SELECT " + column + " FROM message m JOIN message_text t ON t.message_id = m.id"
                        + " WHERE kind = 'reminder' ORDER BY id DESC LIMIT 1")
                .query(String.class)
                .single();
    }

    private static String textOf(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document);
        }
    }

    private static String read(byte[] png) throws Exception {
        var image = ImageIO.read(new ByteArrayInputStream(png));
        return new QRCodeReader()
                .decode(new BinaryBitmap(new HybridBinarizer(new BufferedImageLuminanceSource(image))))
                .getText();
    }
}
