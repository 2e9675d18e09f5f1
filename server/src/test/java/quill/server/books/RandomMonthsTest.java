package quill.server.books;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.joda.money.Money;
import org.testng.Reporter;
import org.testng.annotations.Test;
import quill.core.id.DocumentId;
import quill.server.BookingProcessor;
import quill.server.Server;
import quill.server.clearing.AccountReading;
import quill.server.clearing.ClearingWaits;
import quill.server.debts.OpenSums;
import quill.server.debts.StoredInstallment;

/**
 * Random months of one client each: whatever is issued, voided, revised, credited, paid, given back, contested, written off, moved,
 * rearranged or fined, after every step the books, the debts and a second reckoning agree, and the journal read again gives the
 * same open amounts.
 */
public class RandomMonthsTest {
    private static final int MONTHS = Integer.getInteger("quill.months", 40);
    private static final int STEPS = 20;
    /** All of the books is read after every step: in one book, two thousand months would take days. */
    private static final int IN_ONE_BOOK = 50;

    private BookingProcessor processor;
    private Server server;
    private MonthsSteps steps;

    private void start(int first) throws IOException {
        processor = new BookingProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(LocalDate.of(2027, 3, 1));
        steps = new MonthsSteps(server, processor, new Random(Long.getLong("quill.seed", 2027) + first));
    }

    private void stop() {
        server.close();
        processor.close();
    }

    @Test
    public void theBooksTheDebtsAndASecondReckoningAgree() throws IOException {
        Map<String, Integer> done = new TreeMap<>();
        for (int first = 0; first < MONTHS; first += IN_ONE_BOOK) {
            start(first);
            try {
                run(first, Math.min(MONTHS, first + IN_ONE_BOOK));
                steps.done.forEach((what, times) -> done.merge(what, times, Integer::sum));
                Reporter.log(Math.min(MONTHS, first + IN_ONE_BOOK) + " random months: " + done, true);
            } finally {
                stop();
            }
        }
        assertAllDone(done);
    }

    private void run(int first, int end) {
        for (int month = first; month < end; month++) {
            server.moveTo(LocalDate.of(2027, 3, 1).plusDays(month % 300), LocalTime.of(8, 0));
            steps.begin(server.client("Month " + month, month % 4 > 0));
            for (int step = 0; step < STEPS; step++) {
                String what = steps.step();
                server.bean(AccountReading.class).askAboutAll(() -> false);
                check("month " + month + ", step " + step + ": " + what);
            }
        }
    }

    private static void assertAllDone(Map<String, Integer> done) {
        assertThat(done)
                .containsKeys(
                        "issued",
                        "paid",
                        "by card",
                        "refunded",
                        "contested",
                        "won",
                        "written off",
                        "owed again",
                        "credited",
                        "moved",
                        "rearranged",
                        "fined",
                        "waived",
                        "voided",
                        "revised",
                        "undone",
                        "cheque back",
                        "paid out",
                        "refund failed");
    }

    private void check(String at) {
        assertThat(server.bean(ClearingWaits.class).unbooked()).as(at).isEmpty();
        assertThat(server.bean(BooksService.class)
                        .balanceOf(steps.client, MonthsSteps.EUR)
                        .getAmountMinorLong())
                .as(at)
                .isEqualTo(steps.model.balances.getOrDefault(steps.client, 0L));
        long open = 0;
        for (DocumentId id : steps.invoices) {
            long ofDocument = 0;
            for (StoredInstallment d : steps.debts(id)) {
                assertThat(List.of(d.open(), d.settled(), d.credited(), d.writtenOff()))
                        .as(at)
                        .noneMatch(Money::isNegative);
                ofDocument += d.open().getAmountMinorLong();
            }
            assertThat(steps.stored(id).openMinor()).as(at).isEqualTo(ofDocument);
            // The journal read again.
            assertThat(replayed(id)).as(at).isEqualTo(ofDocument);
            open += ofDocument;
        }
        assertThat(open - steps.creditHeld()).as(at).isEqualTo(steps.model.balances.getOrDefault(steps.client, 0L));
        if (!steps.opened) {
            assertThat(open).as(at).isEqualTo(steps.model.open(steps.client));
        }
        assertThat(server.bean(OpenSums.class).disagreeing()).as(at).isEmpty();
        Map<String, Long> books = new TreeMap<>();
        server.jdbc()
                .sql("""
                    SELECT account, SUM(amount_minor) FROM posting
                     WHERE account NOT IN ('RECEIVABLE', 'CLIENT_CREDIT') GROUP BY account
                    """)
                .query((rs, n) -> books.put(rs.getString(1), rs.getLong(2)))
                .list();
        steps.model.accounts.forEach((account, sum) -> assertThat(books.getOrDefault(account, 0L))
                .as(at + ", " + account)
                .isEqualTo(sum));
        assertThat(steps.model.accounts.keySet()).as(at).containsAll(books.keySet());
    }

    private long replayed(DocumentId id) {
        return server.jdbc()
                .sql(
                        "SELECT COALESCE(SUM(amount_minor), 0) FROM posting WHERE account = 'RECEIVABLE' AND invoice_id = :id")
                .param("id", id)
                .query(Long.class)
                .single();
    }
}
