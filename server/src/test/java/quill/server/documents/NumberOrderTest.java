package quill.server.documents;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.Test;
import quill.core.document.NumberPattern;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.business.BusinessService;
import quill.server.dispatch.Withdrawals;
import quill.server.invoices.InvoicesService;
import quill.server.lists.Wanted;

/** Numbers stand in the order in which they were given, also where one has a digit more; drafts come last. */
public class NumberOrderTest {
    private static final LocalDate DAY = LocalDate.of(2027, 12, 30);

    @Test
    public void tenThousandComesAfterNineThousandNineHundredAndNinetyNine() {
        try (Server server = new Server()) {
            server.setUp(DAY);
            NumberPattern pattern = new NumberPattern(
                    server.bean(BusinessService.class).business().habits().invoicePattern());
            server.bean(TransactionTemplate.class)
                    .executeWithoutResult(
                            s -> server.bean(NumberSeries.class).begin(DocumentKind.INVOICE, pattern, DAY, 9999));
            ClientId client = server.client("Many Numbers", true);
            for (int i = 0; i < 3; i++) {
                server.issue(client, "1" + i + ".00", "100%@30", null);
            }
            server.moveTo(LocalDate.of(2028, 1, 2), LocalTime.NOON);
            DocumentId last = server.issue(client, "20.00", "100%@30", null);
            server.bean(InvoicesService.class).duplicate(last);
            assertThat(numbers(server, false))
                    .containsExactly("2027-9999", "2027-10000", "2027-10001", "2028-0001", null);
            assertThat(numbers(server, true))
                    .containsExactly("2028-0001", "2027-10001", "2027-10000", "2027-9999", null);
            server.bean(Withdrawals.class).takeBack(last, "a wrong price");
            server.bean(InvoicesService.class)
                    .issue(
                            last,
                            server.bean(InvoicesService.class).invoice(last).version());
            assertThat(numbers(server, true)).startsWith("2028-0001", "2027-10001");
        }
    }

    private static List<String> numbers(Server server, boolean down) {
        InvoiceList list = server.bean(InvoiceList.class);
        Wanted wanted = list.wanted(new Wanted.Typed(null, null, null, null, "number", down));
        return list.rows(wanted, 0, 10).stream()
                .map(InvoiceList.ListedInvoice::number)
                .toList();
    }
}
