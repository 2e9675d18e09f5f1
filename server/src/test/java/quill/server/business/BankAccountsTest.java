package quill.server.business;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.schedule.TypedTerm;
import quill.server.Caller;
import quill.server.Server;
import quill.server.business.BankAccounts.BankAccount;
import quill.server.clients.Client;
import quill.server.clients.ClientMore;
import quill.server.clients.ClientsService;
import quill.server.dispatch.WaysToPay;
import quill.server.documents.Document;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.InvoicesService;
import quill.server.people.PeopleService;

/** Each currency is transferred to its own account, where it has one. IBANs: examples of the IBAN registry (SWIFT). */
public class BankAccountsTest {
    private static final String POUNDS = "GB29 NWBK 6016 1331 9268 19";
    private static final String PASSPHRASE = "felt hammers and copper strings";

    @Test
    public void anInvoiceNamesTheAccountOfItsCurrencyAndKeepsIt() {
        try (Server server = new Server()) {
            server.setUp(LocalDate.of(2027, 3, 15));
            server.account();
            server.bean(Rates.class).note(new Rates.Rate("GBP", "", "1.17"));
            BankAccounts accounts = server.bean(BankAccounts.class);
            String usual =
                    server.bean(BusinessService.class).business().account().iban();
            accounts.keep(new BankAccount("GBP", POUNDS, "NWBKGB2L"));
            ClientMore brought = new ClientMore(
                    null, "", "", "Stage door\nBack Lane", "", null, null, List.of(), List.of(), "", List.of());
            ClientId client = server.bean(ClientsService.class)
                    .make(new Client(
                            ClientId.NEW, "Harbour Hall", "", "h@h.example", "1 Quay", "GB", "", "", null, brought, 1))
                    .id();
            assertThat(issued(server, client, "GBP").paying().iban()).isEqualTo(POUNDS);
            PrintedDocument inEuro = issued(server, client, "EUR");
            assertThat(inEuro.paying().iban()).isEqualTo(usual);
            assertThat(inEuro.to().delivery()).isEqualTo("Stage door\nBack Lane");
            assertThat(server.bean(WaysToPay.class)
                            .of(org.joda.money.Money.parse("GBP 1.00"), null, null)
                            .iban())
                    .isEqualTo(POUNDS);
            accounts.remove("GBP");
            assertThat(server.bean(WaysToPay.class)
                            .of(org.joda.money.Money.parse("GBP 1.00"), null, null)
                            .iban())
                    .isNotEqualTo(POUNDS);
        }
    }

    private static PrintedDocument issued(Server server, ClientId client, String currency) {
        InvoicesService invoices = server.bean(InvoicesService.class);
        TypedDraft draft = TypedDraft.in(currency)
                .client(client)
                .subject("hall")
                .supplyDate("2027-03-15")
                .lines(List.of(new TypedDraft.TypedLine("Tuning", "1", "", "80", "", List.of("none"))))
                .schedule(List.of(new TypedTerm(false, "rest", "30")))
                .build();
        Document invoice = invoices.issue(invoices.begin(draft), 1);
        return invoices.document(invoice);
    }

    @Test
    public void aSlipIsNamedAndNobodyChangesOneWithoutThePassphrase() {
        try (Server server = new Server()) {
            server.setUp(LocalDate.of(2027, 3, 15));
            BankAccounts accounts = server.bean(BankAccounts.class);
            assertThatThrownBy(() -> accounts.keep(new BankAccount("GBP", POUNDS.replace("19", "18"), "")))
                    .isInstanceOfSatisfying(
                            RefusedException.class,
                            e -> assertThat(e.problems().get(0).field()).isEqualTo("iban"));
            assertThatThrownBy(() -> accounts.keep(new BankAccount("EUR", POUNDS, "")))
                    .isInstanceOf(RefusedException.class);
            assertThatThrownBy(() -> accounts.keep(new BankAccount("POUND", "", "")))
                    .isInstanceOf(RefusedException.class);
            server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
            Caller caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
            String typed = "{\"currency\":\"GBP\",\"iban\":\"" + POUNDS + "\",\"bic\":\"\"}";
            assertThat(caller.send("PUT", "/api/business/accounts", typed).statusCode())
                    .isIn(403, 422);
            assertThat(accounts.all()).isEmpty();
            caller.post("/api/session/proof", "{\"passphrase\":\"" + PASSPHRASE + "\"}");
            assertThat(caller.send("PUT", "/api/business/accounts", typed).statusCode())
                    .isEqualTo(200);
            assertThat(accounts.all()).hasSize(1);
        }
    }
}
