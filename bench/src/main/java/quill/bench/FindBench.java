package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Finding among 20,000 invoices of 2,000 clients, and taking a table of 10,000 items in, with 256 MB. */
final class FindBench {
    private static final int INVOICES = 20_000;
    private static final int CLIENTS = 2_000;
    private static final int ITEMS = 10_000;
    private static final int TIMES = 20;
    private static final long PATIENCE = 600_000;
    private static final List<String> ASKED =
            List.of("cli", "client", "clent", "work", "1999", "15300", "153.00", "client 1500", "a", "nothing at all");
    private final Path root;

    FindBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        String[] idle = {"--quill.run-every=36000000", "--quill.outbox-every=36000000", "--quill.find-every=200"};
        long invoice;
        try (BenchServer server = new BenchServer(root, data, idle)) {
            server.firstRun();
            invoice = server.issueOne();
        }
        try (Connection db = BenchServer.books(data)) {
            RunBench.spread(db, invoice, INVOICES, CLIENTS);
            RunBench.update(db, "DELETE FROM find_stale");
            RunBench.update(db, "INSERT INTO find_stale (kind, about_id) SELECT 'CLIENT', id FROM client");
            RunBench.update(db, "INSERT INTO find_stale (kind, about_id) SELECT 'INVOICE', id FROM document");
        }
        try (BenchServer server = new BenchServer(root, data, idle)) {
            server.signIn();
            return reading(server) + asking(server) + taking(server);
        }
    }

    private static String reading(BenchServer server) throws Exception {
        long begun = System.currentTimeMillis();
        while (!server.get("/api/finding?words=" + (INVOICES - 1)).contains("-" + (INVOICES - 1))) {
            if (System.currentTimeMillis() - begun > PATIENCE) {
                throw new IllegalStateException("the words of all invoices are not read yet");
            }
            Thread.sleep(500);
        }
        return String.format(
                "words of %,d invoices and %,d clients read in %.1f s%n",
                INVOICES, CLIENTS, (System.currentTimeMillis() - begun) / 1000.0);
    }

    private static String asking(BenchServer server) throws Exception {
        long[] micros = new long[ASKED.size() * TIMES];
        for (int i = -micros.length; i < micros.length; i++) {
            String words = ASKED.get(Math.floorMod(i, ASKED.size())).replace(" ", "%20");
            long before = System.nanoTime();
            server.get("/api/finding?words=" + words);
            if (i >= 0) {
                micros[i] = (System.nanoTime() - before) / 1000;
            }
        }
        Arrays.sort(micros);
        return String.format(
                "finding: median %.1f ms, p95 %.1f ms (aim: at most 100 ms)%n",
                micros[micros.length / 2] / 1000.0, micros[micros.length * 95 / 100] / 1000.0);
    }

    private static String taking(BenchServer server) throws Exception {
        String csv = IntStream.rangeClosed(1, ITEMS)
                .mapToObj(i -> "B-" + i + ";Item number " + i + " of many;h;" + i % 900 + ",50;7")
                .collect(Collectors.joining("\n", "Code;Description;Unit;Price;In stock\n", "\n"));
        long begun = System.nanoTime();
        String seen = server.upload("/api/catalogue/table", csv, "{}");
        long looked = System.nanoTime();
        String fingerprint = seen.replaceAll("(?s).*\"fingerprint\":\"(\\w+)\".*", "$1");
        String taken = server.upload("/api/catalogue/table", csv, "{\"fingerprint\":\"" + fingerprint + "\"}");
        long done = System.nanoTime();
        if (!taken.contains("\"taken\":true")) {
            throw new IllegalStateException(taken);
        }
        double look = (looked - begun) / 1e9;
        double take = (done - looked) / 1e9;
        return String.format(
                "a table of %,d items shown in %.1f s and taken in %.1f s: %,.0f rows a second, in 256 MB%n",
                ITEMS, look, take, ITEMS / take);
    }
}
