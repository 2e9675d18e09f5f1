package quill.server.publicpages;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Caller;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Documents;
import quill.server.links.Links;

/** What the business does with a page's link, and what may be paid together there. */
public class PageLinksTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private Server server;
    private Links links;
    private ClientId client;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        links = server.bean(Links.class);
        client = server.client("Link Reader", true);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private int status(String token) {
        return new Caller(server).get("/api/public/" + token).statusCode();
    }

    @Test
    public void aWithdrawnLinkEndsAndTheNextLetterBringsANewOne() {
        DocumentId invoice = server.issue(client, "10.00", "100%@30", null);
        PageLinks service = server.bean(PageLinks.class);
        String first = links.tokenOf(invoice);
        service.withdraw(invoice);
        assertThat(status(first)).isEqualTo(404);
        assertThat(links.pageNow(invoice)).isEmpty();
        assertThatThrownBy(() -> service.withdraw(invoice)).isInstanceOf(ConflictException.class);
        String second = links.tokenOf(invoice);
        assertThat(second).isNotEqualTo(first);
        assertThat(status(second)).isEqualTo(200);
        service.renew(invoice);
        assertThat(status(second)).isEqualTo(404);
        assertThat(status(links.tokenOf(invoice))).isEqualTo(200);
    }

    @Test
    public void aLinkEndsOnTheDayThatWasTyped() {
        DocumentId invoice = server.issue(client, "10.00", "100%@30", null);
        PageLinks service = server.bean(PageLinks.class);
        assertThatThrownBy(() -> service.end(invoice, "30 Feb"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("no such day");
        service.end(invoice, "+1");
        String token = links.tokenOf(invoice);
        assertThat(links.newest(invoice).orElseThrow().endsOn()).isEqualTo(DAY.plusDays(1));
        server.moveTo(DAY.plusDays(2), LocalTime.of(8, 0));
        assertThat(status(token)).isEqualTo(404);
        server.moveTo(DAY, LocalTime.of(8, 0));
        service.end(invoice, "");
        server.moveTo(DAY.plusDays(2), LocalTime.of(8, 0));
        assertThat(status(token)).isEqualTo(200);
        server.moveTo(DAY, LocalTime.of(8, 0));
    }

    @Test
    public void someOfTheInstallmentsArePaidTogetherAndNoneOfAnother() {
        DocumentId invoice = server.issue(client, "100.00", "equal@1 equal@monthly equal@monthly", null);
        DocumentId other = server.issue(client, "10.00", "100%@30", null);
        ClientPages pages = server.bean(ClientPages.class);
        List<Long> ids = server.bean(Debts.class).of(invoice).stream()
                .map(StoredInstallment::id)
                .toList();
        var found = server.bean(Documents.class).find(invoice).orElseThrow();
        assertThat(pages.choose(found, List.of(ids.get(0), ids.get(2))).amount().amount())
                .isEqualTo("66.67");
        long stranger = server.bean(Debts.class).of(other).get(0).id();
        assertThatThrownBy(() -> pages.choose(found, List.of(ids.get(0), stranger)))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("among what is open");
        String token = links.tokenOf(invoice);
        assertThat(new Caller(server)
                        .get("/api/public/" + token + "/choice?installments=x")
                        .statusCode())
                .isIn(400, 422);
    }
}
