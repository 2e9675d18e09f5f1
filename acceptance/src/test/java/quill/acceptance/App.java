package quill.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import quill.http.Ports;
import quill.http.Site;
import quill.http.Waiting;

/** The application, or its stand-ins, as a process: started from the jar that is shipped, and ended or killed. */
final class App implements AutoCloseable, Site {
    static final Path ROOT =
            Path.of(System.getProperty("quill.root", "..")).toAbsolutePath().normalize();
    static final String KEY = "test-key";
    static final String SECRET = "c2VjcmV0IG9mIHRoZSB0ZXN0cywgMjQgYnl0ZXM=";

    private static final List<String> JAVA = List.of(
            System.getProperty("java.home") + "/bin/java",
            "-XX:TieredStopAtLevel=1",
            "-XX:+UseSerialGC",
            "-Xmx512m",
            "-Djava.util.concurrent.ForkJoinPool.common.parallelism=2",
            "-XX:+ExitOnOutOfMemoryError",
            "-Xshare:auto");
    private static final Map<Integer, Integer> IMAP_PORTS = new ConcurrentHashMap<>();

    final int port;
    final Path data;
    private final String jar;
    private final List<String> settings;
    private Process process;
    /** What earlier processes, or the one whose folder this is a copy of, had written, in characters. */
    private int loggedBefore;

    private App(String jar, int port, Path data, List<String> settings) {
        this.jar = jar;
        this.port = port;
        this.data = data;
        this.settings = settings;
    }

    static int freePort() {
        return Ports.free();
    }

    /** One port for each of the post room's, chosen once. */
    private static int imapPort(int smtpPort) {
        return IMAP_PORTS.computeIfAbsent(smtpPort, p -> freePort());
    }

    /** All stand-ins. @param appPort where events go */
    static App standIns(Path data, int appPort, int smtpPort) {
        int port = freePort();
        return new App(
                        "standins",
                        port,
                        data,
                        List.of(
                                "--spring.config.name=standins",
                                "--server.port=" + port,
                                "--standins.smtp-port=" + smtpPort,
                                "--standins.imap-port=" + imapPort(smtpPort),
                                "--standins.data=" + data.resolve("stand-ins"),
                                "--spring.datasource.hikari.max-lifetime=30000",
                                "--standins.api-key=" + KEY,
                                "--standins.webhook-secret=" + SECRET,
                                "--standins.webhook-url=http://localhost:" + appPort + "/api/hooks/processor/settings"))
                .start("/counting-house");
    }

    /** The application itself. @param more settings over the tests' own */
    static App server(Path data, int port, int processorPort, int smtpPort, Map<String, String> more) {
        Map<String, String> settings = new LinkedHashMap<>();
        settings.put("spring.config.name", "quill");
        settings.put("server.port", String.valueOf(port));
        settings.put("quill.data", data.toString());
        settings.put("spring.mail.port", String.valueOf(smtpPort));
        settings.put("quill.processor.url", "http://localhost:" + processorPort);
        settings.put("quill.processor.api-key", KEY);
        settings.put("quill.processor.webhook-secret", SECRET);
        settings.put("quill.texts.url", "http://localhost:" + processorPort);
        settings.put("quill.texts.api-key", KEY);
        settings.put("quill.mailbox.host", "localhost");
        settings.put("quill.mailbox.port", String.valueOf(imapPort(smtpPort)));
        settings.put("quill.mailbox.tls", "false");
        settings.put("quill.mailbox.user", "post@larkmoor.example");
        settings.put("quill.mailbox.passphrase", "any");
        settings.put("quill.mailbox-every", "500");
        settings.put("quill.processor.ask-every", "1200");
        settings.put("quill.outbox-every", "300");
        settings.put("quill.call-back-seconds", "0");
        // Connections live as short as the pool allows, so that every test also runs on later ones.
        settings.put("spring.datasource.hikari.max-lifetime", "30000");
        settings.put("quill.public-a-minute", "100000");
        settings.putAll(more);
        List<String> arguments = settings.entrySet().stream()
                .map(e -> "--" + e.getKey() + "=" + e.getValue())
                .toList();
        return new App("server", port, data, arguments).start("/api/health");
    }

