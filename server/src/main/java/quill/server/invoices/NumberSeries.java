package quill.server.invoices;

import java.time.LocalDate;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.document.NumberPattern;

/** Table NUMBER_SERIES: numbers without gaps. */
@Repository
class NumberSeries {
    private final JdbcClient jdbc;

    NumberSeries(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * The next number; its series stays locked until the transaction ends, so that no gap can open.
     *
     * @throws RefusedException where a document of that number exists, since the pattern was changed
     */
    @Transactional(propagation = Propagation.MANDATORY)
    String next(String kind, NumberPattern pattern, LocalDate on) {
        String number = pattern.format(on.getYear(), sequence(kind, pattern.seriesOf(on.getYear())));
        String table = "invoice".equals(kind) ? "invoice" : "credit_note";
        boolean taken = jdbc.sql("SELECT COUNT(*) FROM " + table + " WHERE number = :number")
                        .param("number", number)
                        .query(Integer.class)
                        .single()
                > 0;
        if (taken) {
            throw new RefusedException(
                    "number",
                    number,
                    "there is a document of this number already; change the pattern of numbers in Settings, for"
                            + " example by a letter before it");
        }
        return number;
    }

    private int sequence(String kind, int series) {
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
