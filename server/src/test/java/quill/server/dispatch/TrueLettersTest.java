package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.server.Server;
import quill.server.audit.Happenings;
import quill.server.chasing.ActView;
import quill.server.chasing.Chasing;
import quill.server.chasing.Decisions;
import quill.server.chasing.LeftToAPerson;
import quill.server.chasing.Muting;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.dailyrun.ActViews;
import quill.server.dailyrun.DailyRun;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;

/** What letters and papers say of a sum is true of that sum, on that day, of that person. */
public class TrueLettersTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(TypedLateFeePolicy.none(), "10", false, 0));
        server.bean(DailyRun.class).catchUp();
        client = server.client("True Reader", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        SecurityContextHolder.clearContext();
        server.close();
    }

    @Test
    public void aReceiptNamesEveryDocumentThatItsMoneySettledWithEachSum() {
        server.issue(client, "151.55", "100%@5", null);
        server.issue(client, "200.00", "100%@9", null);
        server.pay(client, null, "306.01", BEGIN);
        assertThat(last("text"))
                .contains("€306.01 has arrived: €151.55 for invoice 2027-0001, €154.46 for invoice 2027-0002.")
                .contains("For invoice 2027-0001: €151.55")
                .contains("Still to pay, due 10 March 2027 for invoice 2027-0002: €45.54");
        Set<String> links = new HashSet<>();
        Matcher link = Pattern.compile("/p/[\\w-]+").matcher(last("text"));
        while (link.find()) {
            links.add(link.group());
        }
        assertThat(links).as("a link to each of the two").hasSize(2);
    }

    @Test
    public void aReceiptNamesWhatTheRestSettledThoughThePayerNamedAnotherInvoice() {
        server.issue(client, "50.00", "100%@5", null);
        DocumentId named = server.issue(client, "20.00", "100%@9", null);
        server.pay(client, named, "60.00", BEGIN);
        assertThat(last("text"))
                .contains("€20.00 for invoice 2027-0002, €40.00 for invoice 2027-0001.")
                .doesNotContain("credit");
    }

    @Test
    public void aLetterNamesOnlyWaysToPayThatThereAre() {
        DocumentId invoice = server.issue(client, "100.00", "100%@5", null);
        DispatchService dispatch = server.bean(DispatchService.class);
        dispatch.sendAgain(invoice, "key-number-1");
        assertThat(last("text"))
                .doesNotContain("card")
                .doesNotContain("transfer")
                .contains("See the invoice: http");
        server.account();
        dispatch.sendAgain(invoice, "key-number-2");
        assertThat(last("text"))
                .doesNotContain("card")
                .contains("You can pay by bank transfer")
                .contains("See and pay: http");
    }

    @Test
    public void sinceWhenIsSaidOfOneDebtNotOfASumOfSeveral() {
        DocumentId late = server.issue(client, "500.00", "100%@5", null);
        server.issue(client, "311.50", "100%@8", null);
        server.pay(client, late, "84.00", BEGIN);
        runTo(8);
        assertThat(last("text"))
                .contains("€727.50 on invoices 2027-0001, 2027-0002 is open: €416.00 has been open since 6 March 2027,"
                        + " and €311.50 is due today.")
                .doesNotContain("€727.50 has been");
    }

    @Test
    public void aLetterSentBeforeItsDaySaysWhatIsSoThatDay() {
        server.issue(client, "100.00", "100%@10", null);
        ActView firm = server.bean(ActViews.class).until(BEGIN.plusDays(20)).stream()
                .filter(a -> "firm".equals(a.tone()))
                .findFirst()
                .orElseThrow();
        server.bean(Decisions.class).doNow(firm.key(), client, null);
        assertThat(last("subject")).contains("a note ahead of time").doesNotContain("overdue");
        assertThat(last("text"))
                .contains("€100.00 on invoice 2027-0001 falls due on 11 March 2027.")
                .contains("Please pay it by its date")
                .doesNotContain("late");
    }

    @Test
    public void aReminderCallsADepositSo() {
        server.issue(client, "100.00", "d40%@0 rest@30", null);
        runTo(3);
        assertThat(last("text")).contains("2027-0001, deposit, due 1 March 2027, 3 days late: €40.00");
    }

    @Test
    public void theLastOfSeveralCreditNotesTakesBackTheRest() {
        DocumentId invoice = server.issue(client, "100.00", "100%@10", null);
        DispatchService dispatch = server.bean(DispatchService.class);
        server.bean(CreditLetters.class)
                .credit(invoice, new Crediting.Wanted("amount", "a key", List.of(), List.of(), "30.00", false));
        assertThat(last("text"))
                .contains("takes back a part of invoice 2027-0001, €30.00: a key.")
                .contains("€70.00 is still to be paid for invoice 2027-0001.");
        server.bean(CreditLetters.class).credit(invoice, Crediting.Wanted.rest("all else", false));
        assertThat(last("text")).contains("takes back the rest of invoice 2027-0001, €70.00");
        DocumentId other = server.issue(client, "10.00", "100%@10", null);
        server.bean(CreditLetters.class).credit(other, Crediting.Wanted.rest("all", false));
        assertThat(last("text")).contains("takes back the whole of invoice 2027-0002, €10.00");
    }

    @Test
    public void aCreditNoteSaysWhatBecameOfTheMoneyThatWasPaid() {
        DocumentId paid = server.issue(client, "100.00", "100%@10", null);
        server.pay(client, paid, "100.00", BEGIN);
        server.issue(client, "60.00", "100%@30", null);
        server.bean(CreditLetters.class).credit(paid, Crediting.Wanted.rest("the work falls through", false));
        assertThat(last("text"))
                .contains("You owe nothing for invoice 2027-0001. What was paid on it before settles €60.00 of"
                        + " invoice 2027-0002 instead.")
                .contains("€40.00 of yours is held as credit");
    }

    @Test
    public void aPaperThatIsPrintedLaterSaysWhatIsOpenAndAsOfWhen() throws Exception {
        DocumentId invoice = server.issue(client, "400.00", "20%@5 rest@9", null);
        assertThat(paper(invoice)).doesNotContain("As of");
        server.moveTo(BEGIN.plusDays(2), LocalTime.of(9, 0));
        server.pay(client, invoice, "180.00", BEGIN.plusDays(2));
        assertThat(paper(invoice))
                .contains("As of 3 March 2027")
                .contains("paid 3 March 2027")
                .containsPattern("Installment 2 *due 10 March 2027, open of 320\\.00 *220\\.00");
    }

    @Test
    public void aMilderLetterLeavesOutWhatWasAskedForMoreSternly() {
        server.issue(client, "100.00", "100%@1", null);
        runTo(4); // due on the 2nd: the firm letter
        assertThat(last("text")).contains("€100.00 on invoice 2027-0001 has been open since 2 March 2027");
        server.issue(client, "30.00", "100%@2", null);
        runTo(6);
        assertThat(last("subject")).contains("a friendly reminder, invoice 2027-0002, €30.00");
        runTo(9);
        assertThat(last("subject")).contains("overdue, 2 invoices, €130.00");
    }

    @Test
    public void afterTheLastStepAnOpenDebtWaitsForAPersonUntilItIsPaidOrMuted() {
        server.issue(client, "100.00", "100%@1", null);
        Chasing chasing = server.bean(Chasing.class);
        runTo(14);
        assertThat(server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(14), 40))
                .isEmpty();
        runTo(15); // the final letter, fourteen days after
        List<LeftToAPerson.Unanswered> waiting =
                server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(15), 40);
        assertThat(waiting).hasSize(1);
        assertThat(waiting.get(0).sum().toString()).isEqualTo("EUR 100.00");
        runTo(60);
        assertThat(server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(60), 40))
                .hasSize(1);
        server.bean(Muting.class).mute(client, BEGIN.plusDays(70).toString());
        assertThat(server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(60), 40))
                .isEmpty();
        assertThat(server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(71), 40))
                .hasSize(1);
        server.pay(client, null, "100.00", BEGIN.plusDays(60));
        assertThat(server.bean(LeftToAPerson.class).unanswered(BEGIN.plusDays(71), 40))
                .isEmpty();
    }

    @Test
    public void anInvoiceThatWasIssuedButNeverSentIsNamedUntilItIsSentOrGivenOtherwise() {
        DocumentId mailed = server.issue(client, "100.00", "100%@10", null);
        DocumentId given = server.issue(client, "20.00", "100%@10", null);
        DocumentId paid = server.issue(client, "3.00", "100%@10", null);
        DispatchService dispatch = server.bean(DispatchService.class);
        assertThat(server.bean(Unsent.class).latest(9)).extracting(Document::id).containsExactly(paid, given, mailed);
        dispatch.sendAgain(mailed, "key-number-1");
        server.bean(Unsent.class).givenOtherwise(given);
        server.pay(client, paid, "3.00", BEGIN);
        assertThat(server.bean(Unsent.class).latest(9)).isEmpty();
        assertThatThrownBy(() -> server.bean(Unsent.class).givenOtherwise(given))
                .isInstanceOf(ConflictException.class);
    }

    @Test
    public void whatGoesByItselfSaysSoAndWhatAPersonSentIsInItsName() throws Exception {
        GreenMail mail = new GreenMail(ServerSetup.SMTP.dynamicPort());
        mail.start();
        try {
            server.bean(org.springframework.mail.javamail.JavaMailSenderImpl.class)
                    .setPort(mail.getSmtp().getPort());
            DocumentId invoice = server.issue(client, "100.00", "100%@3", null);
            SecurityContextHolder.getContext()
                    .setAuthentication(new UsernamePasswordAuthenticationToken("Odile", null, List.of()));
            server.bean(DispatchService.class).sendAgain(invoice, "key-number-1");
            SecurityContextHolder.clearContext();
            server.bean(Outbox.class).sendDue();
            runTo(3);
            server.bean(Outbox.class).sendDue();
            MimeMessage[] sent = mail.getReceivedMessages();
            assertThat(sent).hasSize(2);
            assertThat(sent[0].getHeader("Auto-Submitted")).isNull();
            assertThat(sent[1].getHeader("Auto-Submitted")).containsExactly("auto-generated");
            assertThat(sent[0].getMessageID()).endsWith("@workshop.example>");
            assertThat(server.bean(Happenings.class).ofInvoice(invoice))
                    .extracting(h -> h.who().words() + ": " + h.what().replaceAll(" to .*", ""))
                    .startsWith("by itself: Sent")
                    .contains("Odile: Sent");
        } finally {
            mail.stop();
        }
    }

    private void runTo(int day) {
        LocalDate from = server.bean(quill.server.common.BusinessClock.class).today();
        for (LocalDate d = from; !d.isAfter(BEGIN.plusDays(day)); d = d.plusDays(1)) {
            server.moveTo(d, LocalTime.of(9, 0));
            server.bean(DailyRun.class).catchUp();
        }
    }

    private String paper(DocumentId invoice) throws Exception {
        byte[] pdf = server.bean(PdfMaking.class)
                .invoice(server.bean(InvoicesService.class).invoice(invoice), false);
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document);
        }
    }

    private String last(String column) {
        return server.jdbc()
                .sql("SELECT " + column + " FROM message m JOIN message_text t ON t.message_id = m.id"
                        + " ORDER BY id DESC LIMIT 1")
                .query(String.class)
                .single();
    }
}
