package quill.server.business;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDResources;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.Caller;
import quill.server.Server;
import quill.server.business.KeptSchedules.KeptSchedule;
import quill.server.business.KeptSchedules.TypedSchedule;
import quill.server.dispatch.PdfMaking;
import quill.server.invoices.InvoicesService;
import quill.server.people.PeopleService;

public class SettingsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final String PASSPHRASE = "felt hammers and copper strings";
    private Server server;
    private Caller caller;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
        caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void aBusinessBeginsWithThreeSchedulesAndKeepsItsOwn() {
        KeptSchedules schedules = server.bean(KeptSchedules.class);
        assertThat(schedules.all()).hasSize(3).noneMatch(KeptSchedule::usual);
        long id = schedules.keep(
                0,
                new TypedSchedule(
                        "A third each",
                        List.of(
                                new TypedTerm(true, "equal", "0"),
                                new TypedTerm(false, "equal", "30"),
                                new TypedTerm(false, "equal", "60")),
                        true));
        KeptSchedule first = schedules.all().get(0);
        assertThat(first.id()).isEqualTo(id);
        assertThat(first.weights()).containsExactly(333_333, 333_333, 333_333);
        schedules.keep(id, new TypedSchedule("Thirds", first.terms(), false));
        assertThat(schedules.all()).extracting(KeptSchedule::name).contains("Thirds");
        schedules.delete(id);
        assertThat(schedules.all()).hasSize(3);
    }

    @Test
    public void aScheduleThatCannotBeReadIsNotKept() {
        KeptSchedules schedules = server.bean(KeptSchedules.class);
        TypedSchedule wrong = new TypedSchedule(
                "", List.of(new TypedTerm(false, "half", "30"), new TypedTerm(false, "rest", "x")), false);
        assertThatThrownBy(() -> schedules.keep(0, wrong))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(Problem::field)
                                .containsExactlyInAnyOrder("name", "schedule[0].share", "schedule[1].days"));
        assertThatThrownBy(() -> schedules.keep(0, new TypedSchedule("None", List.of(), false)))
                .isInstanceOf(RefusedException.class);
    }

    @Test
    public void theFirstNumberIsSetWhileNoneIsGivenOutAndNeverAfter() {
        assertThat(caller.get("/api/numbers").body()).contains("\"next\":\"2027-0001\"");
        assertThat(begin(31)).isEqualTo(200);
        assertThat(begin(12)).isEqualTo(200);
        assertThat(begin(0)).isEqualTo(422);
        ClientId client = server.client("First Number", true);
        DocumentId invoice = server.issue(client, "10", "rest@30", null);
        assertThat(server.bean(InvoicesService.class).invoice(invoice).number()).isEqualTo("2027-0012");
        assertThat(begin(40)).isEqualTo(422);
        assertThat(caller.get("/api/numbers").body()).contains("2027-0013");
    }

    private int begin(int first) {
        return caller.send("PUT", "/api/numbers", "{\"kind\":\"invoice\",\"next\":" + first + "}")
                .statusCode();
    }

    @Test
    public void whatWasIssuedKeepsTheLogoThatItHad() throws IOException {
        Logos logos = server.bean(Logos.class);
        ClientId client = server.client("With A Logo", true);
        DocumentId before = server.issue(client, "10", "rest@30", null);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(300, 100, BufferedImage.TYPE_INT_RGB), "png", png);
        String hash = logos.take(png.toByteArray());
        DocumentId with = server.issue(client, "20", "rest@30", null);
        logos.takeOff();
        InvoicesService invoices = server.bean(InvoicesService.class);
        assertThat(invoices.document(invoices.invoice(before)).look().logo()).isEmpty();
        assertThat(invoices.document(invoices.invoice(with)).look().logo()).isEqualTo(hash);
        assertThat(logos.now()).isEmpty();
        PdfMaking pdf = server.bean(PdfMaking.class);
        assertThat(pictures(pdf.invoice(invoices.invoice(with), false)))
                .as("its logo, beside the square code")
                .isEqualTo(pictures(pdf.invoice(invoices.invoice(before), false)) + 1);
        String token = server.bean(quill.server.links.Links.class).tokenOf(with);
        assertThat(new Caller(server).get("/api/public/" + token + "/logo").statusCode())
                .isEqualTo(200);
        assertThat(new Caller(server)
                        .get("/api/public/"
                                + server.bean(quill.server.links.Links.class).tokenOf(before) + "/logo")
                        .statusCode())
                .isEqualTo(404);
    }

    private static int pictures(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDResources resources = document.getPage(0).getResources();
            int count = 0;
            for (COSName name : resources.getXObjectNames()) {
                count += resources.isImageXObject(name) ? 1 : 0;
            }
            return count;
        }
    }
}
