package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.schedule.TypedTerm;
import quill.server.arranging.Arrangements;
import quill.server.common.ConflictException;
import quill.server.debts.AgreedTerms;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.debts.StoredInstallment;

/** Installments agreed anew, and milestones, on a fresh database. */
public class ArrangementsTest extends OnAFreshBusiness {
    private List<StoredInstallment> debts(DocumentId invoice) {
        return server.bean(Debts.class).of(invoice);
    }

    private Arrangements arrangements() {
        return server.bean(Arrangements.class);
    }

    private static Arrangements.Rearrangement wanted(String open, String... terms) {
        List<TypedTerm> schedule = List.of(terms).stream()
                .map(t -> t.split("@"))
                .map(t -> new TypedTerm(false, t[0], t[1]))
                .toList();
        return new Arrangements.Rearrangement(schedule, "asked on the telephone", open);
    }

    private List<String> letters() {
        return server.jdbc()
                .sql("SELECT letter || ': ' || subject FROM message ORDER BY id")
                .query(String.class)
                .list();
    }

    private void agrees(ClientId client) {
        assertThat(agreement(client).holds()).isTrue();
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
    }

    @Test
    public void moreTimeIsAgreedWhileWhatIsPaidStays() {
        ClientId client = server.client("More Time", true);
        DocumentId invoice = server.issue(client, "300.00", "equal@1 equal@monthly equal@monthly", null);
        server.pay(client, invoice, "150.00", BEGIN);
        arrangements().rearrange(invoice, wanted("150.00", "equal@60", "equal@monthly"), null);
        assertThat(debts(invoice))
                .extracting(d -> d.amount() + " " + d.open() + " " + d.dueOn())
                .containsExactly(
                        "EUR 100.00 EUR 0.00 2027-03-02",
                        "EUR 125.00 EUR 75.00 2027-04-30",
                        "EUR 75.00 EUR 75.00 2027-05-30");
        assertThat(letters()).last().asString().startsWith("ARRANGED: ").contains("invoice 2027-");
        assertThat(server.bean(AgreedTerms.class).earlier(invoice))
                .extracting(e -> e.position() + " " + e.amount() + " " + e.dueOn())
                .containsExactly("2 EUR 100.00 2027-04-02", "3 EUR 100.00 2027-05-02");
        agrees(client);
        assertThatThrownBy(() -> arrangements().rearrange(invoice, wanted("150.00", "equal@60", "equal@monthly"), null))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("nothing would change");
        server.pay(client, invoice, "10.00", BEGIN);
        assertThatThrownBy(() -> arrangements().rearrange(invoice, wanted("150.00", "rest@30"), null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("140.00");
    }

    @Test
    public void whatIsLeftOverIsReplacedAndOneMoreIsAdded() {
        ClientId client = server.client("Fewer And More", true);
        DocumentId invoice = server.issue(client, "100.00", "equal@1 equal@2 equal@3 equal@4", null);
        arrangements().rearrange(invoice, wanted(null, "rest@40"), null);
        assertThat(debts(invoice)).extracting(d -> d.open().toString()).containsExactly("EUR 100.00");
        assertThat(server.bean(AgreedTerms.class).earlier(invoice)).hasSize(4);
        arrangements().rearrange(invoice, wanted(null, "equal@40", "equal@monthly", "equal@no date yet"), null);
        assertThat(debts(invoice))
                .extracting(d -> d.position() + " " + d.open() + " " + d.note())
                .containsExactly("1 EUR 33.34 ", "5 EUR 33.33 ", "6 EUR 33.33 no date yet");
        agrees(client);
        server.pay(client, null, "100.00", BEGIN);
        assertThat(owes(client)).isEqualTo("0.00");
        agrees(client);
    }

    /** 1% of 100.00 after seven days of grace; agreed anew, it counts anew, and the cap of 1.50 goes on. */
    @Test
    public void lateFeesAndRemindersCountAnewAndTheCapGoesOn() {
        ClientId client = server.client("Late Twice", true);
        DocumentId invoice = server.issue(
                client,
                "100.00",
                "rest@1",
                new TypedLateFeePolicy("percent", "1%", "7", "once", "", "1.50", "", false));
        for (int day = 1; day <= 9; day++) {
            forward(day);
        }
        assertThat(count("late_fee")).isEqualTo(1);
        int reminders = count("used_step");
        assertThat(reminders).isEqualTo(1);
        arrangements().rearrange(invoice, wanted(null, "rest@5"), null);
        assertThat(count("used_step")).isZero();
        for (int day = 10; day <= 22; day++) {
            forward(day);
        }
        assertThat(server.jdbc()
                        .sql("SELECT fee_minor FROM late_fee ORDER BY id")
                        .query(Long.class)
                        .list())
                .containsExactly(100L, 50L);
        assertThat(count("used_step")).isEqualTo(1);
        agrees(client);
    }

    @Test
    public void aMilestoneStartsTheDaysOfWhatWaitsForItAndCanBeUndoneUntilSomethingIsPaid() {
        ClientId client = server.client("Stringed", true);
        DocumentId invoice = server.issue(client, "100.00", "40%@0 30%@at_Strings_on_+_14 30%@at_Delivery", null);
        assertThat(debts(invoice))
                .extracting(StoredInstallment::note)
                .containsExactly("", "due 14 days after the milestone “Strings on”", "due at the milestone “Delivery”");
        AgreedTerms terms = server.bean(AgreedTerms.class);
        AgreedTerms.Milestone strings = terms.milestones(invoice).get(0);
        forward(3);
        assertThatThrownBy(() -> arrangements().reach(strings.id(), BEGIN.plusDays(4), null))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("to today");
        arrangements().reach(strings.id(), BEGIN.plusDays(2), null);
        assertThat(debts(invoice).get(1).dueOn()).isEqualTo(BEGIN.plusDays(16));
        assertThat(letters()).last().asString().startsWith("ARRANGED: ");
        assertThatThrownBy(() -> arrangements().reach(strings.id(), null, null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("reached already");
        arrangements().unreach(strings.id(), null);
        assertThat(debts(invoice).get(1).dueOn()).isNull();
        arrangements().reach(strings.id(), null, null);
        server.pay(client, invoice, "50.00", BEGIN.plusDays(3));
        assertThatThrownBy(() -> arrangements().unreach(strings.id(), null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("it stays reached");
        agrees(client);
        assertThat(terms.next()).as("the second is open still").isEmpty();
        server.pay(client, invoice, "20.00", BEGIN.plusDays(3));
        assertThat(terms.next()).extracting(AgreedTerms.Milestone::name).containsExactly("Delivery");
        // Nothing about what has no day yet, however long it takes.
        for (int day = 4; day <= 40; day += 4) {
            forward(day);
        }
        assertThat(server.bean(Debts.class).of(invoice))
                .filteredOn(d -> d.dueOn() == null)
                .hasSize(1);
        assertThat(server.jdbc()
                        .sql(
                                "SELECT COUNT(*) FROM message_debt a JOIN debt d ON d.id = a.debt_id WHERE d.due_on IS NULL")
                        .query(Long.class)
                        .single())
                .isZero();
    }
}
