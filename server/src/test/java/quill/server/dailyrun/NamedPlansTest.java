package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.reminder.ReminderPlan.StepState;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.server.Server;
import quill.server.business.Rates;
import quill.server.chasing.ActView;
import quill.server.chasing.Chasing;
import quill.server.chasing.LeftToAPerson;
import quill.server.chasing.Muting;
import quill.server.chasing.NamedPlans;
import quill.server.chasing.PlanChoice;
import quill.server.chasing.PlanPictures;
import quill.server.common.ConflictException;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Message;

/** Plans under names: which holds where, what it writes, and how it is drawn. */
public class NamedPlansTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final PlanChoice NONE = new PlanChoice(PlanChoice.Use.NONE, null);
    private Server server;
    private NamedPlans named;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.bean(DailyRun.class).catchUp();
        named = server.bean(NamedPlans.class);
        client = server.client("Plan Reader", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static TypedStep step(String days, String tone) {
        return new TypedStep(days, false, tone);
    }

    private PlanChoice slow() {
        return new PlanChoice(
                PlanChoice.Use.NAMED,
                named.make("Slow", List.of(step("10", "FRIENDLY"), step("20", "FIRM")))
                        .id());
    }

    private List<String> days(LocalDate until) {
        return server.bean(ActViews.class).until(until).stream()
                .map(a -> a.on() + " " + a.tone())
                .toList();
    }

    @Test
    public void aDocumentsChoiceGoesBeforeItsClientsAndThatBeforeTheBusinesss() {
        DocumentId first = server.issue(client, "100.00", "100%@0", null);
        assertThat(days(BEGIN.plusDays(30))).containsExactly("2027-03-04 firm", "2027-03-15 final");
        PlanChoice slow = slow();
        named.chooseForClient(client, slow);
        assertThat(days(BEGIN.plusDays(30))).containsExactly("2027-03-11 friendly", "2027-03-21 firm");
        named.chooseForDocument(first, NONE);
        assertThat(days(BEGIN.plusDays(30))).isEmpty();
        named.chooseForDocument(first, new PlanChoice(PlanChoice.Use.USUAL, null));
        assertThat(days(BEGIN.plusDays(30))).containsExactly("2027-03-11 friendly", "2027-03-21 firm");
        assertThat(named.all())
                .singleElement()
                .satisfies(p -> assertThat(p.uses()).isEqualTo(1));
        assertThatThrownBy(() -> named.delete(slow.plan(), 1))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("is used by 1 client or document");
        named.chooseForClient(client, new PlanChoice(PlanChoice.Use.USUAL, null));
        named.delete(slow.plan(), 1);
        assertThat(named.all()).isEmpty();
    }

    @Test
    public void whatIsWrongIsSaidBesideItsField() {
        assertThatThrownBy(() -> named.make(" ", List.of(step("3", "FINAL"), step("9", "FRIENDLY"))))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(p -> p.field())
                                .containsExactly("name", "steps[1].tone"));
        assertThatThrownBy(() -> named.make("X", List.of(new TypedStep("3", false, "FIRM", "PIGEON", false))))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems()).extracting(p -> p.field()).containsExactly("steps[0].way"));
        slow();
        assertThatThrownBy(this::slow).hasMessageContaining("another plan is called so");
        assertThatThrownBy(() -> named.chooseForClient(client, new PlanChoice(PlanChoice.Use.NAMED, 999L)))
                .hasMessageContaining("must be one of the plans");
        assertThatThrownBy(() -> named.chooseForClient(client, new PlanChoice(null, null)))
                .isInstanceOf(RefusedException.class);
    }

    @Test
    public void thePictureShowsEachStepOnItsDayAndWhatBecameOfIt() {
        DocumentId id = server.issue(client, "100.00", "100%@5", null);
        server.moveTo(BEGIN.plusDays(5), LocalTime.of(10, 0));
        server.bean(DailyRun.class).catchUp();
        PlanPictures.PlanPicture picture = server.bean(PlanPictures.class).of(id);
        assertThat(picture.called()).isEqualTo("the business’s plan");
        assertThat(picture.installments())
                .singleElement()
                .satisfies(i -> assertThat(i.steps())
                        .extracting(s -> s.on() + " " + s.state())
                        .containsExactly(
                                "2027-03-03 " + StepState.USED,
                                "2027-03-06 " + StepState.USED,
                                "2027-03-09 " + StepState.COMING,
                                "2027-03-20 " + StepState.COMING));
        PlanPictures.PlanPicture draft =
                server.bean(PlanPictures.class).of(server.draft(client, "Work", "50.00", "100%@1", null));
        assertThat(draft.installments())
                .singleElement()
                .satisfies(i -> assertThat(i.steps())
                        .extracting(s -> s.on() + " " + s.state())
                        .startsWith("2027-03-04 " + StepState.LAPSED, "2027-03-07 " + StepState.COMING));
    }

    @Test
    public void whatASlowPlanLeavesStaysUnderNeedsYou() {
        server.issue(client, "100.00", "100%@0", null);
        named.chooseForClient(client, slow());
        for (int i = 1; i <= 22; i++) {
            server.moveTo(BEGIN.plusDays(i), LocalTime.of(10, 0));
            server.bean(DailyRun.class).catchUp();
        }
        assertThat(server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(22), 10))
                .extracting(LeftToAPerson.Unanswered::clientId)
                .containsExactly(client);
    }

    @Test
    public void aClientWhoOwesInTwoCurrenciesGetsOneLetterWithTwoSumsAndTwoWaysToPay() {
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-01-01", "1.1745"));
        DocumentId euro = server.issue(client, "100.00", "100%@0", null);
        DocumentId pounds = server.issueIn("GBP", client, "80.00", "100%@0");
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(10, 0));
        List<ActView> acts = server.bean(ActViews.class).until(BEGIN.plusDays(3));
        assertThat(acts)
                .singleElement()
                .satisfies(a -> assertThat(a.about().what())
                        .contains("2 invoices in one letter")
                        .endsWith("and £80.00"));
        server.bean(DailyRun.class).catchUp();
        Message letter = server.bean(Correspondence.class).ofInvoice(pounds).get(0);
        assertThat(server.bean(Correspondence.class).ofInvoice(euro))
                .extracting(Message::id)
                .containsExactly(letter.id());
        String text = server.jdbc()
                .sql("SELECT text FROM message_text WHERE message_id = " + letter.id())
                .query(String.class)
                .single();
        assertThat(letter.subject()).contains("€100.00 and £80.00");
        assertThat(text)
                .contains(
                        "€100.00 on invoice 2027-0001 has been open since 1 March 2027. £80.00 on invoice 2027-0002 has been open")
                .contains(
                        "In all: €100.00 and £80.00", "See the invoice €100.00: http", "See the invoice £80.00: http");
        // Once the euros are paid it asks for the pounds only.
        server.pay(client, euro, "100.00", BEGIN.plusDays(3));
        assertThat(server.bean(ActViews.class).until(BEGIN.plusDays(14)))
                .singleElement()
                .satisfies(a -> assertThat(a.amount().currency()).isEqualTo("GBP"));
    }

    @Test
    public void keepingAClientBackHasAnEnd() {
        server.issue(client, "100.00", "100%@0", null);
        Muting muting = server.bean(Muting.class);
        assertThatThrownBy(() -> muting.keepClientBack(client, true, "yesterday"))
                .isInstanceOf(RefusedException.class);
        muting.keepClientBack(client, true, "2027-03-06");
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(10, 0));
        server.bean(DailyRun.class).catchUp();
        assertThat(server.bean(Correspondence.class).ofClient(client, "")).isEmpty();
        assertThat(server.bean(Chasing.class).of(client).orElseThrow().keptBackUntil())
                .isEqualTo("2027-03-06");
        server.moveTo(BEGIN.plusDays(6), LocalTime.of(10, 0));
        server.bean(DailyRun.class).catchUp();
        assertThat(server.bean(Correspondence.class).ofClient(client, "")).hasSize(1);
    }
}
