package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import java.nio.file.Files;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.server.OwnPort;
import quill.server.Server;
import quill.server.chasing.ActView;
import quill.server.chasing.Chasing;
import quill.server.chasing.Decisions;
import quill.server.chasing.LeftToAPerson;
import quill.server.chasing.ReminderLook;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.dailyrun.ActViews;
import quill.server.dailyrun.DailyRun;
import quill.server.documents.Document;
import quill.server.documents.PageOpenings;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;

/** A letter is looked at before it goes, goes as the slip says, and can be called back for a while. */
public class CallingBackTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final String TO = "new.client@clients.example";
    private static final Slip COPIED = slip(null, null, null, true, null);
    private static final int PORT = OwnPort.of("mail");
    private static final String[] SETTINGS = {"--quill.call-back-seconds=900", "--spring.mail.port=" + PORT};
    private GreenMail postRoom;
    private Correspondence letters;
    private LeftToAPerson left;
    private ReminderLook looks;
    private Server server;
    private DispatchService dispatch;
    private CallingBack callingBack;
    private ClientId client;

    @BeforeMethod
    public void start() throws Exception {
        postRoom = new GreenMail(new ServerSetup(PORT, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        postRoom.start();
        begin(new Server(SETTINGS));
    }

    private void begin(Server started) {
        open(started);
        server.setUp(BEGIN);
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(TypedLateFeePolicy.none(), "10", false, 0));
        server.bean(DailyRun.class).catchUp();
        client = server.client("New Client", true);
    }

    private void open(Server started) {
        server = started;
        dispatch = server.bean(DispatchService.class);
        callingBack = server.bean(CallingBack.class);
        letters = server.bean(Correspondence.class);
        left = server.bean(LeftToAPerson.class);
        looks = server.bean(ReminderLook.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        postRoom.stop();
    }

    @DataProvider
    public Object[][] zones() {
        return new Object[][] {{"+14:00"}, {"+00:00"}, {"-12:00"}};
    }

    /** A moment is the same in every zone: the hour that comes twice in autumn holds no letter up, and lets none go. */
    @Test(dataProvider = "zones")
    public void aLetterLeavesAtItsMomentInWhateverZoneThatWasWritten(String zone) {
        dispatch.issueAndSend(draft(), 1, COPIED);
        MessageRepository letters = server.bean(MessageRepository.class);
        leavesAt(Instant.now().plusSeconds(600).atOffset(ZoneOffset.of(zone)));
        assertThat(letters.due(LocalDateTime.now())).isEmpty();
        assertThat(server.bean(MessageRows.class).leaving())
                .singleElement()
                .satisfies(m -> assertThat(m.leaves().in()).isBetween(500, 600));
        leavesAt(Instant.now().minusSeconds(5).atOffset(ZoneOffset.of(zone)));
        assertThat(letters.due(LocalDateTime.now())).hasSize(1);
        assertThat(server.bean(MessageRows.class).leaving()).isEmpty();
    }

    private void leavesAt(OffsetDateTime moment) {
        server.jdbc()
                .sql("UPDATE message SET next_try_at = :moment WHERE kind <> 'copy'")
                .param("moment", moment)
                .update();
    }

    @Test
    public void anInvoiceThatIsCalledBackIsIssuedUnsentAndUnseenAfterARestartToo() throws Exception {
        var folder = Files.createTempDirectory("quill-calling-back");
        server.close();
        begin(Server.onDisk(folder, SETTINGS));
        DocumentId id = draft();
        dispatch.issueAndSend(id, 1, COPIED);
        assertThat(sent()).isEmpty();
        server.close();
        open(Server.onDisk(folder, SETTINGS));
        assertThat(sent()).as("it still waits after a restart").isEmpty();
        assertThat(callingBack.leaving())
                .singleElement()
                .satisfies(m -> assertThat(m.leaves().in()).isBetween(1, 900));
        callingBack.callBack(callingBack.leaving().get(0).id());
        callingBack.leaveAtOnce();
        assertThat(sent()).as("neither the letter nor its copy").isEmpty();
        assertThat(server.bean(Withdrawals.class).isUnseen(id)).isTrue();
        assertThat(server.bean(Unsent.class).latest(5)).extracting(i -> i.id()).containsExactly(id);
        assertThat(letters.ofInvoice(id)).allMatch(m -> m.calledBack() && m.state() == MessageState.SET_ASIDE);
        server.bean(Withdrawals.class).takeBack(id, "a wrong price");
        dispatch.issueAndSend(id, server.bean(InvoicesService.class).invoice(id).version(), Slip.PLAIN);
        callingBack.leaveAtOnce();
        assertThat(sent()).containsExactly(TO + ": Test Workshop: invoice 2027-0001");
    }

    /** A letter that waits, or that failed, was seen by nobody; the invoice takes it along when it is taken back. */
    @Test
    public void anInvoiceWhoseLetterHasNotLeftIsTakenBackWithItsLetter() {
        Withdrawals withdrawals = server.bean(Withdrawals.class);
        DocumentId id = draft();
        dispatch.issueAndSend(id, 1, COPIED);
        assertThat(withdrawals.isUnseen(id)).as("it waits").isTrue();
        withdrawals.takeBack(id, "a wrong price");
        callingBack.leaveAtOnce();
        assertThat(sent()).as("neither the letter nor its copy").isEmpty();
        int version = server.bean(InvoicesService.class).invoice(id).version();
        dispatch.issueAndSend(id, version, Slip.PLAIN);
        server.jdbc()
                .sql("UPDATE message SET state = 'failed' WHERE state = 'waiting'")
                .update();
        assertThat(withdrawals.isUnseen(id)).as("it failed").isTrue();
        assertThat(letters.needingSomebody()).hasSize(1);
        withdrawals.voidIt(id, "not wanted any more");
        assertThat(letters.needingSomebody()).isEmpty();
    }

    @Test
    public void anInvoiceThatALetterNamedOrWhosePageWasOpenedIsSeen() {
        Withdrawals withdrawals = server.bean(Withdrawals.class);
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId mailed = draft();
        dispatch.issueAndSend(mailed, 1, Slip.PLAIN);
        callingBack.leaveAtOnce();
        assertThat(sent()).hasSize(1);
        assertThat(withdrawals.isUnseen(mailed)).isFalse();
        DocumentId named = server.issue(client, "10.00", "100%@30", null);
        assertThat(withdrawals.isUnseen(named)).isTrue();
        server.jdbc()
                .sql("INSERT INTO message_document (message_id, document_id) SELECT MAX(id), :id FROM message")
                .param("id", named)
                .update();
        assertThat(withdrawals.isUnseen(named))
                .as("a letter about another names it too")
                .isFalse();
        assertThatThrownBy(() -> withdrawals.takeBack(named, "a wrong price"))
                .hasMessageContaining("only a credit note");
        DocumentId opened = server.issue(client, "20.00", "100%@30", null);
        Document asItWas = invoices.invoice(opened);
        server.bean(PageOpenings.class).opened(asItWas);
        assertThat(withdrawals.isUnseen(opened)).isFalse();
        DocumentId taken = server.issue(client, "30.00", "100%@30", null);
        Document before = invoices.invoice(taken);
        withdrawals.takeBack(taken, "a wrong price");
        assertThatThrownBy(() -> server.bean(PageOpenings.class).opened(before))
                .as("opened in the moment in which it was taken back")
                .isInstanceOf(NotFoundException.class);
    }

    @Test
    public void whatHasLeftCannotBeCalledBack() {
        DocumentId id = draft();
        dispatch.issueAndSend(id, 1, null);
        long letter = callingBack.leaving().get(0).id();
        callingBack.leaveAtOnce();
        assertThat(sent()).hasSize(1);
        assertThatThrownBy(() -> callingBack.callBack(letter))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("it is sent");
        long payment = server.pay(client, id, "10.00", BEGIN);
        assertThat(payment).isPositive();
        long receipt = letters.ofInvoice(id).get(0).id();
        assertThatThrownBy(() -> callingBack.callBack(receipt)).hasMessageContaining("receipt says what is booked");
    }

    @Test
    public void theSlipChangesAddressSubjectAndLineThisOnceAndACopyIsAMessageOfItsOwn() {
        DocumentId id = draft();
        Slip slip = slip("other@clients.example", "About the tuning", "See you on Monday.", true, null);
        LetterLook.ShownLetter look = lookAt(id, 1, slip);
        assertThat(look.to()).isEqualTo("other@clients.example");
        assertThat(look.subject()).isEqualTo("About the tuning");
        assertThat(look.text()).contains("See you on Monday.\n\nHere is invoice 2027-0001");
        assertThat(look.files()).containsExactly("invoice-2027-0001.pdf");
        assertThat(server.bean(InvoicesService.class).invoice(id).isDraft())
                .as("looking issues nothing")
                .isTrue();
        dispatch.issueAndSend(id, 1, slip(slip.to(), slip.subject(), slip.line(), true, look.seen()));
        assertThat(server.bean(InvoicesService.class).invoice(id).number()).isEqualTo("2027-0001");
        callingBack.leaveAtOnce();
        assertThat(sent())
                .containsExactlyInAnyOrder(
                        "other@clients.example: About the tuning",
                        "post@workshop.example: Copy, sent to other@clients.example: About the tuning");
        assertThat(letters.ofInvoice(id))
                .extracting(Message::kind)
                .containsExactlyInAnyOrder(MessageKind.INVOICE, MessageKind.COPY);
    }

    @Test
    public void nothingElseGoesThanWhatWasLookedAt() {
        DocumentId id = server.issue(client, "100.00", "100%@5", null);
        LetterLook.ShownLetter look =
                server.bean(LetterLook.class).at(address(), null, s -> dispatch.sendToLook(id, s));
        server.pay(client, id, "40.00", BEGIN);
        assertThatThrownBy(() -> dispatch.sendAgain(id, "key-number-1", slip(null, null, null, false, look.seen())))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("has changed since you looked");
        LetterLook.ShownLetter again =
                server.bean(LetterLook.class).at(address(), null, s -> dispatch.sendToLook(id, s));
        assertThat(again.text()).contains("60.00");
        Slip seen = slip(null, null, null, false, again.seen());
        dispatch.sendAgain(id, "key-number-1", seen);
        server.pay(client, id, "1.00", BEGIN);
        dispatch.sendAgain(id, "key-number-1", seen); // The answer was lost, and it is asked again.
        assertThat(callingBack.leaving()).hasSize(1);
    }

    @Test
    public void aClientWithoutAnAddressCanBeSentToOnceAndABadSlipIsRefusedByField() {
        client = server.client("No Address", false);
        DocumentId id = draft();
        assertThat(lookAt(id, 1, null).to()).isEmpty();
        assertThatThrownBy(() -> dispatch.issueAndSend(id, 1, null)).isInstanceOf(RefusedException.class);
        Slip bad = slip("not an address", "two\nlines", "x".repeat(501), false, null);
        assertThatThrownBy(() -> dispatch.issueAndSend(id, 1, bad))
                .satisfies(e -> assertThat(((RefusedException) e).problems())
                        .extracting(p -> p.field())
                        .containsExactlyInAnyOrder("slip.to", "slip.subject", "slip.line"));
        assertThat(server.bean(InvoicesService.class).invoice(id).isDraft()).isTrue();
        dispatch.issueAndSend(id, 1, slip("once@clients.example", "", "", false, null));
        callingBack.leaveAtOnce();
        assertThat(sent()).hasSize(1);
    }

    @Test
    public void aReminderThatIsCalledBackIsDueAgainAndKeptBackAsItWas() {
        server.issue(client, "100.00", "100%@0", null);
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(8, 0));
        Decisions decisions = server.bean(Decisions.class);
        ActView act = next();
        decisions.keepBack(act.key(), client);
        LetterLook.ShownLetter look = looks.lookAt(act.key(), client, slip(null, null, "A line.", false, null));
        assertThat(look.text()).contains("A line.\n\n").contains("100.00");
        assertThat(next()).as("looking sends nothing").isEqualTo(keptBack(act));
        decisions.doNow(act.key(), client, slip(null, null, "A line.", true, look.seen()));
        assertThat(server.bean(ActViews.class).until(BEGIN.plusDays(4)))
                .as("it uses the step up")
                .isEmpty();
        callingBack.callBack(callingBack.leaving().get(0).id());
        assertThat(next()).isEqualTo(keptBack(act));
        assertThat(letters.reminders(List.of(client), BEGIN))
                .as("in no history of letters")
                .isEmpty();
        assertThat(server.bean(Chasing.class).of(client).orElseThrow().remindedOn())
                .isNull();
        callingBack.leaveAtOnce();
        assertThat(sent()).isEmpty();
        decisions.doNow(act.key(), client, null);
        callingBack.leaveAtOnce();
        assertThat(sent()).hasSize(1);
    }

    @Test
    public void whatWasKeptBackStaysInSightAfterItsDayAndCanBeSentAfterAll() {
        server.issue(client, "100.00", "100%@0", null);
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(8, 0));
        Decisions decisions = server.bean(Decisions.class);
        Chasing chasing = server.bean(Chasing.class);
        ActView act = next();
        decisions.keepBack(act.key(), client);
        server.moveTo(act.on(), LocalTime.of(9, 1));
        server.bean(DailyRun.class).catchUp();
        server.moveTo(act.on().plusDays(2), LocalTime.of(9, 1));
        server.bean(DailyRun.class).catchUp();
        callingBack.leaveAtOnce();
        assertThat(sent()).as("it does not go by itself").isEmpty();
        assertThat(left.keptBack(9)).extracting(k -> k.key().toString()).containsExactly(act.key());

        assertThat(looks.lookAt(act.key(), client, null).text()).contains("100.00");
        decisions.doNow(act.key(), client, null);
        assertThat(left.keptBack(9)).isEmpty();
        callingBack.callBack(callingBack.leaving().get(0).id());
        assertThat(left.keptBack(9))
                .as("called back, it is in sight as before, and does not go by itself")
                .extracting(k -> k.key().toString())
                .containsExactly(act.key());
        server.moveTo(act.on().plusDays(3), LocalTime.of(9, 1));
        server.bean(DailyRun.class).catchUp();
        callingBack.leaveAtOnce();
        assertThat(sent()).isEmpty();
        decisions.doNow(act.key(), client, null);
        callingBack.leaveAtOnce();
        assertThat(sent()).hasSize(1);
    }

    @Test
    public void whatWasKeptBackAndIsPaidOrLetBeIsDoneWith() {
        Decisions decisions = server.bean(Decisions.class);
        Chasing chasing = server.bean(Chasing.class);
        DocumentId invoice = server.issue(client, "100.00", "100%@0", null);
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(8, 0));
        ActView act = next();
        decisions.keepBack(act.key(), client);
        server.moveTo(act.on(), LocalTime.of(9, 1));
        server.bean(DailyRun.class).catchUp();
        assertThat(left.keptBack(9)).hasSize(1);
        server.pay(client, invoice, "100.00", act.on());
        assertThat(left.keptBack(9)).isEmpty();
        assertThatThrownBy(() -> decisions.doNow(act.key(), client, null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("Nothing is to be asked");
        decisions.letItBe(act.key(), client);
        assertThatThrownBy(() -> decisions.letItBe(act.key(), client)).isInstanceOf(ConflictException.class);
    }

    private static Slip slip(String to, String subject, String line, boolean copy, String seen) {
        return new Slip(to, subject, line, null, false, copy, seen, null, null, false);
    }

    private ActView next() {
        return server.bean(ActViews.class).until(BEGIN.plusDays(4)).get(0);
    }

    private static ActView keptBack(ActView a) {
        return new ActView(
                a.key(),
                a.kind(),
                a.on(),
                a.hour(),
                a.about(),
                a.tone(),
                a.amount(),
                "KEPT_BACK",
                "kept back",
                a.canDoNow(),
                a.way(),
                a.why());
    }

    private Client.Recipient address() {
        return server.bean(ClientsService.class).client(client).forInvoices();
    }

    private LetterLook.ShownLetter lookAt(DocumentId id, int version, Slip slip) {
        return server.bean(LetterLook.class).at(address(), slip, s -> dispatch.issueToLook(id, version, s));
    }

    private DocumentId draft() {
        return server.draft(client, "Work", "100.00", "100%@30", null);
    }

    /** What has reached the mail server after one more round, as address and subject. */
    private List<String> sent() {
        server.bean(Outbox.class).sendDue();
        return List.of(postRoom.getReceivedMessages()).stream()
                .map(m -> {
                    try {
                        return m.getAllRecipients()[0] + ": " + m.getSubject();
                    } catch (jakarta.mail.MessagingException e) {
                        throw new IllegalStateException(e);
                    }
                })
                .toList();
    }
}