    App start(String page) {
        try {
            Path unpacked = unpacked(jar);
            List<String> command = new ArrayList<>(JAVA);
            command.add("-XX:SharedArchiveFile=" + unpacked.resolve("classes.jsa"));
            command.addAll(List.of("-jar", unpacked.resolve(nameOf(jar)).toString()));
            command.addAll(settings);
            Files.createDirectories(data);
            loggedBefore = log().length();
            process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.appendTo(
                            data.resolve(jar + ".log").toFile()))
                    .start();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        try {
            Waiting.until("answer of " + jar, Duration.ofSeconds(120), () -> {
                if (!process.isAlive()) {
                    throw new IllegalStateException(jar + " ended:\n" + log());
                }
                return answers(page);
            });
        } catch (RuntimeException | Error e) {
            kill();
            throw e;
        }
        return this;
    }

    private static String nameOf(String jar) {
        return "quill-" + jar + "-1.0-SNAPSHOT-app.jar";
    }

    /** The shipped jar, unpacked as ./quill does it, with an archive of its classes: it starts twice as fast. */
    private static Path unpacked(String jar) {
        return Kept.of("unpacked-" + jar, List.of(jarOf(jar)), folder -> unpack(jar, folder));
    }

    static Path jarOf(String name) {
        return ROOT.resolve(name + "/target/" + nameOf(name));
    }

    private static void unpack(String name, Path folder) {
        finish(List.of(
                JAVA.get(0),
                "-Djarmode=tools",
                "-jar",
                jarOf(name).toString(),
                "extract",
                "--force",
                "--destination",
                folder.toString()));
        List<String> dump = new ArrayList<>(JAVA);
        dump.addAll(List.of(
                "-XX:ArchiveClassesAtExit=" + folder.resolve("classes.jsa"),
                "-Dspring.context.exit=onRefresh",
                "-jar",
                folder.resolve(nameOf(name)).toString(),
                "--spring.config.name=" + (name.equals("server") ? "quill" : name),
                "--server.port=0",
                "--quill.data=" + folder.resolve("none"),
                "--standins.data=" + folder.resolve("none"),
                "--standins.smtp-port=" + freePort(),
                "--standins.imap-port=" + freePort()));
        finish(dump);
    }

    private static void finish(List<String> command) {
        try {
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            process.waitFor();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    String log() {
        try {
            return Files.readString(data.resolve(jar + ".log"));
        } catch (IOException e) {
            return "";
        }
    }

    /** Waits until the demo's year was played, or resumed, by the process that was started last. */
    void demoReady() {
        Waiting.until(
                "the demo",
                Duration.ofSeconds(180),
                () -> log().substring(loggedBefore).contains("The demo is ready"));
    }

    private boolean answers(String page) {
        try {
            return HttpClient.newHttpClient()
                            .send(
                                    HttpRequest.newBuilder(URI.create(url(page)))
                                            .timeout(Duration.ofSeconds(3))
                                            .build(),
                                    HttpResponse.BodyHandlers.discarding())
                            .statusCode()
                    < 400;
        } catch (IOException e) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    @Override
    public String url(String path) {
        return "http://localhost:" + port + path;
    }

    /** kill -9. */
    void kill() {
        process.destroyForcibly();
        try {
            process.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    long pid() {
        return process.pid();
    }

    /** What the process holds of memory; 0 where that cannot be read. */
    long residentMegabytes() {
        try {
            return Files.readAllLines(Path.of("/proc/" + process.pid() + "/status")).stream()
                    .filter(l -> l.startsWith("VmRSS:"))
                    .map(l -> Long.parseLong(l.replaceAll("\\D", "")) / 1024)
                    .findFirst()
                    .orElse(0L);
        } catch (IOException e) {
            return 0;
        }
    }

    boolean isAlive() {
        return process.isAlive();
    }

    /** An orderly stop, which compacts the books and is given the time that it needs. */
    void stop() {
        process.destroy();
        Instant patience = Instant.now().plusSeconds(150);
        while (process.isAlive() && Instant.now().isBefore(patience)) {
            Waiting.pause(20);
        }
        kill();
    }

    /** Thrown away, so ended at once. */
    @Override
    public void close() {
        kill();
    }
}
