package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

/** Looking at what a slip would send, over HTTP: the letter, and the text message. */
final class SlipBench {
    private static final int TIMES = 200;
    private final Path root;

    SlipBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        String[] more = {
            "--quill.run-every=36000000", "--quill.outbox-every=36000000", "--quill.texts.url=http://localhost:9"
        };
        try (BenchServer server = new BenchServer(root, data, more)) {
            server.firstRun();
            long invoice = server.issueOne();
            return line("letter", server, invoice, "MAIL", "a@clients.example")
                    + line("text message", server, invoice, "TEXT", "+447700900123");
        }
    }

    private static String line(String what, BenchServer server, long invoice, String channel, String to)
            throws Exception {
        String body = """
                {"version":0,"slip":{"to":"%s","line":"See you.","bare":false,"copy":false,"keep":false,"channel":"%s"}}
                """.formatted(to, channel);
        long[] micros = new long[TIMES];
        for (int i = -TIMES; i < TIMES; i++) {
            long before = System.nanoTime();
            String answer = server.post("/api/invoices/" + invoice + "/letter", body);
            if (i >= 0) {
                micros[i] = (System.nanoTime() - before) / 1000;
            }
            if (!answer.contains("\"seen\"")) {
                throw new IllegalStateException(answer);
            }
        }
        Arrays.sort(micros);
        return String.format(
                "slip, the %s looked at: median %.1f ms, p95 %.1f ms (aim: p95 below 150)%n",
                what, micros[TIMES / 2] / 1000.0, micros[TIMES * 95 / 100] / 1000.0);
    }
}
