package quill.server.requests;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.id.DocumentId;

/** What came of requests on an open invoice, by how far what is open fell since each was asked for. */
public class RequestsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);

    private static Money eur(String amount) {
        return Money.of(CurrencyUnit.EUR, new BigDecimal(amount));
    }

    @DataProvider
    public Object[][] stories() {
        return new Object[][] {
            // asked (amount at what was open then), what is open now, what came of each
            {"100@1000", "1000", "0"},
            {"100@1000", "960", "40"},
            {"100@1000", "700", "100"},
            {"100@1000 200@1000", "900", "100 0"},
            {"100@1000 200@1000", "750", "100 150"},
            {"100@1000 200@900", "900", "100 0"},
            {"100@1000 200@900", "700", "100 200"},
            {"100@1000 200@950", "900", "100 0"},
            {"100@1000 200@600", "500", "100 100"},
            // open again, since a payment was undone: the latest misses it first
            {"100@1000 200@900", "800", "100 100"},
            {"100@900 200@700", "750", "50 0"},
        };
    }

    @Test(dataProvider = "stories")
    public void whatCameIsForTheFirstThatMissesAny(String asked, String open, String came) {
        List<RequestRepository.Row> rows = new ArrayList<>();
        for (String one : asked.split(" ")) {
            String[] part = one.split("@");
            rows.add(new RequestRepository.Row(
                    rows.size() + 1, new DocumentId(7), eur(part[0]), eur(part[1]), DAY, "", null));
        }
        assertThat(Requests.ofInvoice(rows, eur(open)))
                .extracting(Requests.Asked::came)
                .containsExactly(
                        List.of(came.split(" ")).stream().map(RequestsTest::eur).toArray(Money[]::new));
    }
}
