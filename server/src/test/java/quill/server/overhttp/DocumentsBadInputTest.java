package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** Files, certificates, categories and percentages that cannot be taken: a clear error, and nothing lost. */
public class DocumentsBadInputTest extends InAWorld {
    private static final byte[] PDF = "%PDF-1.7\nx".getBytes(StandardCharsets.US_ASCII);
    private long client;

    @BeforeClass
    public void begin() {
        client = api.client("Bad Documents");
    }

    private Api.Answer upload(String path, String name, byte[] bytes) {
        String boundary = "quill-boundary";
        byte[] head = ("--" + boundary + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8);
        byte[] tail = ("\r\n--" + boundary + "--\r\n").getBytes(StandardCharsets.UTF_8);
        byte[] body = new byte[head.length + bytes.length + tail.length];
        System.arraycopy(head, 0, body, 0, head.length);
        System.arraycopy(bytes, 0, body, head.length, bytes.length);
        System.arraycopy(tail, 0, body, head.length + bytes.length, tail.length);
        return api.exchange(HttpRequest.newBuilder(URI.create(world.url(path)))
                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                .header("X-XSRF-TOKEN", api.csrf())
                .POST(HttpRequest.BodyPublishers.ofByteArray(body))
                .build());
    }

    private long draft() {
        return api.post("/api/invoices", api.draft(client, "100.00", "100%@30"))
                .ok()
                .path("id")
                .asLong();
    }

    @DataProvider
    Object[][] files() {
        byte[] program = new byte[400];
        program[0] = 'M';
        program[1] = 'Z';
        program[128] = 'P';
        program[129] = 'E';
        program[60] = (byte) 128;
        byte[] elf = {0x7f, 'E', 'L', 'F', 2, 1, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 2, 0, 62, 0};
        return new Object[][] {
            {"invoice.pdf", program, 422, "is not what its name says"},
            {"invoice.pdf", elf, 422, "is not what its name says"},
            {"run.exe", program, 422, "must be a PDF, PNG, JPEG"},
            {"script.pdf", "#!/bin/sh\nrm -rf /".getBytes(StandardCharsets.US_ASCII), 422, "is not what"},
            {"empty.pdf", new byte[0], 422, "is empty"},
            {"x".repeat(130) + ".pdf", PDF, 422, "at most 120 characters"},
        };
    }

    @Test(dataProvider = "files")
    public void aFileThatCannotBeKeptIsRefused(String name, byte[] bytes, int status, String says) {
        long id = draft();
        Api.Answer answer = upload("/api/invoices/" + id + "/attachments", name, bytes);
        assertThat(answer.status()).isEqualTo(status);
        assertThat(answer.problem("file")).contains(says);
        assertThat(api.get("/api/invoices/" + id + "/attachments").ok()).isEmpty();
    }

    @Test
    public void aFileOf40MegabytesIsRefusedAndTheDraftStays() {
        long id = draft();
        byte[] large = Arrays.copyOf(PDF, 40 * 1024 * 1024);
        Api.Answer answer = upload("/api/invoices/" + id + "/attachments", "large.pdf", large);
        assertThat(answer.status()).isEqualTo(413);
        assertThat(answer.problem("file")).contains("at most 10 MB");
        assertThat(api.get("/api/invoices/" + id)
                        .ok()
                        .path("draft")
                        .path("typed")
                        .path("subject")
                        .asString())
                .isEqualTo("some work");
    }

    @Test
    public void theFilesOfAnIssuedInvoiceStay() {
        long id = draft();
        long file = upload("/api/invoices/" + id + "/attachments", "a/b\\plan.pdf", PDF)
                .ok()
                .path("id")
                .asLong();
        api.post("/api/invoices/" + id + "/issue", Map.of("version", 1)).ok();
        assertThat(upload("/api/invoices/" + id + "/attachments", "late.pdf", PDF)
                        .status())
                .isEqualTo(409);
        assertThat(api.send("DELETE", "/api/invoices/" + id + "/attachments/" + file, null)
                        .status())
                .isEqualTo(409);
        JsonNode kept = api.get("/api/invoices/" + id + "/attachments").ok();
        assertThat(kept.get(0).path("name").asString()).isEqualTo("plan.pdf");
        assertThat(api.bytes("/api/invoices/" + id + "/attachments/" + file)).isEqualTo(PDF);
    }

    @Test
    public void aCertificateThatHasEndedIsRefused() {
        Map<String, Object> ended = new LinkedHashMap<>(Map.of(
                "id",
                0,
                "name",
                "Ended",
                "contact",
                "",
                "email",
                "",
                "address",
                "",
                "country",
                "BE",
                "taxNumber",
                "",
                "certificate",
                "X-1",
                "exemptUntil",
                "2027-01-31",
                "version",
                1));
        Api.Answer answer = api.post("/api/clients", ended);
        assertThat(answer.problem("exemptUntil")).contains("this certificate has ended");
        ended.put("exemptUntil", "2027-12-31");
        assertThat(api.post("/api/clients", ended).status()).isEqualTo(200);
        ended.put("certificate", "");
        assertThat(api.post("/api/clients", ended).problem("certificate")).contains("name the certificate");
    }

