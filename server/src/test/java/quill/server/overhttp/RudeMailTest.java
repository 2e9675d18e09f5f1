package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/** A mail server that refuses, puts off, or hangs up: what became of a letter is always told as it is. */
public class RudeMailTest {
    private ServerSocket mail;
    private volatile String answerToData = "250 kept";
    private final AtomicInteger accepted = new AtomicInteger();
    private World own;
    private Api api;

    @BeforeClass
    public void begin() throws IOException {
        mail = new ServerSocket(0, 20, InetAddress.getByName("127.0.0.1"));
        Thread server = new Thread(this::serve, "rude mail server");
        server.setDaemon(true);
        server.start();
        own = new World("--spring.mail.port=" + mail.getLocalPort(), "--quill.processor.url=");
        api = new Api(own);
        api.firstRun(Api.EMAIL, Api.PASSPHRASE, "Larkmoor Pianos", false).ok();
    }

    @AfterClass(alwaysRun = true)
    public void end() throws IOException {
        own.close();
        mail.close();
    }

    private void serve() {
        while (!mail.isClosed()) {
            try (Socket socket = mail.accept();
                    BufferedReader in = new BufferedReader(
                            new InputStreamReader(socket.getInputStream(), StandardCharsets.ISO_8859_1));
                    PrintWriter out = new PrintWriter(socket.getOutputStream(), false, StandardCharsets.ISO_8859_1)) {
                talk(in, out);
            } catch (IOException e) {
                accepted.get(); // it hung up, or we did: the next letter comes on a new line
            }
        }
    }

    private void talk(BufferedReader in, PrintWriter out) throws IOException {
        say(out, "220 rude.example");
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            if (line.startsWith("DATA")) {
                say(out, "354 go on");
                while (!".".equals(in.readLine())) {
                    // the letter itself
                    continue;
                }
                if (answerToData.isEmpty()) {
                    return;
                }
                if (answerToData.startsWith("250")) {
                    accepted.incrementAndGet();
                }
                say(out, answerToData);
            } else {
                say(out, line.startsWith("QUIT") ? "221 bye" : "250 well");
            }
        }
    }

    private static void say(PrintWriter out, String line) {
        out.print(line + "\r\n");
        out.flush();
    }

    @Test
    public void aRefusedLetterFailsAndIsSentAgainByHand() {
        answerToData = "550 not here";
        long invoice = issue("Refused");
        Waiting.until("failure", () -> state(invoice).equals("failed"));
        assertThat(api.get("/api/today").ok().path("needs").toString()).contains("could not be sent", "550 not here");
        answerToData = "250 kept";
        int before = accepted.get();
        long message = api.get("/api/invoices/" + invoice + "/messages")
                .ok()
                .get(0)
                .path("id")
                .asLong();
        api.post("/api/messages/" + message + "/retry", null).ok();
        Waiting.until("sending", () -> state(invoice).equals("sent"));
        assertThat(accepted.get()).isEqualTo(before + 1);
        assertThat(api.post("/api/messages/" + message + "/retry", null).status())
                .isEqualTo(409);
    }

    @Test
    public void aLetterPutOffIsTriedAgainByItself() {
        answerToData = "451 later";
        long invoice = issue("Later");
        Waiting.until(
                "the reason",
                () -> api.get("/api/invoices/" + invoice + "/messages").text().contains("451 later"));
        assertThat(state(invoice)).isEqualTo("waiting");
        answerToData = "250 kept";
        Waiting.until("sending", () -> state(invoice).equals("sent"));
    }

    @Test
    public void aLetterWithoutAnAnswerIsUncertainUntilSomebodySetsItAside() {
        answerToData = "";
        long invoice = issue("Hung Up");
        Waiting.until("uncertainty", () -> state(invoice).equals("uncertain"));
        answerToData = "250 kept";
        Waiting.pause(1500);
        assertThat(state(invoice)).isEqualTo("uncertain");
        long message = api.get("/api/invoices/" + invoice + "/messages")
                .ok()
                .get(0)
                .path("id")
                .asLong();
        api.post("/api/messages/" + message + "/set-aside", null).ok();
        assertThat(state(invoice)).isEqualTo("set aside");
        assertThat(api.get("/api/today").ok().path("needs").toString()).doesNotContain("Did this letter arrive?");
    }

    /** Without a processor no card is offered, and without registration no tax is charged. */
    @Test
    public void aSmallBusinessWithoutCardsAndTaxes() {
        answerToData = "250 kept";
        long invoice = issue("Plain");
        assertThat(api.open(invoice)).isEqualTo("100.00");
        var page = api.get("/api/public/" + api.token(invoice)).ok();
        assertThat(page.path("paying").path("cards").asBoolean()).isFalse();
        assertThat(api.order(
                                api.token(invoice),
                                page.path("paying").path("choices").get(0))
                        .text())
                .contains("a card is not taken for €100.00; the page names the other ways");
    }

    private long issue(String name) {
        return api.issue(api.draft(api.client(name), "100.00", "100%@30"));
    }

    private String state(long invoice) {
        return api.get("/api/invoices/" + invoice + "/messages")
                .ok()
                .get(0)
                .path("state")
                .asString();
    }
}
