package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.server.chasing.ActView;
import quill.server.chasing.Muting;
import quill.server.chasing.ReminderPlans;
import quill.server.common.Amount;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;

/** The daily run on a fresh database: once, in order, by what is true at the moment, and never past a person. */
public class DailyRunTest extends OnAFreshBusiness {
    @Test
    public void theRunStartedTwiceAtOnceDoesItsActsOnce() throws Exception {
        for (int i = 0; i < 30; i++) {
            ClientId client = server.client("Twice " + i, true);
            server.issue(client, "100.00", "100%@1", null);
        }
        server.moveTo(BEGIN.plusDays(9), HOUR); // due on the 2nd: fee on the 10th, and the firm letter is due
        ExecutorService four = Executors.newFixedThreadPool(4);
        List<Future<DailyRun.Summary>> all = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            all.add(four.submit(run::catchUp));
        }
        int fees = 0;
        int reminders = 0;
        for (Future<DailyRun.Summary> each : all) {
            fees += each.get().of(ActKind.FEE);
            reminders += each.get().of(ActKind.REMINDER);
        }
        four.shutdown();
        assertThat(fees).isEqualTo(30);
        assertThat(reminders).isEqualTo(30);
        assertThat(count("late_fee")).isEqualTo(30);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(30);
    }

    /** Acts are done a few at once; one that cannot be done takes no other with it, and comes up again. */
    @Test
    public void anActThatFailsTakesNoOtherWithIt() {
        for (String name : List.of("First Debtor", "Second Debtor", "Third Debtor")) {
            server.issue(server.client(name, true), "100.00", "100%@3", null);
        }
        server.jdbc()
                .sql("ALTER TABLE message ADD CONSTRAINT never CHECK (to_address NOT LIKE 'second%')")
                .update();
        server.moveTo(BEGIN.plusDays(3), HOUR);
        assertThat(run.catchUp().of(ActKind.REMINDER)).isEqualTo(2);
        assertThat(run.log(Long.MAX_VALUE, 10))
                .extracting(LoggedAct::outcome)
                .containsExactlyInAnyOrder("done", "failed", "done");
        assertThat(run.failed())
                .singleElement()
                .satisfies(a -> assertThat(a.reason()).contains("Something went wrong"));
        server.jdbc().sql("ALTER TABLE message DROP CONSTRAINT never").update();
        server.moveTo(BEGIN.plusDays(4), HOUR);
        assertThat(run.catchUp().of(ActKind.REMINDER)).isEqualTo(1);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(3);
    }

    @Test
    public void aPaymentBetweenTheListAndTheRunLeavesTheActUndone() {
        ClientId client = server.client("Meanwhile", true);
        server.issue(client, "100.00", "100%@3", null);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(0, 5));
        run.catchUp();
        assertThat(acts(BEGIN.plusDays(3))).hasSize(1);
        server.pay(client, null, "100.00", BEGIN.plusDays(3));
        server.moveTo(BEGIN.plusDays(3), HOUR);
        assertThat(run.catchUp().of(ActKind.REMINDER)).isZero();
        LoggedAct logged = run.log(Long.MAX_VALUE, 10).get(0);
        assertThat(logged.outcome()).isEqualTo("not needed");
        assertThat(logged.reason()).contains("paid meanwhile");
        assertThat(count("message WHERE kind = 'reminder'")).isZero();
    }

    @Test
    public void afterARunNobodyHasToBeLookedAtBeforeSomethingComesUp() {
        for (int i = 0; i < 5; i++) {
            server.issue(server.client("Looked at " + i, true), "100.00", "100%@3", null);
        }
        forward(3);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(5);
        // The next letter goes three days after the due date: until then nobody has to be looked at.
        assertThat(count("client_chasing WHERE look_on = DATE '2027-03-07'")).isEqualTo(5);
        assertThat(acts(BEGIN.plusDays(5))).isEmpty();
        assertThat(acts(BEGIN.plusDays(6))).hasSize(5);
    }

    @Test
    public void aPartPaymentChangesTheLetterAndTheLogSaysSo() {
        ClientId client = server.client("In Part", true);
        server.issue(client, "100.00", "100%@3", null);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(0, 5));
        run.catchUp();
        server.pay(client, null, "40.00", BEGIN.plusDays(3));
        server.moveTo(BEGIN.plusDays(3), HOUR);
        run.catchUp();
        LoggedAct logged = run.log(Long.MAX_VALUE, 10).get(0);
        assertThat(logged.announced()).extracting(Amount::amount).containsExactly("100.00");
        assertThat(logged.done()).extracting(Amount::amount).containsExactly("60.00");
        assertThat(logged.reason()).contains("announced with 100.00");
    }

    @Test
    public void missedDaysAreRunOneByOneAndOnlyTheLatestLetterGoes() {
        ClientId client = server.client("Outage", true);
        TypedLateFeePolicy often = new TypedLateFeePolicy("flat", "2.00", "0", "days", "5", "", "", false);
        server.issue(client, "100.00", "100%@2", often); // due on the 3rd: fees on the 4th, 9th, 14th, 19th
        server.moveTo(BEGIN.plusDays(19), LocalTime.of(7, 0));
        DailyRun.Summary early = run.catchUp(); // before the hour: up to yesterday
        assertThat(early.of(ActKind.FEE)).isEqualTo(4);
        assertThat(early.of(ActKind.REMINDER)).isZero();
        server.moveTo(BEGIN.plusDays(19), HOUR);
        assertThat(run.catchUp().of(ActKind.REMINDER)).isEqualTo(1);
        List<String> charged = server.jdbc()
                .sql("SELECT charged_on FROM late_fee ORDER BY id")
                .query((rs, n) -> rs.getDate(1).toString())
                .list();
        assertThat(charged).containsExactly("2027-03-04", "2027-03-09", "2027-03-14", "2027-03-19");
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(1);
        String subject = server.jdbc()
                .sql("SELECT subject FROM message")
                .query(String.class)
                .single();
        assertThat(subject).contains("final reminder").contains("€108.00");
    }

    @Test
    public void whatIsKeptBackIsNotDoneAndTheNextStepGoesOn() {
        ClientId client = server.client("Telephoned", true);
        server.issue(client, "100.00", "100%@3", null);
        ActView first = acts(BEGIN.plusDays(10)).get(0);
        assertThat(first.on()).isEqualTo(BEGIN.plusDays(3)); // the step of three days before is the day of issue
        decisions.keepBack(first.key(), client);
        assertThatThrownBy(() -> decisions.keepBack(first.key(), client)).isInstanceOf(ConflictException.class);
        forward(3);
        assertThat(run.log(Long.MAX_VALUE, 10).get(0).outcome()).isEqualTo("kept back");
        forward(5);
        assertThat(count("message WHERE kind = 'reminder'")).isZero();
        forward(6);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(1);
    }

    @Test
    public void whatIsLetGoAgainIsDone() {
        ClientId client = server.client("Thought Better", true);
        server.issue(client, "100.00", "100%@3", null);
        String key = acts(BEGIN.plusDays(10)).get(0).key();
        decisions.keepBack(key, client);
        decisions.letGo(key, client);
        assertThatThrownBy(() -> decisions.letGo(key, client)).isInstanceOf(ConflictException.class);
        forward(3);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(1);
    }

    @Test
    public void everythingKeptBackWaitsAndThenOnlyTheLatestGoes() {
        ClientId client = server.client("Holiday", true);
        server.issue(client, "100.00", "100%@1", null);
        ReminderPlans plans = server.bean(ReminderPlans.class);
        plans.keepAllBack(true, BEGIN.plusDays(10).toString());
        for (int day = 1; day <= 10; day++) {
            forward(day);
        }
        assertThat(count("message WHERE kind = 'reminder'") + count("late_fee")).isZero();
        assertThat(run.log(Long.MAX_VALUE, 50)).extracting(LoggedAct::outcome).containsOnly("kept back");
        // Each act is told once, on its day: two letters and a fee.
        assertThat(run.log(Long.MAX_VALUE, 50)).hasSize(3);
        assertThat(plans.setting().allKeptUntil()).isEqualTo(BEGIN.plusDays(10));
        forward(11); // It ends by itself.
        assertThat(plans.setting().allKeptBack()).isFalse();
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(1);
        assertThat(count("late_fee")).isEqualTo(1);
    }

    @Test
    public void aKeptBackClientIsLeftAloneAndOthersAreNot() {
        ClientId quiet = server.client("Quiet", true);
        ClientId loud = server.client("Loud", true);
        server.issue(quiet, "100.00", "100%@1", null);
        server.issue(loud, "100.00", "100%@1", null);
        server.bean(Muting.class).keepClientBack(quiet, true, null);
        forward(1);
        assertThat(server.jdbc()
                        .sql("SELECT client_id FROM message")
                        .query(Long.class)
                        .list())
                .containsExactly(loud.value());
    }

    @Test
    public void aMutedClientAndAMutedInvoiceAreNotRemindedOf() {
        ClientId muted = server.client("Muted", true);
        server.issue(muted, "100.00", "100%@1", null);
        server.bean(Muting.class).mute(muted, BEGIN.plusDays(5).toString());
        ClientId half = server.client("Half Muted", true);
        DocumentId quiet = server.issue(half, "30.00", "100%@1", null);
        server.issue(half, "70.00", "100%@1", null);
        server.bean(Muting.class).muteInvoice(quiet, BEGIN.plusDays(5).toString());
        forward(1);
        assertThat(server.jdbc()
                        .sql("SELECT subject FROM message")
                        .query(String.class)
                        .list())
                .singleElement()
                .asString()
                .contains("€70.00");
        forward(6);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(3);
        assertThatThrownBy(() -> server.bean(Muting.class).mute(muted, BEGIN.toString()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("must be a day from today");
        assertThatThrownBy(() -> server.bean(Muting.class).mute(muted, "soon"))
                .hasMessageContaining("write a day such as");
    }

    @Test
    public void aLetterCanGoBeforeItsDayButNotTwiceInOne() {
        ClientId client = server.client("Now", true);
        server.issue(client, "100.00", "100%@3", null);
        ActView act = acts(BEGIN.plusDays(10)).get(0);
        decisions.doNow(act.key(), client, null);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(1);
        ActView next = acts(BEGIN.plusDays(10)).get(0);
        assertThatThrownBy(() -> decisions.doNow(next.key(), client, null))
                .hasMessageContaining("had a reminder today");
        forward(3);
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(1); // its step was used up
        assertThatThrownBy(() -> decisions.doNow("nonsense", client, null)).isInstanceOf(NotFoundException.class);
    }

    @Test
    public void aClientWithoutAnAddressIsFinedButNotWrittenTo() {
        ClientId client = server.client("No Address", false);
        server.issue(client, "100.00", "100%@1", null);
        for (int day = 1; day <= 9; day++) {
            forward(day);
        }
        assertThat(count("message WHERE kind = 'reminder'")).isZero();
        assertThat(owes(client)).isEqualTo("101.00");
        assertThat(run.log(Long.MAX_VALUE, 10)).anyMatch(a -> a.reason().contains("no e-mail address"));
    }

    @Test
    public void aChangedPlanCountsFromTodayAndTwoWindowsDoNotOverwrite() {
        ReminderPlans plans = server.bean(ReminderPlans.class);
        ClientId client = server.client("New Plan", true);
        server.issue(client, "100.00", "100%@1", null);
        int version = plans.setting().version();
        TypedPlan only = new TypedPlan(List.of(new TypedStep("20", null, "FIRM")), true, "10:30", false, "");
        plans.change(only, version);
        assertThatThrownBy(() -> plans.change(only, version)).isInstanceOf(ConflictException.class);
        server.moveTo(BEGIN.plusDays(21), LocalTime.of(10, 29));
        assertThat(run.catchUp().of(ActKind.REMINDER)).isZero();
        server.moveTo(BEGIN.plusDays(21), LocalTime.of(10, 30));
        assertThat(run.catchUp().of(ActKind.REMINDER)).isEqualTo(1);
    }

    @Test
    public void anHourThatAClockChangeSkipsOrRepeatsIsRunOnce() {
        ReminderPlans plans = server.bean(ReminderPlans.class);
        TypedPlan night = new TypedPlan(TypedPlan.usual().steps(), true, "01:30", false, "");
        plans.change(night, plans.setting().version());
        ClientId client = server.client("Night", true);
        server.issue(client, "100.00", "100%@27", null); // due on 28 March, when 01:30 does not exist in Dublin
        server.moveTo(LocalDate.of(2027, 3, 27), LocalTime.of(12, 0));
        run.catchUp();
        int before = count("message WHERE kind = 'reminder'");
        server.moveTo(LocalDate.of(2027, 3, 28), LocalTime.of(2, 5));
        assertThat(run.catchUp().of(ActKind.REMINDER)).isEqualTo(1);
        assertThat(run.catchUp().of(ActKind.REMINDER)).isZero();
        assertThat(count("message WHERE kind = 'reminder'")).isEqualTo(before + 1);
    }
}
