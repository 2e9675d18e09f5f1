package quill.core.letter;

import java.text.BreakIterator;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import quill.core.Problem;
import quill.core.letter.FieldSet.Offered;
import quill.core.letter.Filled.Block;
import quill.core.letter.Filled.Run;

/**
 * What a letter says, as the business words it: plain text with names of fields between braces. It is no language: a
 * field is put in as it is, and a sentence with an empty one is left out. Braces with anything but a name in them, or
 * after one of {@code $ # * @ ~ %}, are text.
 *
 * @param subject one line; empty for what is said on a page
 * @param body paragraphs with empty lines between
 */
public record Wording(String subject, String body) {
    /** The longest subject. */
    public static final int LONGEST_SUBJECT = 200;

    /** The longest body. */
    public static final int LONGEST_BODY = 5000;

    /** The longest body of a text message, before its fields are filled in. */
    public static final int LONGEST_TEXT = 600;

    private static final Pattern TITLE = Pattern.compile("[\\p{L}\\p{M}\\p{N}][\\p{L}\\p{M}\\p{N} ,.'’/-]{0,59}");
    private static final Pattern FIELD = Pattern.compile("(?<![$#*@~%{])\\{(\\s*" + TITLE + ")\\}");
    private static final Pattern PARAGRAPH = Pattern.compile("\\n[ \\t]*(?:\\n[ \\t]*)+");
    private static final Pattern SUBJECT_BREAK = Pattern.compile("[,:;–—·]\\s+");
    private static final Pattern LOOSE_ENDS = Pattern.compile("^[\\s,:;–—·]+|[\\s,:;–—·]+$");

    /** Whether a label can be written between braces. */
    static boolean isTitle(String label) {
        return TITLE.matcher(label).matches();
    }

    /**
     * Reads what was typed.
     *
     * @return null where a problem was added: a field that does not exist, with the nearest that does; a table or a
     *     drawing within a line; a subject of several lines; too long a text; none at all
     */
    public static Wording read(String subject, String body, FieldSet fields, List<Problem> problems) {
        int before = problems.size();
        String head = subject == null ? "" : subject.strip();
        String text = body == null
                ? ""
                : body.replace("\r\n", "\n").replace('\r', '\n').strip();
        if (head.isEmpty() == fields.hasSubject()) {
            problems.add(new Problem(
                    "subject", head, fields.hasSubject() ? "must not be empty" : "this has none; leave it empty"));
        }
        if (head.codePoints().anyMatch(c -> Character.isISOControl(c) || c == 0x2028 || c == 0x2029)) {
            problems.add(new Problem("subject", head, "must be one line, without control characters"));
        }
        if (head.length() > LONGEST_SUBJECT) {
            problems.add(new Problem("subject", head, "at most " + LONGEST_SUBJECT + " characters"));
        }
        if (text.isEmpty()) {
            problems.add(new Problem("body", "", "must not be empty"));
        }
        if (text.length() > fields.longest()) {
            problems.add(new Problem(
                    "body",
                    text.substring(0, 20) + "…",
                    String.format(
                            Locale.ROOT, "at most %,d characters; these are %,d", fields.longest(), text.length())));
        }
        check("subject", head, fields, problems);
        for (String line : text.split("\n", -1)) {
            check("body", line, fields, problems);
        }
        return problems.size() > before ? null : new Wording(head, text);
    }

    private static void check(String where, String line, FieldSet fields, List<Problem> problems) {
        Matcher m = FIELD.matcher(line);
        while (m.find()) {
            Offered field = fields.find(m.group(1)).orElse(null);
            if (field == null) {
                problems.add(new Problem(
                        where,
                        m.group(),
                        "there is no such field in this letter; the nearest is "
                                + fields.nearest(m.group(1)).written()));
            } else if (field.shape() == LetterField.Shape.BLOCK
                    && ("subject".equals(where) || !line.strip().equals(m.group()))) {
                problems.add(new Problem(where, m.group(), "it is drawn: it stands on a line of its own in the text"));
            }
        }
    }