    @Test
    @SuppressWarnings("unchecked")
    public void categoriesThatDoNotFitAreNamedOnTheirLine() {
        String reverse = tax("Reverse charge", "AE");
        String outside = tax("Outside", "O");
        assertThat(issue(List.of(reverse)).problem("lines[0].taxes")).contains("needs the client's tax number");
        Map<String, Object> mixed = api.draft(client, "100.00", "100%@30");
        line(mixed).put("taxes", List.of(outside));
        ((List<Object>) mixed.get("lines")).add(line(api.draft(client, "5.00", "100%@30")));
        long id = api.post("/api/invoices", mixed).ok().path("id").asLong();
        assertThat(api.post("/api/invoices/" + id + "/issue", Map.of("version", 1))
                        .problem("lines[0].taxes"))
                .contains("category O stands with no other");
    }

    private Api.Answer issue(List<String> taxes) {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        line(draft).put("taxes", taxes);
        long id = api.post("/api/invoices", draft).ok().path("id").asLong();
        return api.post("/api/invoices/" + id + "/issue", Map.of("version", 1));
    }

    @SuppressWarnings("unchecked")
    private static Map<String, Object> line(Map<String, Object> draft) {
        return ((List<Map<String, Object>>) draft.get("lines")).get(0);
    }

    private String tax(String name, String category) {
        Map<String, Object> tax = new LinkedHashMap<>(Map.of("name", name, "rate", "", "category", category));
        tax.put("compound", false);
        tax.put("reason", name);
        return api.post("/api/business/taxes", tax).ok().path("id").asString();
    }

    @DataProvider
    Object[][] extras() {
        return new Object[][] {
            {"discounts", "120%", "discounts[0].amount", "0% to 100%"},
            {"discounts", "100.01", "discounts[0].amount", "must not be more than the lines"},
            {"charges", "-5", "charges[0].amount", "not be below zero"},
            {"charges", "lots", "charges[0].amount", "such as 14.5"},
        };
    }

    @Test(dataProvider = "extras")
    public void anExtraThatCannotBeIsNamed(String list, String amount, String field, String says) {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        draft.put(
                list,
                List.of(Map.of(
                        "description",
                        "x",
                        "amount",
                        amount,
                        "taxes",
                        line(draft).get("taxes"))));
        assertThat(api.post("/api/reckonings", draft).problem(field)).contains(says);
    }

    @DataProvider
    Object[][] nulls() {
        return new Object[][] {
            {"lines"}, {"discounts"}, {"charges"}, {"schedule"},
        };
    }

    @Test(dataProvider = "nulls")
    public void aNullWithinAListIsNamed(String list) {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        draft.put(list, Arrays.asList((Object) null));
        Api.Answer answer = api.post("/api/reckonings", draft);
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.problem(list + "[0]")).contains("is of another type");
        long id = api.issue(api.draft(client, "100.00", "100%@30"));
        Map<String, Object> wanted = new LinkedHashMap<>(Map.of("what", "lines", "reason", "x", "replace", false));
        wanted.put(list.equals("lines") ? "lines" : "charges", Arrays.asList((Object) null));
        assertThat(api.post("/api/invoices/" + id + "/credit-notes", wanted).status())
                .isEqualTo(400);
    }

    @Test
    public void prepaidBeyondTheDepositsHeldIsRefused() {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        draft.put("prepaid", "10.00");
        long id = api.post("/api/invoices", draft).ok().path("id").asLong();
        assertThat(api.post("/api/invoices/" + id + "/issue", Map.of("version", 1))
                        .problem("prepaid"))
                .contains("at most 0.00 is held");
    }

    @Test
    public void aSentInvoiceIsNeitherVoidedNorTakenBackToADraft() {
        long id = api.issue(api.draft(client, "100.00", "100%@30"));
        Waiting.until(
                "the letter to leave",
                java.time.Duration.ofSeconds(30),
                () -> api.get("/api/invoices/" + id + "/messages").text().contains("\"state\":\"sent\""));
        assertThat(api.post("/api/invoices/" + id + "/voiding", Map.of("reason", "no"))
                        .text())
                .contains("only a credit note");
        assertThat(api.post("/api/invoices/" + id + "/taking-back", Map.of("reason", "no"))
                        .status())
                .isEqualTo(409);
        assertThat(api.post(
                                "/api/invoices/" + id + "/credit-notes",
                                Map.of("what", "amount", "reason", "x", "amount", "121.01", "replace", false))
                        .problem("amount"))
                .contains("at most 121.00");
    }

    @Test
    public void aUblFileWithADocumentTypeIsRefusedUnread() {
        byte[] bomb = ("<?xml version=\"1.0\"?><!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\">"
                        + "<!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\"><!ENTITY c \"&b;&b;&b;&b;&b;&b;&b;\">]><x>&c;</x>")
                .getBytes(StandardCharsets.UTF_8);
        Api.Answer answer = upload("/api/imports/ubl", "bomb.xml", bomb);
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.problem("file")).contains("document type declaration");
    }
}
