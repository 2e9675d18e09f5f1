package quill.server.timeline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.dailyrun.DailyRun;
import quill.server.payments.Undoing;
import quill.server.timeline.Coming.ToCome;
import quill.server.timeline.Timeline.TimelineEntry;

/** An invoice's one line of time. */
public class TimelineTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private Server server;
    private Timeline timeline;
    private ClientId client;
    private DocumentId invoice;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        timeline = server.bean(Timeline.class);
        client = server.client("Kestrel Theatre", true);
        invoice = server.issue(client, "Soundboard", "900.00", "40%@0 rest@30", null);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void beginsWithWhatIsToCome() {
        var view = timeline.of(invoice);
        assertThat(view.neverSent()).isTrue();
        assertThat(view.toCome()).extracting(ToCome::on).isSorted();
        assertThat(view.toCome())
                .filteredOn(c -> c.act() == null)
                .extracting(ToCome::what)
                .containsExactly("Installment 1 falls due", "Installment 2 falls due");
        assertThat(view.toCome())
                .filteredOn(c -> c.act() != null)
                .isNotEmpty()
                .allMatch(c -> c.what().contains("eminder"));
    }

    @Test(dependsOnMethods = "beginsWithWhatIsToCome")
    public void aPaymentIsToldOnceWithItsActAndStaysInSightWhereItIsUndone() {
        long payment = server.pay(client, invoice, "100.00", DAY);
        assertThat(timeline.of(invoice).past())
                .filteredOn(e -> e.payment() != null)
                .singleElement()
                .matches(e -> e.what().contains("100.00 received by bank transfer"));
        server.bean(Undoing.class).undo(payment, "typed twice");
        assertThat(timeline.of(invoice).past())
                .filteredOn(e -> e.payment() != null)
                .extracting(TimelineEntry::what)
                .hasSize(2)
                .first()
                .asString()
                .endsWith("undone: typed twice");
    }

    @Test(dependsOnMethods = "aPaymentIsToldOnceWithItsActAndStaysInSightWhereItIsUndone")
    public void aReminderThatWasWrittenIsOneEntryWithItsLetter() {
        server.moveTo(DAY.plusDays(20), LocalTime.of(9, 30));
        server.bean(DailyRun.class).catchUp();
        var past = timeline.of(invoice).past();
        assertThat(past).filteredOn(e -> e.letter() != null).isNotEmpty();
        assertThat(past)
                .filteredOn(e -> e.letter() != null)
                .extracting(e -> e.letter().id())
                .doesNotHaveDuplicates();
        assertThat(past).extracting(TimelineEntry::on).isSortedAccordingTo(java.util.Comparator.reverseOrder());
    }
}
