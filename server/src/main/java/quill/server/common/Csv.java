package quill.server.common;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Tables for spreadsheets: RFC 4180, in UTF-8 with its mark, so that names in every script are read as they are. */
public final class Csv {
    private static final String MARK = "\ufeff";

    private Csv() {}

    /** A file of these rows, the first of which names the columns. */
    public static ResponseEntity<byte[]> file(String name, List<List<String>> rows) {
        StringWriter out = new StringWriter();
        out.write(MARK);
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            for (List<String> row : rows) {
                csv.printRecord(row);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/csv;charset=UTF-8"))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(out.toString().getBytes(StandardCharsets.UTF_8));
    }

    /**
     * A text of somebody's as a cell: on one line, and where it begins like a formula, by a full-width sign too, it is
     * told to be text.
     */
    public static String text(String text) {
        return guarded(text.replaceAll("\\R+", " ").strip());
    }

    /** The same with its line breaks, where they say something: an address. */
    public static String guarded(String line) {
        return line.matches("[=+\\-@\\t＝＋－＠](?s).*") ? "'" + line : line;
    }
}
