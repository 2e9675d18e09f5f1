package quill.server.payments;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Json;
import quill.server.lists.Wanted;

/** Names stand beside payments: they follow a client that is renamed, or that becomes a part of another. */
public class PaymentNamesTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);

    @Test
    public void aPaymentIsFoundUnderTheNameThatItsClientHasNow() {
        try (Server server = new Server()) {
            server.setUp(DAY);
            ClientsService clients = server.bean(ClientsService.class);
            Json json = server.bean(Json.class);
            ClientId client = server.client("Old Name", true);
            DocumentId invoice = server.issue(client, "10.00", "100%@30", null);
            server.pay(client, invoice, "7.00", DAY);
            server.pay(client, null, "1.00", DAY);
            assertThat(numbers(server, "old name")).containsExactly("2027-0001", null);
            String stored = json.write(clients.client(client));
            clients.change(json.read(stored.replace("Old Name", "New Name"), Client.class));
            assertThat(numbers(server, "old name")).isEmpty();
            assertThat(numbers(server, "new name")).hasSize(2);
            ClientId other = server.client("The Other", true);
            clients.merge(client, clients.client(client).version(), other);
            assertThat(numbers(server, "new name")).isEmpty();
            assertThat(numbers(server, "the other")).containsExactly("2027-0001", null);
        }
    }

    private static List<String> numbers(Server server, String part) {
        PaymentList list = server.bean(PaymentList.class);
        Wanted wanted = list.wanted(new Wanted.Typed(part, null, null, null, null, false));
        return list.rows(wanted, 0, 10).stream()
                .map(PaymentList.ListedPayment::number)
                .toList();
    }
}
