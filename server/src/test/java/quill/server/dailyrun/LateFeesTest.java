package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.ledger.Agreement;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.business.Rates;
import quill.server.chasing.ActView;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;

/** Late fees on a fresh database: charged by the policy that was printed, reviewed, waived, put up for waiving. */
public class LateFeesTest extends OnAFreshBusiness {
    @Test
    public void feesUnderReviewWaitForAPerson() {
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(ONE_PERCENT, "10", true, 1));
        ClientId client = server.client("Reviewed", true);
        server.issue(client, "100.00", "100%@1", null);
        ClientId other = server.client("Let Off", true);
        server.issue(other, "200.00", "100%@1", null);
        for (int day = 1; day <= 12; day++) {
            forward(day);
        }
        assertThat(count("late_fee")).isZero();
        List<quill.core.acts.Act> waiting = decisions.waitingForReview();
        assertThat(waiting).hasSize(2);
        decisions.doNow(waiting.get(0).key().toString(), waiting.get(0).client(), null);
        decisions.leaveOut(waiting.get(1).key().toString(), waiting.get(1).client(), "an old client");
        assertThat(decisions.waitingForReview()).isEmpty();
        assertThatThrownBy(() -> decisions.doNow(
                        waiting.get(0).key().toString(), waiting.get(0).client(), null))
                .isInstanceOf(ConflictException.class);
        assertThat(owes(client)).isEqualTo("101.00");
        assertThat(owes(other)).isEqualTo("200.00");
        forward(13);
        assertThat(count("late_fee")).isEqualTo(2);
    }

    @Test
    public void aFeeCannotBeChargedBeforeItsDay() {
        ClientId client = server.client("Too Soon", true);
        server.issue(client, "100.00", "100%@1", null);
        ActView fee = acts(BEGIN.plusDays(30)).stream()
                .filter(a -> a.kind().equals("fee"))
                .findFirst()
                .orElseThrow();
        assertThat(fee.canDoNow()).isFalse();
        assertThatThrownBy(() -> decisions.doNow(fee.key(), client, null)).hasMessageContaining("10 March 2027");
    }

    @Test
    public void aWaivedFeeGivesBackWhatWasPaidOnItAndIsWaivedOnce() {
        ClientId client = server.client("Waived", true);
        server.issue(client, "100.00", "100%@1", null);
        for (int day = 1; day <= 9; day++) {
            forward(day);
        }
        assertThat(owes(client)).isEqualTo("101.00");
        server.pay(client, null, "101.00", BEGIN.plusDays(9));
        LateFees fees = server.bean(LateFees.class);
        long id = server.jdbc().sql("SELECT id FROM late_fee").query(Long.class).single();
        assertThatThrownBy(() -> fees.waive(id, " ")).isInstanceOf(RefusedException.class);
        fees.waive(id, "a good client");
        assertThat(owes(client)).isEqualTo("-1.00");
        assertThatThrownBy(() -> fees.waive(id, "again"))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("waived already");
        DocumentId next = server.issue(client, "50.00", "100%@3", null);
        assertThat(server.bean(Debts.class).of(next).get(0).open().getAmount()).isEqualByComparingTo("49.00");
        assertThat(agreement(client).holds()).isTrue();
    }

    @Test
    public void aPaymentDatedBeforeAFeePutsItUpForWaiving() {
        ClientId client = server.client("In Time", true);
        server.issue(client, "100.00", "100%@1", null);
        for (int day = 1; day <= 11; day++) {
            forward(day);
        }
        LateFees fees = server.bean(LateFees.class);
        assertThat(fees.putUpForWaiving()).isEmpty();
        server.pay(client, null, "100.00", BEGIN.plusDays(8)); // the last day of grace
        assertThat(fees.putUpForWaiving()).hasSize(1);
        assertThat(fees.putUpForWaiving().get(0).paidOn()).isEqualTo(BEGIN.plusDays(8));
        fees.letStand(fees.putUpForWaiving().get(0).fee().id());
        assertThat(fees.putUpForWaiving()).isEmpty();
        assertThat(owes(client)).isEqualTo("1.00");
    }

    @Test
    public void takingAnInvoiceBackWaivesItsFees() {
        ClientId client = server.client("Taken Back", true);
        DocumentId invoice = server.issue(client, "100.00", "100%@1", null);
        for (int day = 1; day <= 9; day++) {
            forward(day);
        }
        server.bean(Crediting.class).write(invoice, Crediting.Wanted.rest("it was never ordered", false));
        assertThat(owes(client)).isEqualTo("0.00");
        assertThat(agreement(client).holds()).isTrue();
        for (int day = 10; day <= 20; day++) {
            forward(day);
        }
        assertThat(count("late_fee")).isEqualTo(1);
    }

    /** A fee on an invoice in pounds, waived at another rate: in the own currency too nothing of it is left. */
    @Test
    public void aFeeBearsTheTaxOfItsInvoiceAndAWaiverTakesAllOfItBack() {
        server.registered(TaxRounding.PER_TAX, "BE0123456789");
        String high = server.tax("high", "21", "S", false, "");
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-01-01", "1.1745"));
        ClientId client = server.client("Taxed", true);
        // Sums of a policy are in euros: 11.80 at 1.1745 is 10.05 pounds, 23.61 is 20.10.
        TypedLateFeePolicy policy = new TypedLateFeePolicy("flat", "11.80", "7", "days", "5", "23.61", "", false, true);
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId invoice = invoices.issue(
                        invoices.begin(TypedDraft.in("GBP")
                                .client(client)
                                .subject("work")
                                .supplyDate(BEGIN.toString())
                                .lines(List.of(new TypedLine("Work", "1", "", "100.00", "", List.of(high))))
                                .schedule(List.of(new TypedTerm(false, "rest", "1")))
                                .lateFee(policy)
                                .build()),
                        1)
                .id();
        assertThat(invoices.document(invoices.invoice(invoice)).paying().lateFee())
                .endsWith("It bears tax as this invoice does.");
        for (int day = 1; day <= 25; day++) {
            forward(day);
        }
        // 10.05 and 21% of it, 2.11; the cap of 20.10 lets two fees be charged, tax not counted.
        LateFees fees = server.bean(LateFees.class);
        assertThat(fees.ofInvoice(invoice))
                .extracting(f -> f.fee().amount() + " " + f.amount().amount())
                .containsExactly("10.05 12.16", "10.05 12.16");
        assertThat(server.bean(Debts.class).of(invoice).get(1).note()).isEqualTo("with Tax high 2.11");
        assertThat(taxPosted(invoice)).isEqualTo("-25.22");
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-03-20", "1.3333"));
        long before = ownPosted("LATE_FEE_INCOME");
        fees.ofInvoice(invoice).forEach(f -> fees.waive(f.id(), "a good client"));
        assertThat(taxPosted(invoice)).isEqualTo("-21.00");
        assertThat(before).isNegative();
        assertThat(ownPosted("LATE_FEE_INCOME")).isZero();
        Agreement pounds = server.bean(Debts.class).agreement(client, CurrencyUnit.GBP);
        assertThat(pounds.holds()).isTrue();
        assertThat(pounds.byPostings()).isEqualTo(Money.parse("GBP 121.00"));
    }

    private String taxPosted(DocumentId invoice) {
        return server.jdbc()
                .sql("SELECT SUM(amount_minor) FROM posting WHERE account = 'TAX' AND invoice_id = :id")
                .param("id", invoice)
                .query(BigDecimal.class)
                .single()
                .movePointLeft(2)
                .toPlainString();
    }

    private long ownPosted(String account) {
        return server.jdbc()
                .sql("SELECT SUM(own_minor) FROM posting WHERE account = :account")
                .param("account", account)
                .query(Long.class)
                .single();
    }

    @Test
    public void thePolicyIsTheOneThatWasPrinted() {
        ClientId own = server.client("Own Policy", true);
        server.bean(FeePolicies.class)
                .setForClient(own, new TypedLateFeePolicy("flat", "3.50", "0", "once", "", "", "", false));
        DocumentId invoice = server.issue(own, "100.00", "100%@1", null);
        server.bean(FeePolicies.class).setForClient(own, null);
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(TypedLateFeePolicy.none(), "1", false, 1));
        InvoicesService invoices = server.bean(InvoicesService.class);
        assertThat(invoices.document(invoices.invoice(invoice)).paying().lateFee())
                .startsWith("Late fee: EUR 3.50");
        forward(2);
        assertThat(owes(own)).isEqualTo("103.50");
    }
}
