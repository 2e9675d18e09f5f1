package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.LetterKind;
import quill.core.letter.ReadyMade;
import quill.core.letter.Wording;
import quill.core.schedule.TypedTerm;
import quill.server.Server;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientMore;
import quill.server.clients.ClientsService;
import quill.server.clients.Contact;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.dailyrun.DailyRun;
import quill.server.invoices.InvoicesService;
import quill.server.letters.Wordings;
import quill.server.payments.Undoing;
import quill.server.quotes.QuotesService;

/** Every message is a letter that the business can word, and what it words is filled in, never obeyed. */
public class LettersTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private ClientId client;
    private Wordings wordings;
    private LetterDesk desk;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.account();
        server.bean(DailyRun.class).catchUp();
        client = server.client("Smith & Söhne", true);
        wordings = server.bean(Wordings.class);
        desk = server.bean(LetterDesk.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private String last(String column) {
        return server.jdbc()
                .sql("SELECT " + column
                        + " FROM message m JOIN message_text t ON t.message_id = m.id ORDER BY id DESC LIMIT 1")
                .query((rs, n) -> Optional.ofNullable(rs.getString(1)))
                .single()
                .orElse(null);
    }

    private void send(DocumentId invoice, String key) {
        server.bean(DispatchService.class).sendAgain(invoice, key);
    }

    private void word(LetterKind kind, String subject, String body) {
        wordings.change(kind, false, subject, body, wordings.kept(kind, false).version());
    }

    @Test
    public void everyMessageIsALetterThatCanBeWorded() {
        for (MessageKind kind : MessageKind.values()) {
            assertThat(Arrays.stream(LetterKind.values()).filter(kind::says))
                    .as("letters that say " + kind)
                    .isNotEmpty();
        }
        for (LetterKind letter : LetterKind.values()) {
            assertThat(Arrays.stream(MessageKind.values()).filter(k -> k != MessageKind.COPY && k.says(letter)))
                    .as("what " + letter + " is")
                    .hasSize(letter.isOnPage() ? 0 : 1);
            assertThat(wordings.now(letter, false)).isEqualTo(ReadyMade.of(letter, ReadyMade.Tone.PLAIN));
        }
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        var written = server.bean(Letters.class)
                .invoice(server.bean(InvoicesService.class).invoice(invoice), Slip.PLAIN);
        assertThatThrownBy(() -> MessageDraft.of("k", MessageKind.RECEIPT, client, invoice, "a@b.example", written))
                .hasMessageContaining("RECEIPT is not said by the letter INVOICE");
    }

    @Test
    public void aRewordedLetterGoesNextAndWhatWasSentStays() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        send(invoice, "key-number-1");
        String before = last("text");
        word(
                LetterKind.INVOICE,
                "{document} of {today}",
                "Hello {client}!\n\n{total}, due {due date}.\n\n{how to pay}");
        send(invoice, "key-number-2");
        assertThat(last("subject")).isEqualTo("invoice 2027-0001 of 1 March 2027");
        assertThat(last("text"))
                .startsWith("Hello Smith & Söhne!\n\n€100.00, due 6 March 2027.\n\nSee and pay: http")
                .contains("IBAN XX51 LARK 0000 0004 20");
        assertThat(last("html")).contains("Hello Smith &amp; Söhne!").contains("cid:code");
        assertThat(server.jdbc()
                        .sql("SELECT text FROM message_text ORDER BY message_id LIMIT 1")
                        .query(String.class)
                        .single())
                .isEqualTo(before);
        wordings.backToOurs(LetterKind.INVOICE, false, 1);
        send(invoice, "key-number-3");
        assertThat(last("text")).isEqualTo(before);
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM letter_wording")
                        .query(Integer.class)
                        .single())
                .as("every wording that ever went is kept")
                .isEqualTo(2);
    }

    @Test
    public void twoWindowsNeverOverwriteEachOther() {
        wordings.change(LetterKind.RECEIPT, false, "one", "one", 0);
        assertThatThrownBy(() -> wordings.change(LetterKind.RECEIPT, false, "two", "two", 0))
                .isInstanceOf(ConflictException.class);
        assertThat(wordings.now(LetterKind.RECEIPT, false)).isEqualTo(new Wording("one", "one"));
        // The payer's wording has versions of its own, and without one the client's serves.
        assertThat(wordings.now(LetterKind.RECEIPT, true).subject()).isEqualTo("one");
        wordings.change(LetterKind.RECEIPT, true, "three", "three", 0);
        assertThat(wordings.now(LetterKind.RECEIPT, true).subject()).isEqualTo("three");
        wordings.backToOurs(LetterKind.RECEIPT, true, 1);
        assertThat(wordings.now(LetterKind.RECEIPT, true).subject()).isEqualTo("one");
    }

    @DataProvider
    public Object[][] nonsense() {
        return new Object[][] {
            {"<script>alert(1)</script>"},
            {"${T(java.lang.Runtime).getRuntime().exec('true')}"},
            {"[[${f.from.name}]] [(${f.from.name})] [# th:utext=\"${l}\"/]"},
            {"<p th:text=\"${f}\">th:</p> __${f}__ *{from} #{x} @{/x} ~{x}"},
            {"-- ' OR 1=1; \\ \" & < >"},
        };
    }

    @Test(dataProvider = "nonsense")
    public void whatIsTypedStaysText(String typed) {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        word(LetterKind.INVOICE, "S " + typed, "B " + typed + "\n\n{how to pay}");
        send(invoice, "key-number-1");
        assertThat(last("subject")).isEqualTo("S " + typed);
        assertThat(last("text")).contains("B " + typed);
        assertThat(org.springframework.web.util.HtmlUtils.htmlUnescape(last("html")))
                .contains("B " + typed);
        assertThat(last("html")).doesNotContain("<script").doesNotContain("th:text=\"");
    }

    @Test
    public void whatIsTypedAsOnesOwnLineStaysTextToo() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        server.bean(DispatchService.class)
                .sendAgain(
                        invoice,
                        "key-number-1",
                        new Slip(null, null, "{total} [[${f}]]", null, false, false, null, null, null, false));
        assertThat(last("text")).startsWith("Dear Smith & Söhne,\n\n{total} [[${f}]]\n\nHere is");
        // Wherever a wording has no place for it, it comes first.
        word(LetterKind.INVOICE, "s", "Hello.");
        server.bean(DispatchService.class)
                .sendAgain(
                        invoice,
                        "key-number-2",
                        new Slip(null, null, "Mine", null, false, false, null, null, null, false));
        assertThat(last("text")).startsWith("Mine\n\nHello.");
    }

    @Test
    public void aMisspeltFieldIsRefusedWithTheNearest() {
        assertThatThrownBy(() -> word(LetterKind.INVOICE, "s", "{totl} {how to pay}"))
                .isInstanceOfSatisfying(RefusedException.class, e -> {
                    assertThat(e.problems().get(0).value()).isEqualTo("{totl}");
                    assertThat(e.problems().get(0).message()).contains("{total}");
                });
        assertThatThrownBy(() -> word(LetterKind.INVOICE, "a\nb", "x"))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("subject"));
        assertThat(wordings.kept(LetterKind.INVOICE, false).version()).isZero();
        // What is only mailed may say what no paper can print; a reminder has a paper.
        assertThat(wordings.read(LetterKind.RECEIPT, "Thanks 🎹", "🎹").body()).isEqualTo("🎹");
        assertThatThrownBy(() -> wordings.read(LetterKind.FIRM, "Late 🎹", "🎹"))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems()).extracting(p -> p.field()).containsExactly("body"));
    }

    @Test
    public void whoPaysForAClientIsWrittenToInWordsOfItsOwn() {
        ClientsService clients = server.bean(ClientsService.class);
        Client c = clients.client(client);
        clients.change(new Client(
                c.id(),
                c.name(),
                c.contact(),
                c.email(),
                c.address(),
                c.country(),
                c.taxNumber(),
                "",
                null,
                ClientMore.NOTHING.with(List.of(new Contact("Pia Payer", "pia@pays.example", "", true, true))),
                c.version()));
        wordings.change(LetterKind.RECEIPT, true, "For {client}", "Dear {contact, or client}, for {client}.", 0);
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        server.pay(client, invoice, "40.00", BEGIN);
        assertThat(last("to_address")).isEqualTo("pia@pays.example");
        assertThat(last("subject")).isEqualTo("For Smith & Söhne");
        assertThat(last("text")).startsWith("Dear Pia Payer, for Smith & Söhne.");
    }

    /** What stands on one document only is read from it where the wording names it; of several nothing is said. */
    @Test
    public void aReminderSaysTheBusinesssOwnFieldsOfTheDocumentThatItIsAbout() {
        DocumentSettings settings = server.bean(DocumentSettings.class);
        DocumentSetting now = settings.setting();
        settings.change(new DocumentSetting(
                now.layout(),
                now.lineShows(),
                now.typeface(),
                now.terms(),
                List.of("Piano no."),
                now.coins(),
                now.accent(),
                true,
                now.version()));
        word(LetterKind.FRIENDLY, "{document}", "For {what for}. The piano is {Piano no.}. Open: {amount open}.");
        remindedOf("98 765", 3);
        assertThat(last("text")).startsWith("For tuning. The piano is 98 765. Open: €50.00.");
        word(LetterKind.FRIENDLY, "{document}", "For {what for}. Open: {amount open}.");
        remindedOf("12 345", 6);
        assertThat(last("text")).startsWith("For tuning. Open: €50.00.");
    }

    /** Each to a client of its own, on the day on which it falls due. */
    private void remindedOf(String piano, int day) {
        ClientId debtor = server.client("Debtor " + day, true);
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId draft = invoices.begin(TypedDraft.in("EUR")
                .client(debtor)
                .subject("tuning")
                .supplyDate(BEGIN.toString())
                .lines(List.of(new TypedDraft.TypedLine("Tuning", "1", "", "50.00", "", List.of("none"))))
                .fields(Map.of("Piano no.", piano))
                .schedule(List.of(new TypedTerm(false, "100%", "3")))
                .build());
        invoices.issue(draft, 1);
        server.moveTo(BEGIN.plusDays(day), LocalTime.of(9, 0));
        server.bean(DailyRun.class).catchUp();
    }

    @Test
    public void whereNothingIsOwedThereIsNoButtonNoAccountAndNoCode() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        server.pay(client, invoice, "100.00", BEGIN);
        send(invoice, "key-number-1");
        assertThat(last("text"))
                .contains("It is settled: there is nothing to pay.")
                .doesNotContain("IBAN")
                .doesNotContain("/p/");
        assertThat(last("html")).doesNotContain("cid:code").doesNotContain("See and pay");
        assertThat(last("code")).isNull();
    }

    @Test
    public void oneIsTriedOutToOneselfAndIsNoLetterToAnybody() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        desk.trial(LetterKind.INVOICE, "{document}", "Mine: {total}", client);
        assertThat(last("to_address")).isEqualTo("post@workshop.example");
        assertThat(last("subject")).isEqualTo("Tried out: invoice 2027-0001");
        assertThat(last("text")).startsWith("Mine: €100.00");
        assertThat(last("client_id")).isNull();
        assertThat(server.bean(Correspondence.class).ofClient(client, "")).isEmpty();
        assertThat(server.bean(Correspondence.class).ofInvoice(invoice)).isEmpty();
        assertThat(wordings.kept(LetterKind.INVOICE, false).own()).isFalse();
        assertThatThrownBy(() -> desk.trial(LetterKind.PAGE_PAID, "", "x", null))
                .isInstanceOf(RefusedException.class);
    }

    @Test
    public void theCodeAsksForWhatThePageAsksFor() {
        DocumentId invoice = server.issue(client, "100.00", "20%@3 30%@5 rest@60", null);
        send(invoice, "key-number-1");
        assertThat(last("code")).contains("\nEUR20.00\n");
        assertThat(last("html")).contains("scan the code for €20.00");
        server.moveTo(BEGIN.plusDays(9), LocalTime.of(9, 0));
        send(invoice, "key-number-2");
        assertThat(last("code")).as("both that are due, not the third").contains("\nEUR50.00\n");
    }

    @Test
    public void sendingAgainSaysWhenItWasSentFirst() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        send(invoice, "key-number-1");
        assertThat(last("text")).doesNotContain("first sent");
        server.jdbc()
                .sql("UPDATE message SET state = 'sent', sent_on = DATE '2027-03-01'")
                .update();
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(9, 0));
        send(invoice, "key-number-2");
        assertThat(last("text")).contains("€100.00. It was first sent on 1 March 2027.");
    }

    @Test
    public void aLetterThatAsksAndOffersNoWayToPayIsFlaggedAndSoIsAnEmptyField() {
        server.issue(client, "100.00", "40%@2 rest@9", null);
        server.issue(client, "100.00", "100%@5", null);
        LetterDesk.LetterPreview preview =
                desk.preview(LetterKind.INVOICE, "s", "Hello. Due on {due date}, then. Bye.", null);
        assertThat(preview.notes()).hasSize(2);
        assertThat(preview.notes().get(0)).contains("offers no way to pay").contains("{how to pay}");
        assertThat(preview.notes().get(1))
                .isEqualTo("“due date” is empty in 1 of the 2 letters that this would be now."
                        + " Left out there: “Due on {due date}, then.”");
        assertThat(desk.preview(LetterKind.RECEIPT, "s", "Hello.", null).notes())
                .isEmpty();
    }

    @Test
    public void eachLetterCanBeLookedAtWithARealClientOrWithAMadeUpOccasion() {
        for (LetterKind kind : LetterKind.values()) {
            Wording w = wordings.now(kind, false);
            assertThat(desk.preview(kind, w.subject(), w.body(), null).about()).startsWith("Made up");
        }
        DocumentId late = server.issue(client, "100.00", "50%@0 rest@60", null);
        DocumentId credited = server.issue(client, "30.00", "100%@5", null);
        server.bean(CreditLetters.class).credit(credited, Crediting.Wanted.rest("all", false));
        server.bean(Undoing.class).undo(server.pay(client, late, "1.00", BEGIN), "a slip");
        server.pay(client, late, "20.00", BEGIN);
        QuotesService quotes = server.bean(QuotesService.class);
        quotes.issue(
                quotes.begin(server.bean(InvoicesService.class)
                        .typed(server.bean(InvoicesService.class).invoice(late))),
                1);
        server.moveTo(BEGIN.plusDays(9), LocalTime.of(9, 0));
        for (LetterKind kind : EnumSet.complementOf(EnumSet.of(LetterKind.NOTICE, LetterKind.ASK_TO_KEEP))) {
            Wording w = wordings.now(kind, false);
            LetterDesk.LetterPreview preview = desk.preview(kind, w.subject(), w.body(), client);
            assertThat(preview.about()).as(kind.name()).doesNotContain("Made up");
            assertThat(preview.text()).isNotEmpty().doesNotContain("{");
            if (kind.isOnPage()) {
                assertThat(preview.subject() + preview.html()).isEmpty();
            } else if (kind.isText()) {
                assertThat(preview.subject()).isEmpty();
                assertThat(preview.text()).contains("Test Workshop").doesNotContain("\n\n");
            } else {
                assertThat(preview.text()).contains("Smith & Söhne");
                assertThat(preview.html()).contains("Smith &amp; Söhne").doesNotContain("cid:code");
            }
            assertThat(preview.choices())
                    .extracting(LetterDesk.ClientChoice::id)
                    .contains(client);
            assertThat(preview.notes())
                    .as(kind.name())
                    .allMatch(n -> kind.isText()
                            && (n.contains(" characters, in ") || n.startsWith("“amount open” is empty")));
        }
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM message WHERE kind = 'reminder' AND state = 'waiting'")
                        .query(Integer.class)
                        .single())
                .as("looking sends nothing")
                .isZero();
    }
}
