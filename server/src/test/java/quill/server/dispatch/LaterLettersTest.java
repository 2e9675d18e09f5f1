package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.List;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.dailyrun.DailyRun;

/** A letter that leaves later is written on its day, and can be called back until then. */
public class LaterLettersTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private GreenMail mail;
    private ClientId client;
    private DispatchService dispatch;
    private Correspondence correspondence;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.bean(DailyRun.class).catchUp();
        mail = new GreenMail(ServerSetup.SMTP.dynamicPort());
        mail.start();
        server.bean(JavaMailSenderImpl.class).setPort(mail.getSmtp().getPort());
        client = server.client("Later Reader", true);
        dispatch = server.bean(DispatchService.class);
        correspondence = server.bean(Correspondence.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        mail.stop();
        server.close();
    }

    private static Slip at(String moment, boolean copy) {
        return new Slip(null, null, "As promised.", null, false, copy, null, null, moment, false);
    }

    private List<String> texts() {
        server.bean(Outbox.class).sendDue();
        return Arrays.stream(mail.getReceivedMessages())
                .map(LaterLettersTest::text)
                .toList();
    }

    private static String text(MimeMessage message) {
        try {
            return message.getSubject() + "\n" + com.icegreen.greenmail.util.GreenMailUtil.getBody(message);
        } catch (jakarta.mail.MessagingException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    public void itWaitsForItsMomentAndSaysWhatIsSoThen() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        dispatch.sendAgain(invoice, "key-number-1", at("2027-03-03T08:00", true));
        server.bean(CallingBack.class).leaveAtOnce();
        assertThat(texts()).isEmpty();
        assertThat(correspondence.ofInvoice(invoice).get(1).leaves().at()).hasToString("2027-03-03T08:00");
        assertThat(server.bean(Unsent.class).latest(5)).as("it is on its way").isEmpty();
        server.moveTo(BEGIN.plusDays(1), LocalTime.of(12, 0));
        server.pay(client, invoice, "40.00", BEGIN.plusDays(1));
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(7, 59));
        assertThat(texts()).hasSize(1); // the receipt
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(8, 0));
        assertThat(texts())
                .hasSize(3)
                .filteredOn(t -> t.contains("As promised."))
                .hasSize(2)
                .allSatisfy(t -> assertThat(t).contains("60.00"));
        assertThat(texts().get(2)).startsWith("Copy, sent to ");
        assertThat(correspondence.ofInvoice(invoice)).allMatch(m -> m.state() == MessageState.SENT);
    }

    @Test
    public void itCanBeCalledBackUntilThen() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        dispatch.sendAgain(invoice, "key-number-1", at("2027-03-03T08:00", true));
        server.bean(CallingBack.class)
                .callBack(correspondence.ofInvoice(invoice).get(1).id());
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(9, 0));
        assertThat(texts()).isEmpty();
        assertThat(correspondence.ofInvoice(invoice)).allMatch(Message::calledBack);
    }

    @Test
    public void ofAnInvoiceThatWasVoidedMeanwhileNothingGoes() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        dispatch.sendAgain(invoice, "key-number-1", at("2027-03-03T08:00", false));
        server.bean(Withdrawals.class).voidIt(invoice, "a mistake");
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(9, 0));
        assertThat(texts()).isEmpty();
        assertThat(correspondence.ofInvoice(invoice).get(0).state()).isEqualTo(MessageState.SET_ASIDE);
    }

    @DataProvider
    Object[][] moments() {
        return new Object[][] {
            {"2027-02-28T08:00"}, {"2028-03-10T08:00"}, {"tomorrow"}, {"2027-03-03"}, {"2027-02-30T08:00"}
        };
    }

    @Test(dataProvider = "moments")
    public void aMomentThatIsNoneOrHasPassedIsRefused(String moment) {
        DocumentId draft = server.draft(client, "Work", "100.00", "100%@5", null);
        assertThatThrownBy(() -> dispatch.issueAndSend(draft, 1, at(moment, false)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("slip.at"));
        assertThat(server.bean(quill.server.invoices.InvoicesService.class)
                        .invoice(draft)
                        .isDraft())
                .isTrue();
    }
}
