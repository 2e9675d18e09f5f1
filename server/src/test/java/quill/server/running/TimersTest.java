package quill.server.running;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.debts.Debts;
import quill.server.dispatch.DispatchService;
import quill.server.invoices.InvoicesService;

/** A thread for each: who says nothing holds up nobody else. */
public class TimersTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);

    /** Takes connections and never says a word. */
    private static final class Silent implements AutoCloseable {
        private final ServerSocket socket;
        private final List<Socket> taken = new ArrayList<>();

        private Silent() throws IOException {
            socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
            Thread taking = new Thread(() -> {
                while (!socket.isClosed()) {
                    try {
                        taken.add(socket.accept());
                    } catch (IOException e) {
                        return;
                    }
                }
            });
            taking.setDaemon(true);
            taking.start();
        }

        private int port() {
            return socket.getLocalPort();
        }

        @Override
        public void close() throws IOException {
            socket.close();
            for (Socket each : taken) {
                each.close();
            }
        }
    }

    @Test
    public void aSilentMailServerAndASilentProcessorHoldUpNoFee() throws Exception {
        try (Silent mail = new Silent();
                Silent processor = new Silent();
                Server server = new Server(
                        "--spring.mail.host=127.0.0.1",
                        "--spring.mail.port=" + mail.port(),
                        "--spring.mail.properties.mail.smtp.timeout=2000",
                        "--quill.processor.url=http://127.0.0.1:" + processor.port(),
                        "--quill.outbox-every=100",
                        "--quill.processor.ask-every=100",
                        "--quill.run-every=200")) {
            server.setUp(DAY);
            ClientId client = server.client("Late Payer", true);
            TypedLateFeePolicy fee = new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false);
            DocumentId invoice = server.issue(client, "100.00", "100%@0", fee);
            server.bean(quill.server.latefees.FeePolicies.class)
                    .change(new quill.server.latefees.FeePolicies.FeeSetting(fee, "10", false, 0));
            server.bean(DispatchService.class).sendAgain(invoice, "key-of-a-sending");
            DocumentId other = server.issue(server.client("Card Holder", true), "50.00", "100%@30", null);
            askForAnOrder(server, other);
            try (Socket unread =
                    new Socket("127.0.0.1", Integer.parseInt(server.url("").replaceAll(".*:", "")))) {
                unread.getOutputStream()
                        .write("GET /api/public/none/events HTTP/1.1\r\nHost: localhost\r\n\r\n"
                                .getBytes(StandardCharsets.US_ASCII));
                waitFor(() -> count(server, "run_day") > 0);
                server.moveTo(DAY.plusDays(9), LocalTime.of(12, 0));
                waitFor(() -> count(server, "late_fee") > 0);
            }
            assertThat(count(server, "late_fee")).isEqualTo(1);
        }
    }

    private static void askForAnOrder(Server server, DocumentId invoice) {
        var debt = server.bean(Debts.class).of(invoice).get(0);
        try {
            server.bean(CardOrders.class)
                    .payAt(
                            server.bean(InvoicesService.class).invoice(invoice),
                            Set.of(debt.id()),
                            Money.parse("EUR 50.00"));
        } catch (quill.server.common.ConflictException e) {
            assertThat(e.getMessage()).contains("does not answer");
        }
    }

    private static long count(Server server, String table) {
        return server.jdbc()
                .sql("SELECT COUNT(*) FROM " + table)
                .query(Long.class)
                .single();
    }

    private static void waitFor(BooleanSupplier what) throws InterruptedException {
        for (int i = 0; i < 600 && !what.getAsBoolean(); i++) {
            Thread.sleep(100);
        }
        assertThat(what.getAsBoolean()).isTrue();
    }

    /** What is under way at a stop is told so, waited for, and never interrupted. */
    @Test
    public void aStopWaitsForTheRoundThatIsUnderWay() throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        AtomicReference<String> end = new AtomicReference<>("nothing");
        Round slow = new Round("slow", Duration.ofMillis(1), false, over -> {
            begun.countDown();
            try {
                while (!over.getAsBoolean()) {
                    Thread.sleep(10);
                }
                Thread.sleep(200);
                end.set("whole");
            } catch (InterruptedException e) {
                end.set("interrupted");
            }
        });
        try (Server server = new Server()) {
            Rounds rounds = new Rounds(List.of(slow), server.bean(BooksHealth.class), server.bean(DiskSpace.class));
            rounds.start();
            begun.await();
            rounds.stop();
            assertThat(end).hasValue("whole");
        }
    }

    @Test
    public void aRoundKnowsWhenItHasToStop() {
        assertThat(Round.Deadline.in(Duration.ofSeconds(20)).hasPassed()).isFalse();
        assertThat(Round.Deadline.in(Duration.ofNanos(-1)).hasPassed()).isTrue();
    }
}
