package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Message.RecipientType;
import jakarta.mail.internet.MimeMessage;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.apache.commons.lang3.tuple.Pair;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.clients.Client;
import quill.server.creditnotes.Crediting;
import quill.server.dailyrun.DailyRun;

/** A message, what goes with it, to whom, about which documents, and what becomes of it. */
public class MessagesTest {
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
        client = server.client("Message Reader", true);
        dispatch = server.bean(DispatchService.class);
        correspondence = server.bean(Correspondence.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        mail.stop();
        server.close();
    }

    private static Slip slip(String copies, boolean bare) {
        return new Slip(null, null, null, copies, bare, false, null, null, null, false);
    }

    private MimeMessage sent() {
        server.bean(CallingBack.class).leaveAtOnce();
        server.bean(Outbox.class).sendDue();
        MimeMessage[] all = mail.getReceivedMessages();
        return all[all.length - 1];
    }

    private static List<String> files(MimeMessage message) throws Exception {
        var parts = (jakarta.mail.Multipart) message.getContent();
        List<String> names = new ArrayList<>();
        for (int i = 0; i < parts.getCount(); i++) {
            if (parts.getBodyPart(i).getFileName() != null) {
                names.add(parts.getBodyPart(i).getFileName());
            }
        }
        return names;
    }

    @Test
    public void copiesGoToOthersOpenlyAndEachGetsTheSame() throws Exception {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        dispatch.sendAgain(
                invoice, "key-number-1", slip("one@others.example, two@others.example;one@others.example", false));
        MimeMessage message = sent();
        assertThat(Arrays.stream(message.getRecipients(RecipientType.CC)).map(Object::toString))
                .containsExactly("one@others.example", "two@others.example");
        assertThat(mail.getReceivedMessages()).as("one for each address").hasSize(3);
        assertThat(files(message)).containsExactly("invoice-2027-0001.pdf");
        Message noted = correspondence.ofInvoice(invoice).get(0);
        assertThat(noted.addresses().copies()).containsExactly("one@others.example", "two@others.example");
        assertThat(noted.state()).isEqualTo(MessageState.SENT);
    }

    @Test
    public void withoutItsPaperNothingIsAttached() throws Exception {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        LetterLook look = server.bean(LetterLook.class);
        var shown = look.at(
                new Client.Recipient("", "a@b.example", "", false),
                slip(null, true),
                s -> dispatch.sendToLook(invoice, s));
        assertThat(shown.files()).isEmpty();
        assertThat(look.at(
                                new Client.Recipient("", "a@b.example", "", false),
                                null,
                                s -> dispatch.sendToLook(invoice, s))
                        .files())
                .containsExactly("invoice-2027-0001.pdf");
        dispatch.sendAgain(
                invoice, "key-number-1", new Slip(null, null, null, "", true, false, shown.seen(), null, null, false));
        assertThat(files(sent())).isEmpty();
    }

    @Test
    public void addressesThatAreNoneAreRefusedBesideTheirField() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        for (Pair<String, String> bad : List.of(
                Pair.of("one@others.example, nonsense", "nonsense"),
                Pair.of("a@b.example b@b.example c@b.example d@b.example e@b.example f@b.example", "a@b.example"),
                Pair.of("a@b.example\r\nBcc: x@y.example", "Bcc:"))) {
            assertThatThrownBy(() -> dispatch.sendAgain(invoice, "key-number-1", slip(bad.getLeft(), false)))
                    .isInstanceOfSatisfying(RefusedException.class, e -> {
                        assertThat(e.problems().get(0).field()).isEqualTo("slip.copies");
                        assertThat(e.problems().get(0).value()).startsWith(bad.getRight());
                    });
        }
        assertThat(correspondence.ofInvoice(invoice)).isEmpty();
    }

    @Test
    public void aMessageIsOpenedOnceItsPageIsAndNotBeforeItWasSent() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        dispatch.sendAgain(invoice, "key-number-1");
        correspondence.opened(invoice);
        assertThat(correspondence.ofInvoice(invoice).get(0).state()).isEqualTo(MessageState.WAITING);
        sent();
        correspondence.opened(invoice);
        assertThat(correspondence.ofInvoice(invoice).get(0).state()).isEqualTo(MessageState.OPENED);
        dispatch.sendAgain(invoice, "key-number-2");
        sent();
        assertThat(correspondence.ofInvoice(invoice))
                .extracting(Message::state)
                .as("the one that was sent after that was not opened yet")
                .containsExactly(MessageState.SENT, MessageState.OPENED);
        assertThat(server.bean(Withdrawals.class).isUnseen(invoice)).isFalse();
    }

    @Test
    public void correspondenceIsFoundByAnyPartOfWhatWasWritten() {
        DocumentId one = server.issue(client, "new bass strings", "50.00", "100%@5", null);
        server.issue(client, "tuning", "60.00", "100%@5", null);
        dispatch.sendAgain(one, "key-number-1");
        server.pay(client, null, "110.00", BEGIN);
        assertThat(correspondence.ofClient(client, null)).hasSize(2);
        assertThat(correspondence.ofClient(client, " HERE is Invoice "))
                .extracting(Message::kind)
                .containsExactly(MessageKind.INVOICE);
        assertThat(correspondence.ofClient(client, "receipt for")).hasSize(1);
        assertThat(correspondence.ofClient(client, "%")).isEmpty();
        assertThat(correspondence.ofClient(client, "' OR '1'='1")).isEmpty();
    }

    @Test
    public void aReceiptBelongsToEveryInvoiceThatItsMoneySettledAndACreditNoteToBoth() throws Exception {
        DocumentId one = server.issue(client, "50.00", "100%@5", null);
        DocumentId two = server.issue(client, "50.00", "100%@6", null);
        server.pay(client, null, "80.00", BEGIN);
        assertThat(correspondence.ofInvoice(one)).hasSize(1).isEqualTo(correspondence.ofInvoice(two));
        var note = server.bean(CreditLetters.class).credit(two, Crediting.Wanted.rest("all", false));
        assertThat(correspondence.ofInvoice(note.note().id()))
                .extracting(Message::kind)
                .containsExactly(MessageKind.CREDIT_NOTE);
        assertThat(files(sent())).containsExactly("credit-note-C-2027-0001.pdf");
        long id = correspondence.ofInvoice(note.note().id()).get(0).id();
        assertThat(server.bean(SentPapers.class).first(id)).isPresent();
    }
}
