package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;

/** An issued invoice as PDF and as UBL, over HTTP, against the same invoice as JSON. */
final class DocumentBench {
    private static final int TIMES = 60;
    private final Path root;

    DocumentBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        try (BenchServer server = new BenchServer(root, data)) {
            server.firstRun();
            String path = "/api/invoices/" + server.issueOne();
            if (!server.get(path + "/ubl").contains("urn:cen.eu:en16931:2017")) {
                throw new IllegalStateException(server.get(path + "/ubl"));
            }
            long json = server.medianOf(path, TIMES);
            long pdf = server.medianOf(path + "/pdf", TIMES);
            long ubl = server.medianOf(path + "/ubl", TIMES);
            return String.format(
                    "an invoice as PDF: median %.1f ms, as UBL: %.1f ms, as JSON: %.1f ms; UBL to PDF ratio %.2f%n",
                    pdf / 1000.0, ubl / 1000.0, json / 1000.0, (double) ubl / pdf);
        }
    }
}
