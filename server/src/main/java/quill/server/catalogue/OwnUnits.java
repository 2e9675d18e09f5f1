package quill.server.catalogue;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.catalogue.UnitCodes;
import quill.server.common.Texts;

/** Units of the business's own, each with the code that other programs read. Table OWN_UNIT. What was issued keeps its code. */
@Service
public class OwnUnits {
    private static final int MOST = 100;
    private static final int LONGEST = 30;
    /** As a quantity carries it on the sheet. */
    private static final Pattern NAME = Pattern.compile("\\p{L}[\\p{L}²³. ]*");

    private final JdbcClient jdbc;

    OwnUnits(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One. @param code of UN/ECE Recommendation 20, such as {@code E48}, a unit of service */
    public record OwnUnit(String name, String code) {}

    /** All of them, by name. */
    public List<OwnUnit> all() {
        return jdbc.sql("SELECT name, code FROM own_unit ORDER BY name_key")
                .query((rs, n) -> new OwnUnit(rs.getString(1), rs.getString(2)))
                .list();
    }

    /** The code of each unit, its own or a usual one; {@code C62}, one, where it has none. */
    public UnaryOperator<String> codes() {
        Map<String, String> own = new HashMap<>();
        all().forEach(u -> own.put(key(u.name()), u.code()));
        return unit -> own.getOrDefault(key(unit), UnitCodes.code(unit));
    }

    private static String key(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }

    /** Keeps one. @throws RefusedException naming {@code name} or {@code code} */
    @Transactional
    void keep(OwnUnit typed) {
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("name", typed.name(), LONGEST, true, problems);
        String code = typed.code() == null ? "" : typed.code().strip().toUpperCase(Locale.ROOT);
        if (name != null && !name.isEmpty() && !NAME.matcher(name).matches()) {
            problems.add(new Problem(
                    "name",
                    name,
                    "must be letters, blanks and points, such as session, so that a quantity ends before it"));
        }
        if (name != null && UnitCodes.isKnown(name)) {
            problems.add(new Problem("name", name, "has a code already, " + UnitCodes.code(name)));
        }
        if (!UnitCodes.isCode(code)) {
            problems.add(
                    new Problem(
                            "code",
                            typed.code(),
                            "must be a code of UN/ECE Recommendation 20, such as E48 for a service, HUR for an hour or C62 for one"));
        }
        if (problems.isEmpty() && all().size() >= MOST) {
            problems.add(new Problem("name", name, "at most " + MOST + " are kept; forget one first"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        try {
            jdbc.sql("INSERT INTO own_unit (name, code) VALUES (:name, :code)")
                    .param("name", name)
                    .param("code", code)
                    .update();
        } catch (DuplicateKeyException e) {
            throw new RefusedException("name", name, "is one of your units already");
        }
    }

    /** Forgets one; one that is gone already stays so. */
    @Transactional
    void forget(String name) {
        jdbc.sql("DELETE FROM own_unit WHERE name_key = :name")
                .param("name", key(name))
                .update();
    }
}
