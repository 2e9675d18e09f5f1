package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/**
 * Five people at work, clients' pages, nonsense for every address, and kill -9 now and then, from an empty folder, with
 * connections that live as short as the pool allows. Two minutes of it here; {@code ./quill bench soak} gives it an hour.
 */
public class SoakTest {
    static final String OWNER = "owner@soak.example";
    static final String PASSPHRASE = "felt hammers and copper strings";
    private static final int SECONDS = Integer.getInteger("quill.soak", 120);
    private static final int PEOPLE = 5;
    private static final int READERS = 3;
    private static final int SHOOTERS = 2;
    private static final int MOST_TIMES_A_FRESH_COPY = 4;

    final AtomicInteger acts = new AtomicInteger();
    final AtomicInteger reads = new AtomicInteger();
    final Queue<String> failures = new ConcurrentLinkedQueue<>();
    final List<String> tokens = new CopyOnWriteArrayList<>();
    App own;
    App outside;

    private final AtomicInteger kills = new AtomicInteger();
    private final AtomicInteger fuzzed = new AtomicInteger();
    private final AtomicInteger pages = new AtomicInteger();
    private final List<Long> memory = new ArrayList<>();
    private volatile boolean away;
    private Instant end;

    boolean isOver() {
        return Instant.now().isAfter(end) || failures.size() > 20;
    }

    int kills() {
        return kills.get();
    }

    void fail(String what) {
        failures.add(Instant.now() + " " + (what.length() > 2000 ? what.substring(0, 2000) : what));
    }

    /** No answer came: right while it was killed, and wrong at any other time. */
    void expectAway(int killsBefore, RuntimeException e) {
        if (!away && kills.get() == killsBefore) {
            fail("no answer: " + e);
        }
        Waiting.pause(100);
    }

    /** Refused: signed out by a restart, or somebody else was faster, which are right; 503 only around a kill. */
    void refused(int killsBefore, AssertionError e) {
        boolean expected = String.valueOf(e.getMessage()).matches("(?s)status (401|404|409|422|429): .*");
        if (!expected && !away && kills.get() == killsBefore) {
            fail(String.valueOf(e.getMessage()));
        }
    }

