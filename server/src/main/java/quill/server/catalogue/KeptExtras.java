package quill.server.catalogue;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.Extent;
import quill.server.business.BusinessService;
import quill.server.common.Json;
import quill.server.common.Texts;

/** Discounts on the whole and charges that are kept for reuse. Table KEPT_EXTRA. What was written with one stays. */
@Service
public class KeptExtras {
    private static final int MOST = 40;
    private static final int LONGEST = 300;
    private final JdbcClient jdbc;
    private final BusinessService business;
    private final Json json;

    KeptExtras(JdbcClient jdbc, BusinessService business, Json json) {
        this.jdbc = jdbc;
        this.business = business;
        this.json = json;
    }

    /** A kept one. @param charge whether it is a charge, else a discount @param amount {@code 10%} or {@code 25.00} */
    public record KeptExtra(long id, boolean charge, String description, String amount, List<String> taxes) {}

    /** All of them, discounts first, by what they are for. */
    public List<KeptExtra> all() {
        return jdbc.sql("""
                SELECT id, charge, description, amount, taxes FROM kept_extra ORDER BY charge, LOWER(description), id
                """)
                .query((rs, n) -> new KeptExtra(
                        rs.getLong(1),
                        rs.getBoolean(2),
                        rs.getString(3),
                        rs.getString(4),
                        List.of(json.read(rs.getString(5), String[].class))))
                .list();
    }

    /**
     * Keeps one.
     *
     * @param typed its id counts for nothing
     * @throws RefusedException naming {@code description}, {@code amount} or {@code taxes}
     */
    @Transactional
    public void keep(KeptExtra typed) {
        List<Problem> problems = new ArrayList<>();
        String description = Texts.name("description", typed.description(), LONGEST, true, problems);
        Extent extent =
                Extent.read("amount", typed.amount(), business.business().currencyUnit(), problems);
        if (extent instanceof Extent.None) {
            problems.add(new Problem("amount", "", "write a percentage such as 10%, or an amount"));
        }
        List<String> taxes = typed.taxes() == null ? List.of() : List.copyOf(typed.taxes());
        Set<String> known = business.taxes().keySet();
        taxes.stream()
                .filter(t -> !known.contains(t))
                .forEach(t -> problems.add(new Problem("taxes", t, "is not one of the business's taxes: " + known)));
        if (problems.isEmpty() && all().size() >= MOST) {
            problems.add(new Problem("description", description, "at most " + MOST + " are kept; forget one first"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        jdbc.sql("""
                INSERT INTO kept_extra (charge, description, amount, taxes)
                VALUES (:charge, :description, :amount, :taxes)
                """)
                .param("charge", typed.charge())
                .param("description", description)
                .param("amount", typed.amount().strip())
                .param("taxes", json.write(taxes))
                .update();
    }

    /** Forgets one; one that is gone already stays so. */
    @Transactional
    public void forget(long id) {
        jdbc.sql("DELETE FROM kept_extra WHERE id = :id").param("id", id).update();
    }
}
