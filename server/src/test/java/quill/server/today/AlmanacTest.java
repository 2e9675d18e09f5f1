package quill.server.today;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.Test;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.DebtKind;
import quill.core.ledger.Standing;
import quill.server.chasing.ActView;
import quill.server.common.Amount;
import quill.server.dispatch.Message;
import quill.server.dispatch.MessageKind;
import quill.server.dispatch.MessageState;
import quill.server.invoices.InvoiceIndex;
import quill.server.invoices.Measure;

public class AlmanacTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);
    private static final LocalDate FROM = TODAY.minusWeeks(6);
    private static final LocalDate TO = TODAY.plusWeeks(6);

    @Test
    public void whoOwesMostOfWhatIsLateComesFirst() {
        List<Almanac.Lane> lanes = Almanac.lanes(
                List.of(
                        row(new ClientId(1), "Little", part("10.00", -3, Standing.LATE)),
                        row(new ClientId(2), "Coming", part("900.00", 5, Standing.COMING)),
                        row(new ClientId(3), "Much", part("500.00", -1, Standing.LATE)),
                        row(new ClientId(4), "Paid", part("70.00", -9, Standing.SETTLED))),
                CurrencyUnit.EUR,
                FROM,
                TO);
        assertThat(lanes).extracting(Almanac.Lane::client).containsExactly("Much", "Little", "Coming", "Paid");
        assertThat(lanes.get(0).late().amount()).isEqualTo("500.00");
        assertThat(lanes.get(3).open().amount()).isEqualTo("0.00");
    }

    @Test
    public void whatIsLateIsShownHoweverOldAndWhatIsFarIsNot() {
        List<Almanac.Lane> lanes = Almanac.lanes(
                List.of(
                        row(new ClientId(1), "Old", part("10.00", -200, Standing.LATE)),
                        row(new ClientId(2), "Far", part("10.00", 200, Standing.COMING)),
                        row(new ClientId(3), "Long Ago", part("10.00", -200, Standing.SETTLED)),
                        row(new ClientId(4), "Taken Back", part("10.00", -5, Standing.CREDITED))),
                CurrencyUnit.EUR,
                FROM,
                TO);
        assertThat(lanes).extracting(Almanac.Lane::client).containsExactly("Old", "Far");
        assertThat(lanes.get(0).marks()).hasSize(1);
        assertThat(lanes.get(1).marks()).isEmpty();
    }

    @Test
    public void marksAreSizedByAmountAndFeesAreNot() {
        List<Almanac.Lane> lanes = Almanac.lanes(
                List.of(row(
                        new ClientId(1),
                        "One",
                        part("1000.00", -3, Standing.LATE),
                        part("250.00", 3, Standing.COMING),
                        fee("10.00", -1))),
                CurrencyUnit.EUR,
                FROM,
                TO);
        assertThat(lanes.get(0).marks()).extracting(Almanac.Mark::size).containsExactly(1000, 250, 1);
        assertThat(lanes.get(0).marks())
                .extracting(Almanac.Mark::kind)
                .containsExactly("installment", "installment", "fee");
    }

    @Test
    public void whatWasSentAndWhatWillBeDoneStandOnTheirDays() {
        List<Almanac.Lane> lanes = Almanac.lanes(
                List.of(row(new ClientId(1), "One", part("100.00", 2, Standing.COMING))), CurrencyUnit.EUR, FROM, TO);
        Message sent = new Message(
                9,
                MessageKind.REMINDER,
                new ClientId(1),
                new DocumentId(1),
                new Message.Addresses(quill.core.letter.Channel.MAIL, "a@b.example", List.of(), null),
                "a note",
                MessageState.SENT,
                null,
                TODAY.minusDays(1),
                TODAY.minusDays(1),
                false,
                null);
        ActView act = new ActView(
                "fee:1:2027-03-17:1",
                "fee",
                TODAY.plusDays(10),
                "09:00",
                new ActView.About(new ClientId(1), "One", new DocumentId(1), "Late fee"),
                null,
                new Amount("1.00", "EUR"),
                "NOTHING",
                "",
                false,
                null,
                Why.of("1%"));
        List<Almanac.Mark> marks =
                Almanac.withActs(lanes, List.of(sent), List.of(act)).get(0).marks();
        assertThat(marks).extracting(Almanac.Mark::kind).containsExactly("reminder", "installment", "fee");
        assertThat(marks)
                .extracting(Almanac.Mark::standing)
                .containsExactly(Standing.SETTLED, Standing.COMING, Standing.COMING);
    }

    @Test
    public void noInvoicesAreNoLanes() {
        assertThat(Almanac.lanes(List.of(), CurrencyUnit.EUR, FROM, TO)).isEmpty();
    }

    private static InvoiceIndex.Row row(ClientId client, String name, Measure.Part... parts) {
        return new InvoiceIndex.Row(
                new DocumentId(client.value()),
                client,
                name,
                "2027-000" + client,
                "work",
                null,
                null,
                null,
                null,
                false,
                false,
                List.of(parts));
    }

    private static Measure.Part part(String amount, int days, Standing standing) {
        Amount whole = new Amount(amount, "EUR");
        boolean open = standing == Standing.LATE || standing == Standing.COMING;
        return new Measure.Part(
                days,
                1,
                DebtKind.INSTALLMENT,
                whole,
                open ? whole : new Amount("0.00", "EUR"),
                TODAY.plusDays(days),
                null,
                standing,
                "",
                Math.max(0, -days),
                1000,
                0);
    }

    private static Measure.Part fee(String amount, int days) {
        Measure.Part p = part(amount, days, Standing.LATE);
        return new Measure.Part(
                p.id(),
                1001,
                DebtKind.LATE_FEE,
                p.amount(),
                p.open(),
                p.dueOn(),
                null,
                p.standing(),
                "",
                p.daysLate(),
                10,
                0);
    }
}