    @Test
    public void itStaysUpWhateverIsDoneToIt() throws Exception {
        Path folder = Files.createTempDirectory("quill-soak");
        int port = App.freePort();
        int mail = App.freePort();
        outside = App.standIns(folder, port, mail);
        own = App.server(folder.resolve("app"), port, outside.port, mail, Map.of());
        Api owner = new Api(own);
        owner.firstRun(OWNER, PASSPHRASE, "Soak", true).ok();
        end = Instant.now().plusSeconds(SECONDS);
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < PEOPLE; i++) {
            threads.add(new Thread(new SoakPerson(this, i), "person " + i));
        }
        for (int i = 0; i < READERS; i++) {
            threads.add(new Thread(this::readPages, "reader " + i));
        }
        for (int i = 0; i < SHOOTERS; i++) {
            int seed = SECONDS + i;
            threads.add(new Thread(() -> shoot(seed), "nonsense " + i));
        }
        try {
            threads.forEach(Thread::start);
            watch();
            for (Thread thread : threads) {
                thread.join();
            }
            look();
        } finally {
            own.close();
            outside.close();
        }
    }

    private void look() throws IOException, SQLException {
        assertThat(failures).isEmpty();
        Api after = new Api(own);
        after.post("/api/session", Map.of("email", OWNER, "passphrase", PASSPHRASE))
                .ok();
        assertThat(after.get("/api/health").text()).contains("\"up\"");
        assertThat(after.booksAgree()).isTrue();
        assertThat(own.log().lines().filter(l -> l.contains(" ERROR ")).toList())
                .isEmpty();
        assertThat(own.log()).doesNotContain("Deadlock");
        double times = sizeAgainstAFreshCopy();
        System.out.printf(
                "soak of %d s: %d acts, %d nonsense, %d pages, %d kills, books agreed at %d reads; file %.1f times a"
                        + " fresh copy; memory by minutes, MB: %s%n",
                SECONDS, acts.get(), fuzzed.get(), pages.get(), kills.get() / 2, reads.get(), times, memory);
        assertThat(times).isLessThan(MOST_TIMES_A_FRESH_COPY);
        assertThat(acts.get()).isGreaterThan(PEOPLE * 10);
        assertThat(fuzzed.get()).isGreaterThan(100);
        assertThat(reads.get()).isPositive();
    }

    /** Kills it now and then, starts it again, and notes what it holds of memory. */
    private void watch() {
        int between = Math.max(40, SECONDS / 12);
        Instant nextKill = Instant.now().plusSeconds(between);
        Instant nextLook = Instant.now().plusSeconds(60);
        while (!isOver()) {
            Waiting.pause(500);
            if (Instant.now().isAfter(nextLook)) {
                memory.add(own.residentMegabytes());
                nextLook = nextLook.plusSeconds(60);
            }
            if (Instant.now().isAfter(nextKill) && Instant.now().plusSeconds(20).isBefore(end)) {
                away = true;
                kills.incrementAndGet();
                own.kill();
                own.start("/api/health");
                away = false;
                kills.incrementAndGet();
                nextKill = Instant.now().plusSeconds(between);
            }
        }
    }

    private void readPages() {
        Random random = new Random();
        Api reader = new Api(own);
        while (!isOver()) {
            int before = kills.get();
            try {
                if (tokens.isEmpty()) {
                    Waiting.pause(200);
                    continue;
                }
                String token = tokens.get(random.nextInt(tokens.size()));
                Api.Answer answer = random.nextInt(3) == 0
                        ? reader.get("/api/public/" + token + "/pdf")
                        : reader.get("/api/public/" + token);
                pages.incrementAndGet();
                if (answer.status() >= 500 && !away && kills.get() == before) {
                    fail("page: status " + answer.status() + " " + answer.text());
                }
                Waiting.pause(20);
            } catch (UncheckedIOException e) {
                expectAway(before, e);
            }
        }
    }

    private void shoot(int seed) {
        Fuzz fuzz = new Fuzz(seed);
        Api api = new Api(own);
        int pause = SECONDS >= 1800 ? 40 : 20;
        while (!isOver()) {
            int before = kills.get();
            Fuzz.Shot shot = fuzz.next(tokens);
            int status = Fuzz.send(api, own, shot);
            if (status == 401 || status == 403) {
                signIn(api);
            } else if ((status >= 500 || status == 0) && !away && kills.get() == before) {
                fail("nonsense: status " + status + " " + shot);
            } else if (status > 0) {
                fuzzed.incrementAndGet();
            }
            Waiting.pause(pause);
        }
    }

    private void signIn(Api api) {
        int before = kills.get();
        try {
            api.post("/api/session", Map.of("email", OWNER, "passphrase", PASSPHRASE));
        } catch (UncheckedIOException e) {
            expectAway(before, e);
        }
    }

    /** After an orderly stop: how many times the file is as large as one into which everything was copied. */
    private double sizeAgainstAFreshCopy() throws IOException, SQLException {
        own.stop();
        Path books = own.data.resolve("books.mv.db");
        String password = Files.readString(own.data.resolve("books.password")).strip();
        Path copy = own.data.resolve("copy");
        Path script = own.data.resolve("copy.sql");
        try (Connection from =
                        DriverManager.getConnection("jdbc:h2:file:" + own.data.resolve("books"), "sa", password);
                Statement sql = from.createStatement()) {
            sql.execute("SCRIPT TO '" + script + "'");
        }
        try (Connection to = DriverManager.getConnection("jdbc:h2:file:" + copy, "sa", password);
                Statement sql = to.createStatement()) {
            sql.execute("RUNSCRIPT FROM '" + script + "'");
            sql.execute("SHUTDOWN COMPACT");
        }
        return (double) Files.size(books) / Files.size(own.data.resolve("copy.mv.db"));
    }
}
