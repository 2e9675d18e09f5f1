package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ActsToCome;
import quill.core.acts.ActsToCome.Debt;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.ledger.OpenDebt;
import quill.core.letter.Channel;
import quill.core.money.Percent;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.core.reminder.ReminderStep.Tone;

/** What is to come for one client. The lists were worked by hand from the usual plan and 1% after 7 days of grace. */
public class ActsToComeTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    static final LocalDate DUE = LocalDate.of(2027, 3, 1);
    static final LocalDate ISSUED = LocalDate.of(2027, 1, 30);
    static final LateFeePolicy ONE_PERCENT = new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false)
            .read("", EUR, Percent.of("10"), new ArrayList<>());

    private ReminderPlan plan = ReminderPlan.read(TypedPlan.usual(), LocalDate.of(2020, 1, 1), new ArrayList<>());
    private ActsToCome.Rules rules = new ActsToCome.Rules(plan, false, null);

    @Test
    public void aDebtThatNobodyPaysIsRemindedOfAndFinedInOrder() {
        List<String> acts = words(ActsToCome.of(
                client(debt(1, new DocumentId(1), DUE, "1000.00", null)),
                rules,
                LocalDate.of(2027, 2, 20),
                LocalDate.of(2027, 4, 30)));
        assertThat(acts)
                .containsExactly(
                        "2027-02-26 FRIENDLY 1000.00",
                        "2027-03-01 FRIENDLY 1000.00",
                        "2027-03-04 FIRM 1000.00",
                        "2027-03-09 fee 10.00",
                        "2027-03-15 FINAL 1010.00");
    }

    @Test
    public void fourLateInstallmentsAreOneLetterInTheToneOfTheSternest() {
        ClientState state = client(
                debt(1, new DocumentId(1), LocalDate.of(2027, 2, 15), "100.00", 3),
                debt(2, new DocumentId(1), LocalDate.of(2027, 2, 26), "100.00", 0),
                debt(3, new DocumentId(2), LocalDate.of(2027, 3, 1), "100.00", -3),
                debt(4, new DocumentId(3), LocalDate.of(2027, 2, 10), "50.00", 14));
        LocalDate day = LocalDate.of(2027, 3, 1);
        List<Act> acts = reminders(ActsToCome.of(withoutFees(state), rules, day, day));
        assertThat(acts).hasSize(1);
        Act.Reminder letter = (Act.Reminder) acts.get(0);
        assertThat(letter.step().tone()).isEqualTo(Tone.FINAL);
        assertThat(letter.amount()).isEqualTo(eur("350.00"));
        assertThat(letter.items()).hasSize(4);
        assertThat(letter.documents()).isEqualTo(3);
        // The oldest comes first; its own steps are used up, it is only listed.
        assertThat(letter.items().get(0).debt().id()).isEqualTo(4);
        assertThat(letter.items().get(0).step()).isNull();
    }

    @Test
    public void oneLetterUsesUpAllStepsThatAreDue() {
        ClientState state = withoutFees(client(
                debt(1, new DocumentId(1), DUE, "100.00", 0),
                debt(2, new DocumentId(2), LocalDate.of(2027, 3, 4), "70.00", -3)));
        List<String> acts = words(ActsToCome.of(state, rules, LocalDate.of(2027, 3, 4), LocalDate.of(2027, 3, 10)));
        // 4 March: 3 days after the first and the due date of the second, in one letter; 7 March: 3 after the second.
        assertThat(acts).containsExactly("2027-03-04 FIRM 170.00", "2027-03-07 FIRM 170.00");
    }

    @Test
    public void aClientWasRemindedTodayAndHearsNoMoreToday() {
        List<Debt> debts = List.of(debt(1, new DocumentId(1), DUE, "10.00", -3));
        ClientState state =
                new ClientState(new ClientId(7), Map.of(), null, null, Set.of(), DUE, List.of(), OpenDebt.ORDER, debts);
        assertThat(words(ActsToCome.of(state, rules, DUE, DUE.plusDays(1))))
                .containsExactly("2027-03-02 FRIENDLY 10.00");
    }

    @Test
    public void creditIsCountedBeforeAReminderAndBeforeAFee() {
        ClientState covered = withCredit(client(debt(1, new DocumentId(1), DUE, "100.00", null)), "100.00");
        assertThat(ActsToCome.of(covered, rules, DUE, DUE.plusDays(60))).isEmpty();
        ClientState partly = withCredit(client(debt(1, new DocumentId(1), DUE, "100.00", 3)), "40.00");
        assertThat(words(ActsToCome.of(partly, rules, LocalDate.of(2027, 3, 9), LocalDate.of(2027, 3, 15))))
                .containsExactly("2027-03-09 fee 0.60", "2027-03-15 FINAL 60.60");
    }

    @Test
    public void moneyInTransitIsNeitherRemindedOfNorFined() {
        OpenDebt open = new OpenDebt(1, new DocumentId(1), "2027-0001", 1, false, DUE, eur("100.00"));
        Debt coming = new Debt(
                open, false, eur("100.00"), eur("100.00"), ISSUED, null, null, ONE_PERCENT, List.of(), 0, null, null);
        assertThat(ActsToCome.of(client(coming), rules, DUE.minusDays(5), DUE.plusDays(60)))
                .isEmpty();
    }

    @Test
    public void aMutedClientHearsNothingUntilTheDayHasPassedAndThenTheLatest() {
        ClientState muted = new ClientState(
                new ClientId(7),
                Map.of(),
                LocalDate.of(2027, 3, 5),
                null,
                Set.of(),
                null,
                List.of(eur("0.00")),
                OpenDebt.ORDER,
                List.of(debt(1, new DocumentId(1), DUE, "100.00", null)));
        List<Act> acts = ActsToCome.of(muted, rules, LocalDate.of(2027, 2, 26), LocalDate.of(2027, 3, 8));
        assertThat(acts)
                .extracting(a -> a.on() + " " + a.stop())
                .containsExactly("2027-02-26 MUTED", "2027-03-01 MUTED", "2027-03-04 MUTED", "2027-03-06 NOTHING");
        assertThat(((Act.Reminder) acts.get(3)).step().tone()).isEqualTo(Tone.FIRM);
    }

    @Test
    public void aMutedInvoiceIsLeftOutOfTheLetter() {
        Debt muted = new Debt(
                new OpenDebt(1, new DocumentId(1), "2027-0001", 1, false, DUE, eur("100.00")),
                false,
                eur("100.00"),
                eur("0.00"),
                ISSUED,
                LocalDate.of(2027, 3, 31),
                null,
                LateFeePolicy.none(eur("0.00")),
                List.of(),
                0,
                null,
                null);
        ClientState state = client(muted, debt(2, new DocumentId(2), DUE, "30.00", -3));
        assertThat(words(ActsToCome.of(state, rules, DUE, DUE))).containsExactly("2027-03-01 FRIENDLY 30.00");
    }

    @Test
    public void whatIsKeptBackSaysByWhat() {
        ClientState plain = client(debt(1, new DocumentId(1), DUE, "100.00", 0));
        assertThat(stops(holding(plain, keys("reminder:7:2027-03-04"), false), rules))
                .containsExactly("KEPT_BACK", "NOTHING", "NOTHING");
        assertThat(stops(holding(plain, keys("fee:1:2027-03-01:1"), false), rules))
                .containsExactly("NOTHING", "KEPT_BACK", "NOTHING");
        assertThat(stops(holding(plain, Set.of(), true), rules)).containsOnly("CLIENT_KEPT_BACK");
        assertThat(stops(plain, new ActsToCome.Rules(plan, false, LocalDate.MAX)))
                .containsOnly("ALL_KEPT_BACK");
        assertThat(stops(plain, new ActsToCome.Rules(plan, true, null)))
                .containsExactly("NOTHING", "REVIEW", "NOTHING");
        ClientState noAddress = new ClientState(
                new ClientId(7),
                Map.of(Channel.MAIL, Act.Stop.NO_ADDRESS),
                null,
                null,
                Set.of(),
                null,
                List.of(eur("0.00")),
                OpenDebt.ORDER,
                plain.debts());
        assertThat(stops(noAddress, rules)).containsExactly("NO_ADDRESS", "NOTHING", "NO_ADDRESS");
    }

    @Test
    public void aFeeThatIsKeptBackIsNotInTheNextLetter() {
        ClientState held =
                holding(client(debt(1, new DocumentId(1), DUE, "100.00", 3)), keys("fee:1:2027-03-01:1"), false);
        assertThat(words(ActsToCome.of(held, rules, LocalDate.of(2027, 3, 9), LocalDate.of(2027, 3, 15))))
                .containsExactly("2027-03-09 fee 1.00", "2027-03-15 FINAL 100.00");
    }

    @Test
    public void anInstallmentThatIsPaidIsStillAskedAboutWhileItsFeeIsOpen() {
        Debt paid = new Debt(
                new OpenDebt(1, new DocumentId(1), "2027-0001", 1, false, DUE, eur("0.00")),
                false,
                eur("100.00"),
                eur("0.00"),
                ISSUED,
                null,
                3,
                ONE_PERCENT,
                List.of(new LateFee.Charged(DUE, 1, eur("1.00"), false)),
                0,
                null,
                null);
        Debt fee = feeOnTheFirst(LocalDate.of(2027, 3, 9));
        List<Act> acts = ActsToCome.of(client(paid, fee), rules, LocalDate.of(2027, 3, 10), LocalDate.of(2027, 4, 1));
        assertThat(words(acts)).containsExactly("2027-03-15 FINAL 1.00");
        assertThat(((Act.Reminder) acts.get(0))
                        .items().stream().filter(i -> i.debt().fee()))
                .hasSize(1);
    }

    @Test
    public void nothingComesUpBeforeTheNextDay() {
        ClientState state = client(
                debt(1, new DocumentId(1), DUE, "100.00", 0),
                debt(2, new DocumentId(2), DUE.plusDays(40), "60.00", null));
        LocalDate from = LocalDate.of(2027, 3, 2);
        LocalDate next = ActsToCome.nextDay(state, rules).orElseThrow();
        assertThat(next).isEqualTo("2027-03-04");
        assertThat(ActsToCome.of(state, rules, from, next.minusDays(1))).isEmpty();
        assertThat(ActsToCome.of(state, rules, next, next)).isNotEmpty();
        assertThat(ActsToCome.nextDay(client(), rules)).isEmpty();
    }

    @Test
    public void aLetterSentBeforeItsDayAsksForNoFeeThatIsNotChargedYet() {
        ClientState state = client(debt(1, new DocumentId(1), DUE, "1000.00", 3));
        List<Act> acts = ActsToCome.of(state, rules, LocalDate.of(2027, 3, 5), LocalDate.of(2027, 3, 20));
        Act.Reminder announced = (Act.Reminder) acts.get(1);
        assertThat(announced.amount()).isEqualTo(eur("1010.00"));
        assertThat(announced.withoutForecast().amount()).isEqualTo(eur("1000.00"));
    }

    @Test
    public void whatWasAskedForMoreSternlyIsNotInAMilderLetterAndWaitsForAStepAsStern() {
        // The first had its firm letter on 4 March; the second falls due on 10 March.
        Debt firm = asked(debt(1, new DocumentId(1), DUE, "100.00", 3), Tone.FIRM);
        ClientState state = withoutFees(client(firm, debt(2, new DocumentId(2), DUE.plusDays(9), "30.00", -3)));
        List<Act> acts = ActsToCome.of(state, rules, LocalDate.of(2027, 3, 5), LocalDate.of(2027, 3, 24));
        assertThat(words(acts))
                .containsExactly(
                        "2027-03-10 FRIENDLY 30.00",
                        "2027-03-13 FIRM 130.00",
                        "2027-03-15 FINAL 130.00",
                        "2027-03-24 FINAL 130.00");
    }

    @Test
    public void aStepMilderThanTheLastLetterAboutItIsPassedOver() {
        // It stood in the final letter about another debt: its own firm step asks for nothing, its final one does.
        Debt once = asked(debt(1, new DocumentId(1), DUE, "100.00", 0), Tone.FINAL);
        List<Act> acts = ActsToCome.of(withoutFees(client(once)), rules, DUE.plusDays(1), DUE.plusDays(20));
        assertThat(words(acts)).containsExactly("2027-03-15 FINAL 100.00");
    }

    @Test
    public void aFeeWaitsWithItsInstallment() {
        Debt finalOnes = asked(debt(1, new DocumentId(1), DUE, "100.00", 14), Tone.FINAL);
        Debt fee = feeOnTheFirst(LocalDate.of(2027, 3, 16));
        ClientState state = client(finalOnes, fee, debt(2, new DocumentId(2), DUE.plusDays(19), "30.00", -3));
        List<Act> acts = ActsToCome.of(state, rules, LocalDate.of(2027, 3, 20), LocalDate.of(2027, 3, 20));
        assertThat(words(reminders(acts))).containsExactly("2027-03-20 FRIENDLY 30.00");
    }

    @Test
    public void theLastLetterOfADebtThatIsNotLateYetKeepsNothingBack() {
        Debt ahead = asked(debt(1, new DocumentId(1), DUE, "100.00", -3), Tone.FINAL);
        assertThat(words(ActsToCome.of(withoutFees(client(ahead)), rules, DUE, DUE)))
                .containsExactly("2027-03-01 FRIENDLY 100.00");
    }

    private static Debt feeOnTheFirst(LocalDate chargedOn) {
        return new Debt(
                new OpenDebt(9, new DocumentId(1), "2027-0001", 1001, true, chargedOn, eur("1.00")),
                false,
                eur("1.00"),
                eur("0.00"),
                ISSUED,
                null,
                null,
                LateFeePolicy.none(eur("0.00")),
                List.of(),
                1,
                null,
                null);
    }

    private static Debt asked(Debt d, Tone last) {
        return with(d, d.policy(), last, null);
    }

    static Debt with(Debt d, LateFeePolicy policy, Tone last, ReminderPlan plan) {
        return new Debt(
                d.open(),
                d.deposit(),
                d.first(),
                d.inTransit(),
                d.issuedOn(),
                d.mutedUntil(),
                d.usedThrough(),
                policy,
                d.fees(),
                d.feeOf(),
                last,
                plan);
    }

    static List<String> stops(ClientState state, ActsToCome.Rules by) {
        return ActsToCome.of(state, by, LocalDate.of(2027, 3, 4), LocalDate.of(2027, 3, 20)).stream()
                .map(a -> a.stop().name())
                .toList();
    }

    static List<String> words(List<Act> acts) {
        return acts.stream()
                .map(a -> a.on() + (a instanceof Act.Reminder r ? " " + r.step().tone() : " fee") + " "
                        + a.amount().getAmount())
                .toList();
    }

    private static List<Act> reminders(List<Act> acts) {
        return acts.stream().filter(a -> a instanceof Act.Reminder).toList();
    }

    static Debt debt(long id, DocumentId document, LocalDate due, String open, Integer used) {
        return new Debt(
                new OpenDebt(id, document, "2027-000" + document, 1, false, due, eur(open)),
                false,
                eur(open),
                eur("0.00"),
                ISSUED,
                null,
                used,
                ONE_PERCENT,
                List.of(),
                0,
                null,
                null);
    }

    static ClientState withoutFees(ClientState state) {
        return holding(
                new ClientState(
                        state.client(),
                        Map.of(),
                        null,
                        null,
                        Set.of(),
                        null,
                        state.credits(),
                        state.order(),
                        state.debts().stream()
                                .map(d -> with(d, LateFeePolicy.none(eur("0.00")), d.lastTone(), d.plan()))
                                .toList()),
                Set.of(),
                false);
    }

    static ClientState client(Debt... debts) {
        return new ClientState(
                new ClientId(7),
                Map.of(),
                null,
                null,
                Set.of(),
                null,
                List.of(eur("0.00")),
                OpenDebt.ORDER,
                List.of(debts));
    }

    private static Set<ActKey> keys(String key) {
        return Set.of(ActKey.read(key).orElseThrow());
    }

    private static ClientState holding(ClientState s, Set<ActKey> keys, boolean all) {
        return new ClientState(
                new ClientId(7),
                Map.of(),
                null,
                all ? LocalDate.MAX : null,
                keys,
                null,
                s.credits(),
                OpenDebt.ORDER,
                s.debts());
    }

    private static ClientState withCredit(ClientState s, String credit) {
        return new ClientState(
                new ClientId(7), Map.of(), null, null, Set.of(), null, List.of(eur(credit)), OpenDebt.ORDER, s.debts());
    }

    static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
