package quill.server.documents;

import java.time.LocalDate;
import java.util.Arrays;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.document.NumberPattern;
import quill.server.business.Business;
import quill.server.business.BusinessService;

/** Table NUMBER_SERIES: numbers without gaps. */
@Repository
public class NumberSeries {
    private final JdbcClient jdbc;
    private final BusinessService business;

    NumberSeries(JdbcClient jdbc, BusinessService business) {
        this.jdbc = jdbc;
        this.business = business;
    }

    /** A number that was given, and its place among the others: 10000 comes after 9999. */
    public record Given(String number, int series, int sequence) {}

    /**
     * The next number; its series stays locked until the transaction ends, so that no gap can open.
     *
     * @throws RefusedException where a document of that number exists, since the pattern was changed
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Given next(DocumentKind of, LocalDate on) {
        DocumentKind kind = of.numberedAs();
        NumberPattern pattern = pattern(kind);
        int series = pattern.seriesOf(on.getYear());
        int sequence = sequence(kind, series);
        String number = pattern.format(on.getYear(), sequence);
        if (exists(kind, number)) {
            throw new RefusedException(
                    "number",
                    number,
                    "there is a document of this number already; change the pattern of numbers in Settings, for"
                            + " example by a letter before it");
        }
        return new Given(number, series, sequence);
    }

    /** How the business writes numbers of a kind. */
    NumberPattern pattern(DocumentKind kind) {
        Business own = business.business();
        return switch (kind) {
            case INVOICE, DEPOSIT_INVOICE -> new NumberPattern(own.habits().invoicePattern());
            case CREDIT_NOTE -> new NumberPattern(own.habits().creditNotePattern());
            case QUOTE -> new NumberPattern(own.habits().quotePattern());
        };
    }

    /** Whether any number of this day's series stands on a document. */
    boolean isBegun(DocumentKind kind, NumberPattern pattern, LocalDate on) {
        return exists(kind, pattern.format(on.getYear(), last(kind, pattern, on)));
    }

    private boolean exists(DocumentKind kind, String number) {
        return jdbc.sql("SELECT COUNT(*) FROM document WHERE kind IN (:kinds) AND number = :number")
                        .param(
                                "kinds",
                                Arrays.stream(DocumentKind.values())
                                        .filter(k -> k.numberedAs() == kind)
                                        .map(DocumentKind::word)
                                        .toList())
                        .param("number", number)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** How many numbers of this day's series are given out. */
    int last(DocumentKind kind, NumberPattern pattern, LocalDate on) {
        return jdbc.sql("SELECT last FROM number_series WHERE kind = :kind AND series = :series")
                .param("kind", kind)
                .param("series", pattern.seriesOf(on.getYear()))
                .query(Integer.class)
                .optional()
                .orElse(0);
    }

    /**
     * Says with which number a series begins, while none of it was given out: later there would be a gap, or two
     * documents of one number.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    void begin(DocumentKind kind, NumberPattern pattern, LocalDate on, int first) {
        int series = pattern.seriesOf(on.getYear());
        if (isBegun(kind, pattern, on)) {
            throw new RefusedException(
                    "next",
                    first,
                    "numbers of this series are given out already, and they have no gaps; the next one is "
                            + pattern.format(on.getYear(), last(kind, pattern, on) + 1));
        }
        jdbc.sql("MERGE INTO number_series (kind, series, last) KEY (kind, series) VALUES (:kind, :series, :last)")
                .param("kind", kind)
                .param("series", series)
                .param("last", first - 1)
                .update();
    }

    private int sequence(DocumentKind kind, int series) {
        for (int attempt = 0; ; attempt++) {
            int rows = jdbc.sql("UPDATE number_series SET last = last + 1 WHERE kind = :kind AND series = :series")
                    .param("kind", kind)
                    .param("series", series)
                    .update();
            if (rows == 1) {
                return jdbc.sql("SELECT last FROM number_series WHERE kind = :kind AND series = :series")
                        .param("kind", kind)
                        .param("series", series)
                        .query(Integer.class)
                        .single();
            }
            try {
                jdbc.sql("INSERT INTO number_series (kind, series, last) VALUES (:kind, :series, 0)")
                        .param("kind", kind)
                        .param("series", series)
                        .update();
            } catch (DuplicateKeyException e) {
                if (attempt > 2) {
                    throw e;
                }
            }
        }
    }
}
