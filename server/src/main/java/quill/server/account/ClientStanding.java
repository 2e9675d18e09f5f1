package quill.server.account;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.debts.Debts;
import quill.server.debts.Settling;
import quill.server.invoices.InvoiceIndex;

/** Where clients leave the list: archived with nothing open, or merged into another with all that they hold. */
@Service
class ClientStanding {
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final Settling settling;
    private final InvoiceIndex invoices;
    private final BusinessService business;
    private final Changes changes;

    ClientStanding(
            ClientsService clients,
            BooksService books,
            Debts debts,
            Settling settling,
            InvoiceIndex invoices,
            BusinessService business,
            Changes changes) {
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.settling = settling;
        this.invoices = invoices;
        this.business = business;
        this.changes = changes;
    }

    /** @throws ConflictException where money is open either way, or a draft waits: it would be out of sight */
    @Transactional
    void archive(ClientId id, int version, boolean archived) {
        clients.lock(id);
        boolean open = currencies(id).stream()
                .anyMatch(c -> !debts.open(id, c).isEmpty()
                        || !books.balanceOf(id, c).isZero()
                        || books.creditOf(id, c).isPositive()
                        || books.depositsOf(id, c).isPositive());
        if (archived && open) {
            throw new ConflictException(
                    "Something is still open for this client, or held for it. Settle that first, so that it stays in sight.");
        }
        if (archived && invoices.ofClient(id).stream().anyMatch(i -> i.number() == null)) {
            throw new ConflictException("A draft for this client waits. Issue or delete it first.");
        }
        clients.archive(id, version, archived);
    }

    /** Makes two records of one client into one; credit of either settles what is open of the other. */
    @Transactional
    Client merge(ClientId from, int fromVersion, ClientId into) {
        Client merged = clients.merge(from, fromVersion, into);
        currencies(into).forEach(c -> settling.useCredit(into, c));
        invoices.ofClient(into).forEach(i -> changes.touch(Findable.INVOICE, i.id().value()));
        return merged;
    }

    private List<CurrencyUnit> currencies(ClientId client) {
        List<CurrencyUnit> all = new ArrayList<>(books.otherCurrenciesOf(client));
        all.add(business.business().currencyUnit());
        return all;
    }
}
