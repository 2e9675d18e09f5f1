package quill.server.dispatch;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.acts.Act;
import quill.core.reminder.ReminderStep.Tone;
import quill.server.common.Ids;
import quill.server.debts.AgreedTerms;

/** Table MESSAGE_DEBT: what each letter asked for of which debt, and how sternly. */
@Repository
public class AskedDebts {
    private final JdbcClient jdbc;
    private final AgreedTerms terms;

    AskedDebts(JdbcClient jdbc, AgreedTerms terms) {
        this.jdbc = jdbc;
        this.terms = terms;
    }

    /** A debt, how sternly a letter asked for it, and when that was written. */
    private record Asked(long debtId, Tone tone, LocalDate on) {}

    /** Notes what a letter asks for. */
    void add(long messageId, List<Act.Item> items, Tone tone) {
        for (Act.Item item : items) {
            jdbc.sql("""
                    INSERT INTO message_debt (message_id, debt_id, currency, asked_minor, tone)
                    VALUES (:message, :debt, :currency, :asked, :tone)
                    """)
                    .param("message", messageId)
                    .param("debt", item.debt().id())
                    .param("currency", item.asked().getCurrencyUnit().getCode())
                    .param("asked", item.asked())
                    .param("tone", tone)
                    .update();
        }
    }

    /**
     * How stern the latest letter was that asked for each of these debts, but for those that never left; debts that none
     * asked for are not in it. Of a debt that was agreed anew what was written by that day counts no more.
     */
    public Map<Long, Tone> lastTones(Collection<Long> debtIds) {
        List<Asked> asked = debtIds.isEmpty()
                ? List.of()
                : jdbc.sql("""
                                SELECT a.debt_id, a.tone, m.made_on FROM UNNEST(CAST(:debts AS BIGINT ARRAY)) AS d (id)
                                  JOIN message_debt a ON a.debt_id = d.id
                                  JOIN message m ON m.id = a.message_id AND m.state <> 'set aside'
                                 ORDER BY a.message_id
                                """)
                        .param("debts", Ids.array(debtIds))
                        .query((rs, n) -> new Asked(
                                rs.getLong(1),
                                Tone.valueOf(rs.getString(2)),
                                rs.getDate(3).toLocalDate()))
                        .list();
        // Only those that were asked for can have been agreed anew since.
        Map<Long, LocalDate> anewOn =
                terms.agreedAnewOn(asked.stream().map(Asked::debtId).toList());
        Map<Long, Tone> tones = new HashMap<>();
        for (Asked a : asked) {
            LocalDate anew = anewOn.get(a.debtId());
            if (anew == null || a.on().isAfter(anew)) {
                tones.put(a.debtId(), a.tone());
            }
        }
        return tones;
    }
}
