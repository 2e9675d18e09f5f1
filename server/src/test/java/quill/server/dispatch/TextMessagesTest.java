package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.core.letter.LetterKind;
import quill.server.OwnPort;
import quill.server.Server;
import quill.server.chasing.Decisions;
import quill.server.clients.ClientsService;
import quill.server.dailyrun.ActViews;
import quill.server.dailyrun.DailyRun;
import quill.server.letters.Wordings;

/** Invoices and reminders by text message, through a gateway that answers as it is told to. */
public class TextMessagesTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final String NUMBER = "+44 7700 900123";
    private final List<String> taken = Collections.synchronizedList(new ArrayList<>());
    private volatile int status;
    private volatile String answer;
    private HttpServer gateway;
    private Server server;
    private ClientId client;
    private DispatchService dispatch;

    @BeforeMethod
    public void start() throws IOException {
        status = 200;
        answer = "{}";
        taken.clear();
        gateway = HttpServer.create(OwnPort.at("texts"), 0);
        gateway.createContext("/texts", exchange -> {
            taken.add(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            if (status == 0) {
                exchange.close();
                return;
            }
            byte[] body = answer.getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", "application/problem+json");
            exchange.sendResponseHeaders(status, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        gateway.start();
        server = new Server(
                "--quill.texts.url=http://127.0.0.1:" + gateway.getAddress().getPort(), "--quill.texts.price=0.08");
        server.setUp(BEGIN);
        server.bean(DailyRun.class).catchUp();
        client = server.client("Text Reader", true);
        dispatch = server.bean(DispatchService.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        gateway.stop(0);
        server.close();
    }

    private static Slip text(String number, String line, boolean keep) {
        return new Slip(number, null, line, null, false, false, null, Channel.TEXT, null, keep);
    }

    private DocumentId invoice() {
        return server.issue(client, "100.00", "100%@5", null);
    }

    private Message latest(DocumentId invoice) {
        return server.bean(Correspondence.class).ofInvoice(invoice).get(0);
    }

    private void leave() {
        server.bean(CallingBack.class).leaveAtOnce();
        server.bean(Outbox.class).sendDue();
    }

    @Test
    public void aMissingNumberIsAskedForAndKeptAndTheLengthIsSaidBefore() {
        DocumentId invoice = invoice();
        assertThatThrownBy(() -> dispatch.sendAgain(invoice, "key-number-1", text(null, null, false)))
                .isInstanceOfSatisfying(RefusedException.class, e -> {
                    assertThat(e.problems().get(0).field()).isEqualTo("slip.to");
                    assertThat(e.problems().get(0).message()).contains("has no telephone number");
                });
        LetterLook.ShownLetter look = server.bean(LetterLook.class)
                .at(
                        dispatch.recipient(server.bean(quill.server.invoices.InvoicesService.class)
                                .invoice(invoice)),
                        text(null, null, false),
                        s -> dispatch.sendToLook(invoice, s));
        assertThat(look.channels()).containsExactly(Channel.MAIL, Channel.TEXT);
        assertThat(look.text())
                .startsWith("Test Workshop: invoice 2027-0001, €100.00. €100.00 is open. http")
                .doesNotContain("’");
        assertThat(look.asText().parts()).isEqualTo(1);
        assertThat(look.asText().cost()).isEqualTo("€0.08");
        dispatch.sendAgain(invoice, "key-number-1", text(NUMBER, "See you.", true));
        assertThat(server.bean(ClientsService.class).client(client).more().phone())
                .isEqualTo(NUMBER);
        leave();
        assertThat(taken)
                .singleElement()
                .satisfies(t -> assertThat(t)
                        .contains("+447700900123", "Test Workshop: invoice 2027-0001, €100.00", "See you."));
        assertThat(latest(invoice).state()).isEqualTo(MessageState.SENT);
        assertThat(latest(invoice).addresses().channel()).isEqualTo(Channel.TEXT);
        assertThat(server.bean(Withdrawals.class).isUnseen(invoice)).isFalse();
    }

    @DataProvider
    Object[][] noNumbers() {
        return new Object[][] {
            {"CALL ME"}, {"12"}, {"+44 7700 9001234567890"}, {"\u0000"}, {"a@b.example"}, {"0800 FLOWERS"}
        };
    }

    @Test(dataProvider = "noNumbers")
    public void whatIsNoNumberIsRefusedAndNothingIsKept(String bad) {
        DocumentId invoice = invoice();
        assertThatThrownBy(() -> dispatch.sendAgain(invoice, "key-number-1", text(bad, null, true)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("slip.to"));
        assertThat(server.bean(ClientsService.class).client(client).more().phone())
                .isEmpty();
        assertThat(server.bean(Correspondence.class).ofInvoice(invoice)).isEmpty();
    }

    @Test
    public void tooLongATextIsRefusedWithItsLength() {
        DocumentId invoice = invoice();
        assertThatThrownBy(() -> dispatch.sendAgain(invoice, "key-number-1", text(NUMBER, "я".repeat(450), false)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).message()).contains("parts; at most 6 go as one"));
        assertThatThrownBy(() ->
                        server.bean(Wordings.class).change(LetterKind.TEXT_INVOICE, false, "", "x".repeat(2000), 0))
                .hasMessageContaining("at most 600 characters; these are 2,000");
    }

    /** Taken or not, nobody knows: it is shown, and goes again by a person's hand only. */
    @Test
    public void anAnswerThatNeverCameIsUncertainAndIsNotRepeated() {
        status = 0;
        DocumentId invoice = invoice();
        dispatch.sendAgain(invoice, "key-number-1", text(NUMBER, null, false));
        leave();
        leave();
        assertThat(taken).hasSize(1);
        assertThat(latest(invoice).state()).isEqualTo(MessageState.UNCERTAIN);
        status = 200;
        server.bean(Mending.class).sendAgain(latest(invoice).id(), null);
        leave();
        assertThat(taken).hasSize(2);
        assertThat(latest(invoice).state()).isEqualTo(MessageState.SENT);
    }

    @Test
    public void aRefusedNumberSaysWhyAndCanBeMended() {
        status = 422;
        answer = "{\"detail\":\"no telephone has this number\"}";
        DocumentId invoice = invoice();
        dispatch.sendAgain(invoice, "key-number-1", text(NUMBER, null, true));
        leave();
        assertThat(latest(invoice).state()).isEqualTo(MessageState.FAILED);
        assertThat(latest(invoice).error()).contains("no telephone has this number");
        status = 200;
        server.bean(Mending.class).sendAgain(latest(invoice).id(), "+44 7700 900124");
        leave();
        assertThat(taken.get(1)).contains("+447700900124");
        assertThat(server.bean(ClientsService.class).client(client).more().phone())
                .isEqualTo("+44 7700 900124");
    }

    @Test
    public void aBusyGatewayIsAskedAgainLater() {
        status = 503;
        DocumentId invoice = invoice();
        dispatch.sendAgain(invoice, "key-number-1", text(NUMBER, null, false));
        leave();
        assertThat(latest(invoice).state()).isEqualTo(MessageState.WAITING);
    }

    @Test
    public void aReminderGoesAsATextToo() {
        DocumentId invoice = invoice();
        server.moveTo(BEGIN.plusDays(5), java.time.LocalTime.of(7, 0));
        var act = server.bean(ActViews.class).until(BEGIN.plusDays(9)).get(0);
        server.bean(Decisions.class).doNow(act.key(), client, text(NUMBER, null, true));
        leave();
        assertThat(taken).singleElement().satisfies(t -> assertThat(t).contains("€100.00 on invoice 2027-0001", "/p/"));
        assertThat(latest(invoice).kind()).isEqualTo(MessageKind.REMINDER);
    }

    /** A telephone is all it takes; by mail the same client is asked for an address. */
    @Test
    public void aReminderByTextNeedsNoAddressOfMail() {
        ClientId ringing = server.client("Only a Telephone", false);
        server.bean(ClientsService.class).keepAddress(ringing, null, NUMBER);
        DocumentId invoice = server.issue(ringing, "100.00", "100%@5", null);
        server.moveTo(BEGIN.plusDays(5), java.time.LocalTime.of(7, 0));
        String key = server.bean(ActViews.class).until(BEGIN.plusDays(9)).get(0).key();
        Decisions decisions = server.bean(Decisions.class);
        assertThatThrownBy(() -> decisions.doNow(key, ringing, Slip.PLAIN))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("client.email"));
        decisions.doNow(key, ringing, text(null, null, false));
        leave();
        assertThat(taken).singleElement().satisfies(t -> assertThat(t).contains("+447700900123"));
        assertThat(latest(invoice).kind()).isEqualTo(MessageKind.REMINDER);
    }
}
