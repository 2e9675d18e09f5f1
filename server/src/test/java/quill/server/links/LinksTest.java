package quill.server.links;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Caller;
import quill.server.Server;
import quill.server.common.NotFoundException;
import quill.server.invoices.InvoicesService;

/** Clients' addresses: where each leads, and when it leads nowhere any more. */
public class LinksTest {
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

    private DocumentId issued() {
        return server.issue(client, "10.00", "100%@30", null);
    }

    private int status(String token) throws Exception {
        return new Caller(server).get("/api/public/" + token).statusCode();
    }

    @Test
    public void aDocumentsLinkLeadsToItAndADraftsToNothingYet() throws Exception {
        DocumentId invoice = issued();
        String token = links.tokenOf(invoice);
        assertThat(token).matches("[\\w-]{32}");
        assertThat(links.leadsTo(token)).isEqualTo(invoice);
        assertThat(links.pageOf(invoice)).endsWith("/p/" + token);
        assertThat(status(token)).isEqualTo(200);
        assertThat(status("no-such-link")).isEqualTo(404);
        DocumentId draft = server.bean(InvoicesService.class).duplicate(invoice);
        assertThat(status(links.tokenOf(draft))).as("a draft").isEqualTo(404);
    }

    @Test
    public void aWithdrawnLinkSaysSoAndAnotherTakesItsPlace() throws Exception {
        DocumentId invoice = issued();
        String first = links.tokenOf(invoice);
        String second = links.begin(invoice);
        links.withdraw(first);
        assertThat(status(first)).isEqualTo(404);
        assertThatThrownBy(() -> links.leadsTo(first))
                .isInstanceOf(NotFoundException.class)
                .hasMessageContaining("has ended")
                .hasMessageContaining("nothing was charged");
        assertThat(links.tokenOf(invoice)).isEqualTo(second);
        assertThat(status(second)).isEqualTo(200);
    }

    @Test
    public void anOldLinkLeadsWhereTheOneLeadsThatTookItsPlace() {
        DocumentId old = issued();
        DocumentId newer = issued();
        DocumentId newest = issued();
        links.supersede(links.tokenOf(newer), links.tokenOf(newest));
        String first = links.tokenOf(old);
        links.supersede(first, links.begin(newer));
        assertThat(links.leadsTo(first)).isEqualTo(newer);
        String round = links.begin(old);
        links.supersede(round, round);
        assertThatThrownBy(() -> links.leadsTo(round)).hasMessageContaining("leads nowhere");
    }

    @Test
    public void aLinkEndsWithItsLastDay() {
        String token = links.tokenOf(issued());
        LocalDate today = server.bean(quill.server.common.BusinessClock.class).today();
        links.endsOn(token, today.plusDays(1));
        server.moveTo(today.plusDays(1), LocalTime.of(23, 0));
        links.leadsTo(token);
        server.moveTo(today.plusDays(2), LocalTime.of(0, 1));
        assertThatThrownBy(() -> links.leadsTo(token)).hasMessageContaining("has ended");
    }
}
