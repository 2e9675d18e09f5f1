package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** What is printed and described: the PDF read back by PDFBox, and the API against its committed description. */
public class PaperTest extends DemoSuite {
    @Test
    public void thePrintedInvoiceSaysWhatTheScreenSays() throws IOException {
        Api api = Api.signedIn(app);
        long client = api.client("On Paper");
        long invoice = api.issue(api.draft(client, "1234.56", "d40%@0", "rest@30"));
        JsonNode document =
                api.get("/api/invoices/" + invoice).ok().path("issued").path("document");
        try (PDDocument pdf = Loader.loadPDF(api.bytes("/api/invoices/" + invoice + "/pdf"))) {
            PDFTextStripper stripper = new PDFTextStripper();
            stripper.setSortByPosition(true);
            String text = stripper.getText(pdf);
            // 1,234.56 and 21 % of it, 259.2576; 40 % of 1,493.82 is 597.528
            assertThat(text)
                    .contains("Invoice " + document.path("number").asString())
                    .contains("1,234.56", "259.26", "€1,493.82", "597.53", "896.29", "On Paper", "Deposit")
                    .contains("IBAN XX51 LARK 0000 0004 20")
                    .contains("Reference RF");
            for (var name : pdf.getPage(0).getResources().getFontNames()) {
                PDFont font = pdf.getPage(0).getResources().getFont(name);
                assertThat(font.isEmbedded()).as(font.getName()).isTrue();
            }
            assertThat(pdf.getDocumentCatalog().getMetadata()).isNotNull();
        }
        byte[] sameForTheClient = new Api(app).bytes("/api/public/" + api.token(invoice) + "/pdf");
        assertThat(new String(sameForTheClient, 0, 5, java.nio.charset.StandardCharsets.US_ASCII))
                .isEqualTo("%PDF-");
    }

    /** What was mailed is kept for good, byte for byte, whatever is paid later. */
    @Test
    public void thePaperThatWasSentStaysAsItWas() {
        Api api = Api.signedIn(app);
        long client = api.client("Kept Paper");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        String messages = "/api/invoices/" + invoice + "/messages";
        Waiting.until(
                "the letter",
                () -> api.get(messages).ok().get(0).path("state").asString().equals("sent"));
        String sent =
                "/api/messages/" + api.get(messages).ok().get(0).path("id").asLong() + "/pdf";
        byte[] asSent = api.bytes(sent);
        api.transfer(client, invoice, "50.00", "kept-paper-" + invoice).ok();
        assertThat(api.bytes(sent)).isEqualTo(asSent);
        assertThat(api.bytes("/api/invoices/" + invoice + "/pdf")).isNotEqualTo(asSent);
    }

    @Test
    public void theCommittedDescriptionOfTheApiIsTheRunningOne() throws IOException {
        ObjectMapper json = new ObjectMapper();
        assertThat(new Api(app).get("/v3/api-docs").status()).isEqualTo(401);
        JsonNode running = Api.signedIn(app).get("/v3/api-docs").ok();
        Path file = App.ROOT.resolve("web/src/api/openapi.json");
        if (Boolean.getBoolean("quill.openapi.write")) {
            Files.writeString(file, json.writerWithDefaultPrettyPrinter().writeValueAsString(running) + "\n");
        }
        assertThat(running.path("openapi").asString()).startsWith("3.0");
        assertThat(json.readTree(Files.readString(file)))
                .as("run ./quill test -Dquill.openapi.write=true and commit the file")
                .isEqualTo(running);
    }

    @Test
    public void pagesCarryAStrictPolicyAndSayNothingToOthers() throws Exception {
        var answer = java.net.http.HttpClient.newHttpClient()
                .send(
                        java.net.http.HttpRequest.newBuilder(java.net.URI.create(app.url("/")))
                                .build(),
                        java.net.http.HttpResponse.BodyHandlers.ofString());
        String policy = answer.headers().firstValue("Content-Security-Policy").orElse("");
        assertThat(policy).contains("default-src 'none'", "script-src 'self'", "frame-ancestors 'none'");
        assertThat(policy.replace("style-src-attr 'unsafe-inline'", "")).doesNotContain("unsafe");
        assertThat(answer.headers().firstValue("X-Content-Type-Options")).contains("nosniff");
        assertThat(answer.headers().firstValue("Referrer-Policy")).contains("no-referrer");
    }
}
