package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;
import quill.core.acts.ActKind;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.Server;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Undoing;

/** Texts that are put together of others fit where they are kept. */
public class TextsFitTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private static final String LONG = "x".repeat(50);

    /** Five taxes with names of sixty letters stand beside a fee that bears them: it was refused every day. */
    @Test
    public void aFeeWithFiveLongTaxesIsCharged() {
        try (Server server = new Server()) {
            server.setUp(DAY);
            server.registered(TaxRounding.PER_TAX, "BE 1");
            server.bean(DailyRun.class).catchUp();
            List<String> taxes = new ArrayList<>();
            for (int i = 1; i <= 5; i++) {
                taxes.add(server.tax(i + LONG, String.valueOf(i), "S", false, ""));
            }
            ClientId client = server.client("Heavily Taxed", false);
            InvoicesService invoices = server.bean(InvoicesService.class);
            TypedDraft draft = TypedDraft.in("EUR")
                    .client(client)
                    .subject("work")
                    .supplyDate(DAY.toString())
                    .lines(List.of(new TypedDraft.TypedLine("Work", "1", "", "1000.00", "", taxes)))
                    .schedule(List.of(new TypedTerm(false, "100%", "0")))
                    .lateFee(new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false, true))
                    .build();
            invoices.issue(invoices.begin(draft), 1);
            server.bean(quill.server.latefees.FeePolicies.class)
                    .change(new quill.server.latefees.FeePolicies.FeeSetting(
                            TypedLateFeePolicy.none(), "10", false, 0));
            server.moveTo(DAY.plusDays(9), LocalTime.of(12, 0));
            assertThat(server.bean(DailyRun.class).catchUp().of(ActKind.FEE)).isEqualTo(1);
            assertThat(server.bean(DailyRun.class).failed()).isEmpty();
        }
    }

    @Test
    public void aReasonOf300LettersIsKept() {
        try (Server server = new Server()) {
            server.setUp(DAY);
            ClientId client = server.client("Long Reason", true);
            DocumentId invoice = server.issue(client, "100.00", "100%@3", null);
            long payment = server.pay(client, invoice, "40.00", DAY);
            assertThat(server.bean(Undoing.class)
                            .undo(payment, "r".repeat(300))
                            .undone()
                            .why())
                    .hasSize(300);
        }
    }
}
