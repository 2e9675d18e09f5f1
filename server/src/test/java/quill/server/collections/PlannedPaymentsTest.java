package quill.server.collections;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.server.clearing.OnTheWay;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.dailyrun.DailyRun;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.savedmethods.SavedMethod;

/** What clients plan for a day: neither reminded of nor fined, taken once, told where it cannot be. */
public class PlannedPaymentsTest extends SavedSuite {
    private long plan(Document invoice, SavedMethod kept, int days) {
        return planned.plan(
                invoice, parts(invoice), HUNDRED, kept, TODAY.plusDays(days).toString());
    }

    /** Planned for the 11th, due on the 4th: neither reminder nor fee comes, and it is taken once. */
    @Test
    public void whatIsPlannedIsNotRemindedOfAndTakenOnItsDay() {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        plan(invoice, kept, 10);
        int before = server.bean(Correspondence.class).ofClient(client, "").size();
        for (int day = 1; day <= 9; day++) {
            day(day);
            server.bean(DailyRun.class).catchUp();
        }
        assertThat(open(invoice)).isEqualTo("100.00");
        assertThat(server.bean(Correspondence.class).ofClient(client, "")).hasSize(before);
        assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client)))
                .isEqualTo(Map.of(parts(invoice).get(0), HUNDRED));
        day(10);
        round();
        round();
        assertThat(open(invoice)).isEqualTo("0.00");
        assertThat(processor.chargesOf(kept.token())).isEqualTo(1);
        assertThat(planned.all(PlannedPayment.State.TAKEN)).hasSize(1);
        assertThat(planned.all(PlannedPayment.State.PLANNED)).isEmpty();
        assertThat(server.bean(SavedWaits.class).all()).isEmpty();
    }

    @DataProvider
    public Object[][] noDays() {
        return new Object[][] {{"2027-03-01"}, {"2027-03-19"}, {"2026-12-31"}, {"x"}, {""}, {"2027-02-30"}};
    }

    @Test(dataProvider = "noDays")
    public void aDayThatCannotBeChosenIsRefused(String day) {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        assertThatThrownBy(() -> planned.plan(invoice, parts(invoice), HUNDRED, kept, day))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("on"));
        assertThat(planned.all(PlannedPayment.State.PLANNED)).isEmpty();
    }

    @Test
    public void aPlannedPaymentIsTakenBackUntilTheDayBefore() {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        long first = plan(invoice, kept, 3);
        assertThatThrownBy(() -> plan(invoice, kept, 5))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("4 March 2027 already");
        planned.takeBack(invoice.id(), first);
        long second = plan(invoice, kept, 5);
        assertThatThrownBy(() -> planned.takeBack(issue().id(), second)).isInstanceOf(NotFoundException.class);
        day(5);
        assertThatThrownBy(() -> planned.takeBack(invoice.id(), second))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("day before");
    }

    @Test
    public void itEndsWithWhatItIsForAndWithWhatItIsTakenFrom() {
        SavedMethod kept = keep(false, "");
        Document paid = issue();
        Document removed = issue();
        plan(paid, kept, 3);
        plan(removed, kept, 3);
        server.pay(client, paid.id(), "40.00", TODAY);
        assertThat(planned.ofDocument(paid.id())).isEmpty();
        methods.remove(client, kept.id());
        assertThat(planned.ofDocument(removed.id())).isEmpty();
        day(3);
        round();
        assertThat(processor.chargesOf(kept.token())).isZero();
        assertThat(open(paid)).isEqualTo("60.00");
    }

    /** The card expires before its day, or is refused on it: the debt stands, both sides are told, reminders begin again. */
    @Test
    public void whatCannotBeTakenOnItsDayIsTold() {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        plan(invoice, kept, 3);
        processor.refuse(kept.token(), "refused by the bank");
        day(3);
        round();
        round();
        assertThat(processor.chargesOf(kept.token())).isEqualTo(1);
        assertThat(open(invoice)).isEqualTo("100.00");
        assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client))).isEmpty();
        assertThat(server.bean(SavedWaits.class).all()).singleElement().satisfies(w -> {
            assertThat(w.title()).isEqualTo("Planned, and not taken: €100.00, Keeps Cards");
            assertThat(w.text()).contains("4 March 2027: refused by the bank");
            planned.seen(w.id());
        });
        assertThat(server.bean(SavedWaits.class).all()).isEmpty();
        assertThat(server.bean(Correspondence.class).ofClient(client, ""))
                .filteredOn(m -> m.subject().contains("did not come through"))
                .hasSize(1);
    }

    /** Valid to the end of March: nothing is planned for April, and a person hears of it from the 1st on. */
    @Test
    public void aCardThatEndsIsWarnedOfAndNotUsedAfterwards() {
        processor.cardsExpire("03/27");
        SavedMethod kept = keep(false, "");
        assertThat(server.bean(SavedWaits.class).all())
                .singleElement()
                .satisfies(w -> assertThat(w.title()).isEqualTo("A saved card ends soon: Keeps Cards"));
        Document invoice = invoice(server.issue(client, "100.00", "100%@25", null));
        assertThatThrownBy(() -> plan(invoice, kept, 31)).hasMessageContaining("31 March 2027, when this card expires");
        day(31);
        assertThatThrownBy(() -> payFrom(invoice, kept)).hasMessageContaining("has expired");
        assertThat(server.bean(SavedWaits.class).all())
                .singleElement()
                .satisfies(w -> assertThat(w.title()).contains("has ended"));
    }
}