    /** The names of the fields that it has, as they are offered. */
    public Set<String> used(FieldSet fields) {
        Set<String> used = new LinkedHashSet<>();
        Matcher m = FIELD.matcher(subject + "\n" + body);
        while (m.find()) {
            fields.find(m.group(1)).ifPresent(o -> used.add(o.title()));
        }
        return used;
    }

    /** Whether it has a field that is none of ours: one of the business's own, or one that was. */
    public boolean hasOwn(FieldSet fields) {
        Matcher m = FIELD.matcher(subject + "\n" + body);
        return m.results()
                .anyMatch(r -> fields.find(r.group(1))
                        .filter(o -> o.group() != LetterField.Group.OWN)
                        .isEmpty());
    }

    /**
     * What is left out where a field is empty, as it was typed: its sentence; in the subject, its part between commas.
     */
    public List<String> without(String title, FieldSet fields) {
        List<String> gone = new ArrayList<>();
        Predicate<Offered> empty = o -> o.title().equals(title);
        for (Piece p : pieces(subject, fields, true)) {
            if (p.has(empty)) {
                gone.add(LOOSE_ENDS.matcher(p.text()).replaceAll(""));
            }
        }
        for (String line : body.split("\n")) {
            for (Piece p : pieces(line, fields, false)) {
                if (p.has(empty)) {
                    gone.add(p.text().strip());
                }
            }
        }
        return gone;
    }

    /**
     * Fills it in.
     *
     * @param values by the fields' names; a missing one is empty
     * @param drawn the blocks that have something to draw
     * @param fallback the subject where nothing of it is left
     */
    public Filled fill(Map<String, String> values, Set<LetterField> drawn, FieldSet fields, String fallback) {
        Predicate<Offered> empty = o -> values.getOrDefault(o.title(), "").isBlank();
        StringBuilder head = new StringBuilder();
        for (Piece p : pieces(subject, fields, true)) {
            if (!p.has(empty)) {
                p.runs(values).forEach(r -> head.append(r.text()));
            }
        }
        String line =
                LOOSE_ENDS.matcher(head.toString().replaceAll("\\s+", " ")).replaceAll("");
        List<Block> blocks = new ArrayList<>();
        for (String paragraph : PARAGRAPH.split(body)) {
            paragraph(paragraph, values, drawn, fields, blocks);
        }
        return new Filled(line.isEmpty() ? fallback : line, blocks);
    }

    private static void paragraph(
            String paragraph, Map<String, String> values, Set<LetterField> drawn, FieldSet fields, List<Block> blocks) {
        Predicate<Offered> empty = o -> values.getOrDefault(o.title(), "").isBlank();
        List<Run> runs = new ArrayList<>();
        for (String line : paragraph.split("\n")) {
            LetterField block = block(line, fields);
            if (block != null) {
                add(blocks, runs);
                if (drawn.contains(block)) {
                    blocks.add(new Block(List.of(), block));
                }
                continue;
            }
            List<Run> kept = new ArrayList<>();
            for (Piece p : pieces(line, fields, false)) {
                if (!p.has(empty)) {
                    kept.addAll(p.runs(values));
                }
            }
            kept = stripped(kept);
            if (!kept.isEmpty() && !runs.isEmpty()) {
                runs.add(new Run("\n", false));
            }
            runs.addAll(kept);
        }
        add(blocks, runs);
    }

    private static void add(List<Block> blocks, List<Run> runs) {
        if (!runs.isEmpty()) {
            blocks.add(new Block(runs, null));
            runs.clear();
        }
    }

