package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.TypedWay;
import quill.core.pay.WayToPay;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.common.ConflictException;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.ways.WayChoice;
import quill.server.ways.WaysService;

/** Ways to pay: which rule removes one, and that letters, papers and payments keep to it. */
public class WaysTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private WaysService ways;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server("--quill.processor.url=http://127.0.0.1:9");
        server.setUp(BEGIN);
        server.account();
        ways = server.bean(WaysService.class);
        client = server.client("Way Payer", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private List<String> missing(DocumentId id) {
        return server.bean(DocumentWays.class).of(id).offers().stream()
                .filter(o -> !o.offered())
                .map(o -> o.words() + ": " + o.missing())
                .toList();
    }

    private void change(WayToPay way, java.util.function.UnaryOperator<TypedWay> to) {
        WaysService.WaySetting now = ways.setting();
        ways.change(
                now.ways().stream()
                        .map(w -> w.way().equals(way.name()) ? to.apply(w) : w)
                        .toList(),
                now.version());
    }

    private Document document(DocumentId id) {
        return server.bean(InvoicesService.class).invoice(id);
    }

    private String letter(DocumentId id) {
        return server.bean(Letters.class).invoice(document(id), Slip.PLAIN).text();
    }

    @Test
    public void aSumAboveTheCeilingGoesByBankAndEachPartCountsByItself() {
        change(WayToPay.CARD, w -> w.upTo("5000"));
        DocumentId large = server.issue(client, "6000.00", "100%@5", null);
        assertThat(missing(large))
                .containsExactly(
                        "card: EUR 6,000.00 is above its ceiling, EUR 5,000.00",
                        "bank debit: it is switched off",
                        "Satchel: it is switched off",
                        "Hatbox: it is switched off",
                        "cash: it is switched off",
                        "cheque: it is switched off");
        assertThat(letter(large)).contains("You can pay by bank transfer; account and reference are on its page.");
        DocumentId parts = server.issue(client, "6000.00", "50%@5 rest@40", null);
        assertThat(missing(parts)).hasSize(5);
        assertThat(letter(parts)).contains("You can pay by card on its page, or by bank transfer.");
        long first = server.jdbc()
                .sql("SELECT MIN(id) FROM debt WHERE document_id = " + large.value())
                .query(Long.class)
                .single();
        assertThatThrownBy(() ->
                        server.bean(CardOrders.class).payAt(document(large), Set.of(first), Money.parse("EUR 6000.00")))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("a card is not taken for €6,000.00");
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM processor_order")
                        .query(Long.class)
                        .single())
                .isZero();
    }

    @Test
    public void aClientAndADocumentCanDoWithoutAWay() {
        ways.chooseForClient(client, EnumSet.of(WayToPay.TRANSFER));
        DocumentId id = server.issue(client, "100.00", "100%@5", null);
        assertThat(missing(id)).contains("card: this client does without it");
        server.bean(DocumentWays.class).choose(id, new WayChoice(true, List.of()));
        assertThat(server.bean(DocumentWays.class).of(id).none()).isTrue();
        assertThat(server.bean(DocumentWays.class).notes(id))
                .startsWith("There is no way to pay €100.00: the letter asks for it, and its page can take nothing.");
        assertThat(letter(id)).doesNotContain("You can pay", "IBAN").contains("See the invoice: http");
        server.bean(DocumentWays.class).choose(id, new WayChoice(false, null));
        ways.chooseForClient(client, null);
        assertThat(server.bean(DocumentWays.class).notes(id)).isEmpty();
    }

    @Test
    public void theSlipSaysWhichWayIsMissingBeforeItGoes() {
        change(WayToPay.CARD, w -> w.upTo("50"));
        DocumentId draft = server.draft(client, "Work", "100.00", "100%@5", null);
        LetterLook.ShownLetter look = server.bean(LetterLook.class)
                .at(
                        server.bean(DispatchService.class).recipient(document(draft)),
                        null,
                        s -> server.bean(DispatchService.class).issueToLook(draft, 1, s));
        assertThat(look.notes()).containsExactly("Not by card: EUR 100.00 is above its ceiling, EUR 50.00.");
        assertThat(look.text()).contains("You can pay by bank transfer");
    }

    @Test
    public void withoutTransfersThePaperNamesNoAccount() {
        change(WayToPay.TRANSFER, w -> w.switched(false));
        change(WayToPay.CASH, w -> w.switched(true));
        DocumentId id = server.issue(client, "100.00", "100%@5", null);
        assertThat(server.bean(InvoicesService.class)
                        .document(document(id))
                        .paying()
                        .iban())
                .isEmpty();
        assertThat(letter(id))
                .contains("You can pay by card on its page, or in cash.")
                .doesNotContain("IBAN");
    }

    @Test
    public void rulesAreReadWholeAndTwoWindowsLoseNothing() {
        List<TypedWay> bad = List.of(
                new TypedWay("CARD", true, "", "", "100", "10", "2.9", "0.30", "2", ""), WayToPay.CASH.usual(true));
        assertThatThrownBy(() -> ways.change(bad, 0))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("ways[0].ceiling"));
        List<TypedWay> twice = List.of(WayToPay.CASH.usual(true), WayToPay.CASH.usual(false));
        assertThatThrownBy(() -> ways.change(twice, 0)).hasMessageContaining("name each way once");
        ways.change(ways.setting().ways(), 0);
        assertThatThrownBy(() -> ways.change(ways.setting().ways(), 0)).isInstanceOf(ConflictException.class);
    }

    @Test
    public void withoutAProcessorNothingIsSaidOfCards() {
        try (Server bare = new Server()) {
            bare.setUp(BEGIN);
            assertThat(bare.bean(WaysService.class).setting().ways())
                    .extracting(TypedWay::way)
                    .containsExactly("TRANSFER", "CASH", "CHEQUE");
            DocumentId id = bare.issue(bare.client("No Cards", true), "100.00", "100%@5", null);
            assertThat(bare.bean(DocumentWays.class).of(id).offers())
                    .extracting(WaysService.WayOffer::missing)
                    .containsExactly("you have named no bank account", "it is switched off", "it is switched off");
            assertThat(bare.bean(DocumentWays.class).of(id).none()).isTrue();
        }
    }
}
