package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.user.GreenMailUser;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Properties;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.OwnPort;
import quill.server.Server;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.dailyrun.DailyRun;

/** Letters that come back are found in the business's mailbox, and counted once. */
public class ReturnedMailTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final String OWN = "post@workshop.example";
    private Server server;
    private GreenMail mail;
    private GreenMailUser own;
    private ClientId client;
    private DispatchService dispatch;
    private Correspondence correspondence;

    @BeforeMethod
    public void start() {
        mail = new GreenMail(new ServerSetup[] {
            ServerSetup.SMTP.dynamicPort(),
            new ServerSetup(OwnPort.of("mailbox"), "127.0.0.1", ServerSetup.PROTOCOL_IMAP)
        });
        mail.start();
        own = mail.setUser(OWN, OWN, "secret");
        server = new Server(
                "--quill.mailbox.host=127.0.0.1",
                "--quill.mailbox.port=" + mail.getImap().getPort(),
                "--quill.mailbox.tls=false",
                "--quill.mailbox.user=" + OWN,
                "--quill.mailbox.passphrase=secret");
        server.setUp(BEGIN);
        server.bean(DailyRun.class).catchUp();
        server.bean(JavaMailSenderImpl.class).setPort(mail.getSmtp().getPort());
        client = server.client("Moved Away", true);
        dispatch = server.bean(DispatchService.class);
        correspondence = server.bean(Correspondence.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        mail.stop();
        server.close();
    }

    private DocumentId sent() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        dispatch.sendAgain(invoice, "key-number-" + invoice.value());
        server.bean(Outbox.class).sendDue();
        return invoice;
    }

    private String messageId(DocumentId invoice) {
        return server.jdbc()
                .sql("SELECT message_id FROM message WHERE document_id = :id ORDER BY id DESC LIMIT 1")
                .param("id", invoice.value())
                .query(String.class)
                .single();
    }

    /** The shape of the example in RFC 3464, appendix E, with our letter in it. */
    private void comesBack(String reportId, String about, String address, String action) throws Exception {
        String report = """
                Message-ID: %s
                Date: Mon, 1 Mar 2027 10:00:00 +0000
                From: Mail Delivery Subsystem <MAILER-DAEMON@relay.example>
                To: %s
                Subject: Returned mail
                MIME-Version: 1.0
                Content-Type: multipart/report; report-type=delivery-status;
                      boundary="RAA14128.773615765/relay.example"

                --RAA14128.773615765/relay.example

                The following address had delivery problems.
                --RAA14128.773615765/relay.example
                Content-type: message/delivery-status

                Reporting-MTA: dns; relay.example

                Original-Recipient: rfc822;%s
                Final-Recipient: rfc822;%s
                Action: %s
                Status: 5.1.1
                Diagnostic-Code: smtp; 550 5.1.1 mailbox unavailable

                --RAA14128.773615765/relay.example
                Content-type: message/rfc822

                From: %s
                Message-ID: %s
                Subject: the letter

                Words.
                --RAA14128.773615765/relay.example--
                """.formatted(reportId, OWN, address, address, action, OWN, about)
                .replace("\n", "\r\n");
        deliver(report);
    }

    private void deliver(String raw) throws Exception {
        own.deliver(new MimeMessage(
                Session.getInstance(new Properties()), new ByteArrayInputStream(raw.getBytes(StandardCharsets.UTF_8))));
    }

    private void read() {
        server.bean(ReturnedMail.class).read(() -> false);
    }

    private String address() {
        return server.bean(ClientsService.class).client(client).email();
    }

    @Test
    public void aLetterThatCameBackIsMendedAndSentAgainAsALetterOfItsOwn() throws Exception {
        DocumentId invoice = sent();
        String was = address();
        comesBack("<r1@relay.example>", messageId(invoice), was, "failed");
        read();
        Message back = correspondence.ofInvoice(invoice).get(0);
        assertThat(back.state()).isEqualTo(MessageState.BOUNCED);
        assertThat(back.addresses().cameBackFrom()).isEqualTo(was);
        assertThat(back.error()).contains("550 5.1.1 mailbox unavailable");
        assertThat(correspondence.needingSomebody()).extracting(Message::id).containsExactly(back.id());
        assertThat(correspondence.bouncing()).containsExactly(was);
        Mending mending = server.bean(Mending.class);
        assertThatThrownBy(() -> mending.sendAgain(back.id(), "no address"))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("to"));
        mending.sendAgain(back.id(), "found@clients.example");
        assertThat(address()).isEqualTo("found@clients.example");
        assertThatThrownBy(() -> mending.sendAgain(back.id(), "x@clients.example"))
                .isInstanceOf(ConflictException.class);
        server.bean(CallingBack.class).leaveAtOnce();
        server.bean(Outbox.class).sendDue();
        assertThat(correspondence.ofInvoice(invoice))
                .extracting(Message::state)
                .containsExactly(MessageState.SENT, MessageState.BOUNCED);
        assertThat(correspondence.needingSomebody()).isEmpty();
    }

    /** A mailbox that counts anew shows every report again: what was sent after it is not touched. */
    @Test
    public void eachReportCountsOnceAndWhatIsNoneIsLeftAlone() throws Exception {
        DocumentId invoice = sent();
        deliver(
                "From: somebody@clients.example\r\nMessage-ID: <q@clients.example>\r\nSubject: A question\r\n\r\nWhat for?");
        comesBack("<r0@relay.example>", messageId(invoice), address(), "delayed");
        comesBack("<r1@relay.example>", "<somebody-elses@other.example>", "x@other.example", "failed");
        comesBack("<r2@relay.example>", messageId(invoice), address(), "failed");
        read();
        long back = correspondence.ofInvoice(invoice).get(0).id();
        assertThat(correspondence.ofInvoice(invoice).get(0).state()).isEqualTo(MessageState.BOUNCED);
        server.bean(Mending.class).setAside(back);
        server.jdbc().sql("UPDATE mailbox_read SET validity = validity - 1").update();
        server.jdbc()
                .sql("UPDATE message SET state = 'sent' WHERE id = " + back)
                .update();
        read();
        assertThat(correspondence.ofInvoice(invoice).get(0).state()).isEqualTo(MessageState.SENT);
        assertThat(Arrays.stream(own(4)).map(Object::toString))
                .as("nothing is marked there")
                .containsOnly("false");
    }

    private Object[] own(int expected) throws Exception {
        var folder = mail.getManagers().getImapHostManager().getInbox(own);
        List<?> all = folder.getMessages();
        assertThat(all).hasSize(expected);
        return folder.getMessages().stream()
                .map(m -> m.getFlags().contains(jakarta.mail.Flags.Flag.SEEN))
                .toArray();
    }

    @Test
    public void aReceiptThatCameBackGoesAgainWithItsOwnWords() throws Exception {
        DocumentId invoice = sent();
        server.pay(client, invoice, "40.00", BEGIN);
        server.bean(Outbox.class).sendDue();
        Message receipt = correspondence.ofInvoice(invoice).get(0);
        assertThat(receipt.kind()).isEqualTo(MessageKind.RECEIPT);
        comesBack("<r9@relay.example>", messageId(invoice), address(), "failed");
        read();
        server.bean(Mending.class).sendAgain(receipt.id(), "new@clients.example");
        server.bean(Outbox.class).sendDue();
        Message again = correspondence.ofInvoice(invoice).get(0);
        assertThat(again.addresses().to()).isEqualTo("new@clients.example");
        assertThat(again.state()).isEqualTo(MessageState.SENT);
        assertThat(again.subject()).isEqualTo(receipt.subject());
        assertThat(correspondence.html(again.id())).contains("40.00");
    }

    @Test
    public void aMailboxThatDoesNotAnswerIsAskedAgain() {
        mail.getImap().stopService();
        read();
        assertThat(correspondence.needingSomebody()).isEmpty();
    }
}
