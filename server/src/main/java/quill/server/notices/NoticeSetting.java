package quill.server.notices;

import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.News;
import quill.server.common.Texts;

/**
 * What the business hears of by mail.
 *
 * @param address where it goes; empty for the business's own
 * @param evening time of the summary, where it is
 * @param kinds that it hears of
 * @param version 0 before it was first kept
 */
public record NoticeSetting(Mail mail, String address, String evening, List<News.Kind> kinds, int version) {
    /** When mail goes. */
    public enum Mail {
        /** Each thing by itself. */
        EACH,
        /** One letter of an evening, where anything happened. */
        EVENING,
        /** Never; open pages tell all the same. */
        NEVER
    }

    /** Until somebody says otherwise: one letter of an evening, of everything. */
    static NoticeSetting first() {
        return new NoticeSetting(Mail.EVENING, "", "18:00", List.of(News.Kind.values()), 0);
    }

    /** @throws RefusedException with every field that is wrong */
    NoticeSetting checked() {
        List<Problem> problems = new ArrayList<>();
        String plain = Texts.email("address", address, false, problems);
        String hour = evening == null ? "" : evening.strip();
        try {
            hour = LocalTime.parse(hour.matches("\\d:\\d\\d") ? "0" + hour : hour)
                    .withSecond(0)
                    .withNano(0)
                    .toString();
        } catch (DateTimeParseException e) {
            problems.add(new Problem("evening", evening, "write a time of day from 00:00 to 23:59, such as 18:00"));
        }
        if (mail == null) {
            problems.add(new Problem("mail", null, "must be EACH, EVENING or NEVER"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        List<News.Kind> wanted = kinds == null
                ? List.of()
                : kinds.stream().filter(Objects::nonNull).distinct().sorted().toList();
        return new NoticeSetting(mail, plain, hour, wanted, version);
    }
}
