package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.server.Server;
import quill.server.dailyrun.DailyRun;

/** Reminders that wait because the mail server does not answer: none leaves after its money came, or on another day. */
public class WaitingReminderTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server("--spring.mail.port=1"); // nobody listens there
        server.setUp(BEGIN);
        server.bean(DailyRun.class).catchUp();
        client = server.client("Waiting", true);
        server.issue(client, "100.00", "100%@3", null);
        runOn(3);
        send();
        assertThat(states()).containsExactly("waiting");
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void aReminderThatWaitsIsNotSentOnceItsMoneyHasCome() throws Exception {
        server.pay(client, null, "30.00", BEGIN.plusDays(3));
        try (Listener mail = new Listener()) {
            mailAt(mail.port());
            send();
        }
        assertThat(states()).containsExactly("set aside");
        assertThat(server.jdbc()
                        .sql("SELECT error FROM message WHERE kind = 'reminder'")
                        .query(String.class)
                        .single())
                .contains("paid before it could leave");
    }

    @Test
    public void aReminderWhoseDayHasPassedIsWrittenAnewAndOnlyOneGoes() throws Exception {
        server.moveTo(BEGIN.plusDays(4), LocalTime.of(1, 0));
        try (Listener mail = new Listener()) {
            mailAt(mail.port());
            send();
            assertThat(states()).containsExactly("set aside");
            runOn(4);
        }
        assertThat(states()).containsExactly("set aside", "waiting");
        String text = server.jdbc()
                .sql("SELECT text FROM message_text ORDER BY message_id DESC LIMIT 1")
                .query(String.class)
                .single();
        assertThat(text).contains("has been open since 4 March 2027").contains("1 day late");
        runOn(5);
        assertThat(states()).hasSize(2);
    }

    private void runOn(int day) {
        server.moveTo(BEGIN.plusDays(day), LocalTime.of(9, 0));
        server.bean(DailyRun.class).catchUp();
    }

    private void mailAt(int port) {
        server.bean(org.springframework.mail.javamail.JavaMailSenderImpl.class).setPort(port);
    }

    private void send() {
        server.jdbc().sql("UPDATE message SET next_try_at = CURRENT_TIMESTAMP").update();
        server.bean(Outbox.class).sendDue();
    }

    private List<String> states() {
        return server.jdbc()
                .sql("SELECT state FROM message WHERE kind = 'reminder' ORDER BY id")
                .query(String.class)
                .list();
    }

    /** Greets like a mail server and says no more: enough to be connected to. */
    private static final class Listener implements AutoCloseable {
        private final java.net.ServerSocket socket = new java.net.ServerSocket(0);

        private Listener() throws java.io.IOException {
            Thread thread = new Thread(this::greet, "mail");
            thread.setDaemon(true);
            thread.start();
        }

        private int port() {
            return socket.getLocalPort();
        }

        private void greet() {
            while (!socket.isClosed()) {
                try {
                    var client = socket.accept();
                    var out = client.getOutputStream();
                    out.write("220 here\r\n250 here\r\n250 yes\r\n250 yes\r\n"
                            .getBytes(java.nio.charset.StandardCharsets.US_ASCII));
                    out.flush();
                } catch (java.io.IOException e) {
                    return;
                }
            }
        }

        @Override
        public void close() throws java.io.IOException {
            socket.close();
        }
    }
}
