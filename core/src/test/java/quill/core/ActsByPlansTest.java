package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static quill.core.ActsToComeTest.client;
import static quill.core.ActsToComeTest.debt;
import static quill.core.ActsToComeTest.eur;
import static quill.core.ActsToComeTest.stops;
import static quill.core.ActsToComeTest.with;
import static quill.core.ActsToComeTest.withoutFees;
import static quill.core.ActsToComeTest.words;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.acts.Act;
import quill.core.acts.ActsToCome;
import quill.core.acts.ActsToCome.Debt;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFeePolicy;
import quill.core.ledger.OpenDebt;
import quill.core.letter.Channel;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.core.reminder.ReminderStep;
import quill.core.reminder.ReminderStep.Tone;

/** What comes of several plans, ways and currencies. */
public class ActsByPlansTest {
    private static final LocalDate DUE = LocalDate.of(2027, 3, 1);
    private static final LocalDate ISSUED = LocalDate.of(2027, 1, 30);
    private final ReminderPlan plan = ReminderPlan.read(TypedPlan.usual(), LocalDate.of(2020, 1, 1), new ArrayList<>());
    private final ActsToCome.Rules rules = new ActsToCome.Rules(plan, false, null);

    @Test
    public void aDebtIsRemindedOfByItsOwnPlanAndANoneIsNot() {
        ReminderPlan slow = plan.with(
                List.of(new ReminderStep(7, Tone.FRIENDLY, Channel.TEXT, true), new ReminderStep(21, Tone.FIRM)),
                LocalDate.of(2020, 1, 1));
        ReminderPlan none = plan.with(List.of(), LocalDate.of(2020, 1, 1));
        ClientState state = withoutFees(client(
                by(debt(1, new DocumentId(1), DUE, "100.00", null), slow),
                by(debt(2, new DocumentId(2), DUE.plusDays(60), "30.00", null), none)));
        List<Act> acts = ActsToCome.of(state, rules, DUE.minusDays(10), DUE.plusDays(100));
        assertThat(words(acts)).containsExactly("2027-03-08 FRIENDLY 100.00", "2027-03-22 FIRM 100.00");
        assertThat(((Act.Reminder) acts.get(0)).step().way()).isEqualTo(Channel.TEXT);
        // A plan that was chosen later writes to nobody about the days before.
        ReminderPlan later = plan.with(slow.steps(), LocalDate.of(2027, 3, 9));
        assertThat(words(ActsToCome.of(
                        withoutFees(client(by(debt(1, new DocumentId(1), DUE, "100.00", null), later))),
                        rules,
                        DUE,
                        DUE.plusDays(30))))
                .containsExactly("2027-03-22 FIRM 100.00");
    }

    @Test
    public void oneLetterAsksInEachCurrencyAndCreditCountsInItsOwn() {
        Debt pounds = pounds(2, DUE, "80.00");
        ClientState state = new ClientState(
                new ClientId(7),
                Map.of(),
                null,
                null,
                Set.of(),
                null,
                List.of(eur("40.00"), Money.parse("GBP 10.00")),
                OpenDebt.ORDER,
                withoutFees(client(debt(1, new DocumentId(1), DUE, "100.00", 0)))
                        .debts());
        ClientState both = new ClientState(
                state.client(),
                Map.of(),
                null,
                null,
                Set.of(),
                null,
                state.credits(),
                OpenDebt.ORDER,
                List.of(state.debts().get(0), pounds));
        List<Act> acts = ActsToCome.of(both, rules, DUE.plusDays(3), DUE.plusDays(3));
        assertThat(acts).singleElement().satisfies(a -> {
            Act.Reminder letter = (Act.Reminder) a;
            assertThat(letter.sums()).containsExactly(eur("60.00"), Money.parse("GBP 70.00"));
            assertThat(letter.in(CurrencyUnit.GBP).amount()).isEqualTo(Money.parse("GBP 70.00"));
            assertThat(letter.amount()).isEqualTo(eur("60.00"));
        });
    }

    @Test
    public void ofTwoStepsAsSternTheOneByMailGoesAndAWayThatIsShutStops() {
        ReminderPlan text = plan.with(List.of(new ReminderStep(3, Tone.FIRM, Channel.TEXT, false)), LocalDate.MIN);
        ReminderPlan mail = plan.with(List.of(new ReminderStep(3, Tone.FIRM)), LocalDate.MIN);
        Debt one = by(debt(1, new DocumentId(1), DUE, "100.00", null), text);
        Debt two = by(debt(2, new DocumentId(2), DUE, "50.00", null), mail);
        ClientState unreached = reached(withoutFees(client(one)), Map.of(Channel.TEXT, Act.Stop.NO_NUMBER));
        assertThat(stops(unreached, rules)).containsExactly("NO_NUMBER");
        ClientState both = reached(withoutFees(client(one, two)), Map.of(Channel.TEXT, Act.Stop.NO_NUMBER));
        assertThat(stops(both, rules)).containsExactly("NOTHING");
    }

    private static ClientState reached(ClientState s, Map<Channel, Act.Stop> reach) {
        return new ClientState(s.client(), reach, null, null, Set.of(), null, s.credits(), OpenDebt.ORDER, s.debts());
    }

    private static Debt by(Debt d, ReminderPlan plan) {
        return with(d, d.policy(), d.lastTone(), plan);
    }

    private static Debt pounds(long id, LocalDate due, String open) {
        Money sum = Money.parse("GBP " + open);
        return new Debt(
                new OpenDebt(id, new DocumentId(id), "2027-000" + id, 1, false, due, sum),
                false,
                sum,
                Money.parse("GBP 0.00"),
                ISSUED,
                null,
                null,
                LateFeePolicy.none(Money.parse("GBP 0.00")),
                List.of(),
                0,
                null,
                null);
    }
}
