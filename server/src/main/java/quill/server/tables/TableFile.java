package quill.server.tables;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import quill.core.RefusedException;

/**
 * A table as somebody's spreadsheet saved it: RFC 4180, with whatever stands between the cells, in Unicode or in the
 * Western letters of older programs.
 *
 * @param charset how its letters were read, in words
 * @param separator what stands between its cells
 * @param rows the first of which names the columns; each as long as that one
 * @param places for each row the number that a spreadsheet shows beside it
 */
public record TableFile(String charset, char separator, List<List<String>> rows, List<Integer> places) {
    private static final int MOST_ROWS = 50_000;
    private static final int MOST_COLUMNS = 100;
    private static final int LONGEST_CELL = 5000;
    private static final int LOOKED_AT = 20;
    private static final char[] SEPARATORS = {',', ';', '\t', '|'};
    private static final char MARK = '\uFEFF';
    /** Holds every letter of ISO 8859-1, and those that spreadsheets put where that has none. */
    private static final Charset WESTERN = Charset.forName("windows-1252");

    /** Reads one. @throws RefusedException for what is no table, or a larger one than anybody types */
    static TableFile read(byte[] bytes) {
        Charset charset = charset(bytes);
        String text = new String(bytes, charset);
        text = !text.isEmpty() && text.charAt(0) == MARK ? text.substring(1) : text;
        if (text.indexOf('\0') >= 0) {
            throw new RefusedException("file", "", "this is no table of text; save it as CSV first");
        }
        char separator = separator(text);
        List<List<String>> rows = new ArrayList<>();
        List<Integer> places = new ArrayList<>();
        try (CSVParser parser = parser(text, separator)) {
            int place = 0;
            for (CSVRecord record : parser) {
                place++;
                List<String> cells = cells(
                        record, rows.isEmpty() ? record.size() : rows.get(0).size());
                if (cells.stream().anyMatch(c -> !c.isBlank())) {
                    rows.add(cells);
                    places.add(place);
                }
                if (rows.size() > MOST_ROWS + 1 || cells.size() > MOST_COLUMNS) {
                    throw new RefusedException(
                            "file",
                            "",
                            "at most " + MOST_ROWS + " rows of " + MOST_COLUMNS + " columns are taken at once");
                }
            }
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            throw new RefusedException("file", "", "this cannot be read as a table: a quotation mark is not closed");
        }
        if (rows.size() < 2) {
            throw new RefusedException(
                    "file", "", "a table has a row with the names of its columns, and rows below it");
        }
        String words = charset.equals(WESTERN) ? "Western letters (Latin-1)" : charset.name();
        return new TableFile(words, separator, rows, places);
    }

    private static CSVParser parser(String text, char separator) throws IOException {
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(false)
                .get();
        return CSVParser.parse(new StringReader(text), format);
    }

    private static List<String> cells(CSVRecord record, int columns) {
        List<String> cells = new ArrayList<>(columns);
        for (int i = 0; i < columns; i++) {
            String cell = i < record.size() ? record.get(i).strip() : "";
            cells.add(cell.length() > LONGEST_CELL ? cell.substring(0, LONGEST_CELL) : unguarded(cell));
        }
        return cells;
    }

    /** Without the sign by which a table written here keeps a spreadsheet from reckoning a text. */
    private static String unguarded(String cell) {
        return cell.matches("'[=+\\-@\\t＝＋－＠].*") ? cell.substring(1) : cell;
    }

    private static Charset charset(byte[] bytes) {
        if (bytes.length > 1 && (bytes[0] == (byte) 0xFE && bytes[1] == (byte) 0xFF)) {
            return StandardCharsets.UTF_16BE;
        }
        if (bytes.length > 1 && (bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xFE)) {
            return StandardCharsets.UTF_16LE;
        }
        try {
            StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes));
            return StandardCharsets.UTF_8;
        } catch (CharacterCodingException e) {
            return WESTERN;
        }
    }

    /** The one by which the first rows fall into the most columns, all alike. */
    private static char separator(String text) {
        char best = SEPARATORS[0];
        int most = 0;
        for (char separator : SEPARATORS) {
            int columns = columns(text, separator);
            if (columns > most) {
                most = columns;
                best = separator;
            }
        }
        return best;
    }

    private static int columns(String text, char separator) {
        try (CSVParser parser = parser(text, separator)) {
            int columns = 0;
            int looked = 0;
            for (CSVRecord record : parser) {
                if (looked++ == 0) {
                    columns = record.size();
                } else if (record.size() > columns) {
                    return 1;
                }
                if (looked == LOOKED_AT) {
                    break;
                }
            }
            return columns;
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            return 0;
        }
    }
}