    /** Runs of a line without blanks around them, neighbours of one kind made one. */
    private static List<Run> stripped(List<Run> runs) {
        List<Run> out = new ArrayList<>();
        for (Run r : runs) {
            Run last = out.isEmpty() ? null : out.get(out.size() - 1);
            if (last != null && last.link() == r.link()) {
                out.set(out.size() - 1, new Run(last.text() + r.text(), r.link()));
            } else {
                out.add(r);
            }
        }
        if (!out.isEmpty()) {
            out.set(0, new Run(out.get(0).text().stripLeading(), out.get(0).link()));
            int end = out.size() - 1;
            out.set(
                    end,
                    new Run(out.get(end).text().stripTrailing(), out.get(end).link()));
        }
        out.removeIf(r -> r.text().isEmpty());
        return out;
    }

    private static LetterField block(String line, FieldSet fields) {
        Matcher m = FIELD.matcher(line.strip());
        if (!m.matches()) {
            return null;
        }
        Offered field = fields.find(m.group(1)).orElse(null);
        return field == null || field.shape() != LetterField.Shape.BLOCK
                ? null
                : List.of(LetterField.values()).stream()
                        .filter(f -> f.title().equals(field.title()))
                        .findFirst()
                        .orElseThrow();
    }

    /** A sentence as it was typed, or in a subject what stands between two commas: text and fields in turn. */
    private record Piece(String text, List<Object> parts) {
        private boolean has(Predicate<Offered> which) {
            return parts.stream().anyMatch(p -> p instanceof Offered o && which.test(o));
        }

        private List<Run> runs(Map<String, String> values) {
            return parts.stream()
                    .map(p -> p instanceof Offered o
                            ? new Run(
                                    values.getOrDefault(o.title(), ""),
                                    o.title().equals(LetterField.PAGE.title()))
                            : new Run((String) p, false))
                    .toList();
        }
    }

    /** Cuts a line into sentences; what a field says never makes one, and a field that is a sentence is one. */
    private static List<Piece> pieces(String line, FieldSet fields, boolean subject) {
        StringBuilder mask = new StringBuilder(line);
        Set<Integer> cuts = new TreeSet<>();
        Matcher m = FIELD.matcher(line);
        List<int[]> spans = new ArrayList<>();
        List<Offered> found = new ArrayList<>();
        while (m.find()) {
            Offered field = fields.find(m.group(1)).orElseGet(() -> FieldSet.gone(m.group(1)));
            spans.add(new int[] {m.start(), m.end()});
            found.add(field);
            for (int i = m.start(); i < m.end(); i++) {
                mask.setCharAt(i, 'X');
            }
            if (field.shape() == LetterField.Shape.SENTENCE && !subject) {
                cuts.add(m.start());
                cuts.add(m.end());
            }
        }
        cuts.add(0);
        cuts.add(line.length());
        if (subject) {
            Matcher breaks = SUBJECT_BREAK.matcher(mask);
            while (breaks.find()) {
                cuts.add(breaks.end());
            }
        } else {
            BreakIterator sentences = BreakIterator.getSentenceInstance(Locale.UK);
            sentences.setText(mask.toString());
            for (int i = sentences.first(); i != BreakIterator.DONE; i = sentences.next()) {
                cuts.add(i);
            }
        }
        return cut(line, List.copyOf(cuts), spans, found);
    }

    private static List<Piece> cut(String line, List<Integer> cuts, List<int[]> spans, List<Offered> found) {
        List<Piece> pieces = new ArrayList<>();
        for (int c = 0; c + 1 < cuts.size(); c++) {
            int from = cuts.get(c);
            int to = cuts.get(c + 1);
            List<Object> parts = new ArrayList<>();
            int at = from;
            for (int s = 0; s < spans.size(); s++) {
                int[] span = spans.get(s);
                if (span[0] >= from && span[1] <= to) {
                    if (span[0] > at) {
                        parts.add(line.substring(at, span[0]));
                    }
                    parts.add(found.get(s));
                    at = span[1];
                }
            }
            if (at < to) {
                parts.add(line.substring(at, to));
            }
            if (!parts.isEmpty()) {
                pieces.add(new Piece(line.substring(from, to), parts));
            }
        }
        return pieces;
    }
}
