package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.ConflictException;
import quill.server.common.Hashes;
import quill.server.common.Texts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/**
 * How a person sends one letter, this once. Nothing of it is kept with the client.
 *
 * @param to another address than the client's; empty or null for the client's own
 * @param subject another subject; empty or null for the letter's own
 * @param line of the person's own, put before what the letter says; may be empty
 * @param copies further addresses that get the same, with commas, semicolons or blanks between; may be empty
 * @param bare whether its papers and files stay here
 * @param copy whether a copy goes to the business
 * @param seen what {@link LetterLook} said of the letter that was looked at; null where nobody looked
 */
public record Slip(
        @Schema(nullable = true) String to,
        @Schema(nullable = true) String subject,
        @Schema(nullable = true) String line,
        @Schema(nullable = true) String copies,
        boolean bare,
        boolean copy,
        @Schema(nullable = true) String seen) {
    /** As the letter is, to whom it is for. */
    static final Slip PLAIN = new Slip(null, null, null, null, false, false, null);

    private static final int LINE = 500;
    private static final int SUBJECT = 200;
    private static final int MOST_COPIES = 5;

    /** The slip, or the plain one for null; all of it checked. @throws quill.core.RefusedException naming each field */
    static Slip checked(Slip typed) {
        if (typed == null) {
            return PLAIN;
        }
        List<Problem> problems = new ArrayList<>();
        Slip checked = new Slip(
                Texts.email("slip.to", typed.to, false, problems),
                Texts.name("slip.subject", typed.subject, SUBJECT, false, problems),
                Texts.text("slip.line", typed.line, LINE, false, problems),
                String.join(" ", addresses(typed.copies, problems)),
                typed.bare,
                typed.copy,
                typed.seen);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return checked;
    }

    private static List<String> addresses(String typed, List<Problem> problems) {
        List<String> all = split(typed);
        if (all.size() > MOST_COPIES) {
            problems.add(new Problem("slip.copies", Texts.fit(typed, 40), "at most " + MOST_COPIES + " addresses"));
        }
        all.forEach(a -> Texts.email("slip.copies", a, false, problems));
        return all;
    }

    private static List<String> split(String typed) {
        return typed == null || typed.isBlank()
                ? List.of()
                : Arrays.stream(typed.strip().split("[\\s,;]+"))
                        .filter(a -> !a.isEmpty())
                        .distinct()
                        .toList();
    }

    /** The further addresses, one by one. */
    List<String> others() {
        return split(copies);
    }

    /** What goes along of all that could. */
    List<Enclosed> papers(List<Enclosed> all) {
        return bare ? List.of() : all;
    }

    /** The same letter, to be looked at: what it says and what goes along, to this address. */
    Slip toLook(String address) {
        return new Slip(address, subject, line, null, bare, false, null);
    }

    /** Whether the letter says what it says of itself. */
    boolean changesNothing() {
        return !bare && once().equals(LetterWriting.ThisOnce.NOTHING);
    }

    String toOr(String address) {
        return to == null || to.isEmpty() ? address : to;
    }

    /** What is changed of the letter itself. */
    LetterWriting.ThisOnce once() {
        return new LetterWriting.ThisOnce(subject == null ? "" : subject, line == null ? "" : line);
    }

    /** What a letter says, as a short text that changes with it. The address of a page is new at each look. */
    static String digest(String subject, String text) {
        return Hashes.of(subject + "\n" + text.replaceAll("/p/[\\w-]+", "/p/"));
    }

    /** @throws ConflictException where the letter is not the one that was looked at any more */
    void check(Supplier<Written> plain) {
        if (seen == null) {
            return; // Nobody looked, so it need not be written for that.
        }
        Written now = plain.get();
        if (!seen.equals(digest(now.subject(), now.text()))) {
            throw new ConflictException("What this letter says has changed since you looked at it. Look at it again.");
        }
    }
}
