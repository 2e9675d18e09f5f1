package quill.server.business;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;
import quill.server.common.BusinessClock;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;

/** Table KEPT_SCHEDULE: schedules under a name, to be dropped onto any document. */
@Service
public class KeptSchedules {
    private static final int MOST = 40;
    /** What a schedule is drawn from: large enough for any share to be seen. */
    private static final int DRAWN_OF = 1_000_000;

    private final JdbcClient jdbc;
    private final BusinessService business;
    private final BusinessClock clock;
    private final Json json;

    KeptSchedules(JdbcClient jdbc, BusinessService business, BusinessClock clock, Json json) {
        this.jdbc = jdbc;
        this.business = business;
        this.clock = clock;
        this.json = json;
    }

    /**
     * A schedule under its name.
     *
     * @param weights how it is drawn: its installments in proportion to each other
     * @param usual whether a new invoice begins with it
     */
    public record KeptSchedule(long id, String name, List<TypedTerm> terms, List<Integer> weights, boolean usual) {}

    /** One to be kept. */
    public record TypedSchedule(String name, List<TypedTerm> terms, boolean usual) {}

    private record Row(long id, String name, List<TypedTerm> terms, boolean usual) {}

    /** All of them, by name; the usual one first. */
    public List<KeptSchedule> all() {
        return jdbc
                .sql("SELECT id, name, terms, usual FROM kept_schedule ORDER BY usual DESC, LOWER(name), id")
                .query((rs, n) -> new Row(
                        rs.getLong(1),
                        rs.getString(2),
                        List.of(json.read(rs.getString(3), TypedTerm[].class)),
                        rs.getBoolean(4)))
                .list()
                .stream()
                .map(r -> new KeptSchedule(r.id(), r.name(), r.terms(), weights(r.terms()), r.usual()))
                .toList();
    }

    /** Keeps one. @param id 0 for a new one @throws RefusedException naming {@code name} or a field of a term */
    @Transactional
    public long keep(long id, TypedSchedule typed) {
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("name", typed.name(), 80, true, problems);
        List<TypedTerm> terms = typed.terms() == null ? List.of() : typed.terms();
        read(terms, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        weightsOf(terms);
        if (typed.usual()) {
            jdbc.sql("UPDATE kept_schedule SET usual = FALSE").update();
        }
        if (id != 0) {
            int rows = write(
                            "UPDATE kept_schedule SET name = :name, terms = :terms, usual = :usual WHERE id = :id",
                            name,
                            terms,
                            typed.usual())
                    .param("id", id)
                    .update();
            if (rows != 1) {
                throw new NotFoundException("There is no schedule " + id + " any more.");
            }
            return id;
        }
        if (all().size() >= MOST) {
            throw new RefusedException("name", name, "at most " + MOST + " schedules are kept; delete one first");
        }
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        write(
                        "INSERT INTO kept_schedule (name, terms, usual) VALUES (:name, :terms, :usual)",
                        name,
                        terms,
                        typed.usual())
                .update(key, "id");
        return key.getKey().longValue();
    }

    private JdbcClient.StatementSpec write(String sql, String name, List<TypedTerm> terms, boolean usual) {
        return jdbc.sql(sql)
                .param("name", name)
                .param("terms", json.write(terms))
                .param("usual", usual);
    }

    /** Keeps one no longer; documents that began with it stay as they are. */
    @Transactional
    public void delete(long id) {
        if (jdbc.sql("DELETE FROM kept_schedule WHERE id = :id").param("id", id).update() != 1) {
            throw new NotFoundException("There is no schedule " + id + " any more.");
        }
    }

    private List<Term> read(List<TypedTerm> terms, List<Problem> problems) {
        if (terms.isEmpty()) {
            problems.add(new Problem("schedule", "", "a schedule has one installment at least"));
            return List.of();
        }
        CurrencyUnit own = business.business().currencyUnit();
        return Term.readAll(terms, own, clock.today(), problems);
    }

    /** Sums that are larger than what it is drawn of, or days that have passed meanwhile, are no reason to lose it. */
    private List<Integer> weights(List<TypedTerm> terms) {
        try {
            return weightsOf(terms);
        } catch (RefusedException e) {
            return terms.stream().map(t -> 1).toList();
        }
    }

    private List<Integer> weightsOf(List<TypedTerm> terms) {
        List<Problem> problems = new ArrayList<>();
        List<Term> read = read(terms, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        LocalDate today = clock.today();
        Money whole = Money.ofMajor(business.business().currencyUnit(), DRAWN_OF);
        return ScheduleMaking.make(whole, today, read).stream()
                .map(Installment::amount)
                .map(a -> a.getAmountMajorInt())
                .toList();
    }
}
