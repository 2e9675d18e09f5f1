package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.letter.Channel;
import quill.core.reminder.ReminderStep;
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
 * @param channel by which way; null for e-mail
 * @param at when it leaves, by the business's clock, as 2027-03-15T08:00; empty or null for at once
 * @param keep whether another address than the client's is kept with the client
 * @param seen what {@link LetterLook} said of the letter that was looked at; null where nobody looked
 */
public record Slip(
        @Schema(nullable = true) String to,
        @Schema(nullable = true) String subject,
        @Schema(nullable = true) String line,
        @Schema(nullable = true) String copies,
        boolean bare,
        boolean copy,
        @Schema(nullable = true) String seen,
        @Schema(nullable = true) Channel channel,
        @Schema(nullable = true) String at,
        boolean keep) {
    /** As the letter is, to whom it is for. */
    public static final Slip PLAIN = new Slip(null, null, null, null, false, false, null, null, null, false);

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
                typed.isText() ? typed.to : Texts.email("slip.to", typed.to, false, problems),
                Texts.name("slip.subject", typed.subject, SUBJECT, false, problems),
                Texts.text("slip.line", typed.line, LINE, false, problems),
                String.join(" ", addresses(typed.copies, problems)),
                typed.bare,
                typed.copy,
                typed.seen,
                typed.channel,
                moment(typed.at, problems),
                typed.keep);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return checked;
    }

    private static String moment(String typed, List<Problem> problems) {
        if (typed == null || typed.isBlank()) {
            return null;
        }
        try {
            return LocalDateTime.parse(typed.strip())
                    .truncatedTo(ChronoUnit.MINUTES)
                    .toString();
        } catch (DateTimeParseException e) {
            problems.add(new Problem("slip.at", typed, "must be a day and an hour, such as 2027-03-15T08:00"));
            return null;
        }
    }

    /** Whether it goes to a telephone. */
    boolean isText() {
        return channel == Channel.TEXT;
    }

    /** When it leaves; null for at once. */
    LocalDateTime leavesAt() {
        return at == null ? null : LocalDateTime.parse(at);
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
        return new Slip(address, subject, line, null, bare, false, null, channel, at, false);
    }

    /** Whether the letter says what it says of itself. */
    boolean changesNothing() {
        return !bare && once().equals(LetterWriting.ThisOnce.NOTHING);
    }

    String toOr(String address) {
        return to == null || to.isBlank() ? address : to;
    }

    /** As a step of a plan says. */
    static Slip of(ReminderStep step) {
        return new Slip(null, null, null, null, false, step.copy(), null, step.way(), null, false);
    }

    /** As the letter is, elsewhere. */
    static Slip to(String address) {
        return new Slip(address, null, null, null, false, false, null, null, null, false);
    }

    /** The same by a way. */
    Slip by(Channel way) {
        return new Slip(to, subject, line, copies, bare, copy, seen, way, at, keep);
    }

    /** What goes plainly by the same way. */
    Slip plain() {
        return new Slip(null, null, null, null, false, false, null, channel, null, false);
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
