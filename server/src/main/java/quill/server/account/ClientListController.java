package quill.server.account;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.ledger.Standing;
import quill.server.account.ClientList.Owing;
import quill.server.account.ClientList.Shown;
import quill.server.clients.Client;
import quill.server.clients.ClientTable;
import quill.server.clients.ClientsService;
import quill.server.clients.VCards;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Csv;
import quill.server.common.Downloads;
import quill.server.common.Held;
import quill.server.common.OneSnapshot;

/** Clients with what they owe: found, archived, merged, and as tables and cards. */
@RestController
@RequestMapping("/api/clients")
class ClientListController {
    private static final int PAGE = 60;
    private final ClientsService clients;
    private final ClientList list;
    private final ClientStanding standing;
    private final BusinessClock clock;
    private final Held held;

    ClientListController(
            ClientsService clients, ClientList list, ClientStanding standing, BusinessClock clock, Held held) {
        this.clients = clients;
        this.list = list;
        this.standing = standing;
        this.clock = clock;
        this.held = held;
    }

    /** A client in the index. @param late what of it is past its due date */
    record ClientRow(
            ClientId id,
            String name,
            String email,
            Amount owes,
            Amount late,
            List<Amount> inOthers,
            @Schema(nullable = true) LocalDate nextDueOn,
            long daysLate,
            List<String> tags) {
        static ClientRow of(Owing o, LocalDate today) {
            return new ClientRow(
                    o.client().id(),
                    o.client().name(),
                    o.client().email(),
                    Amount.of(o.owes()),
                    Amount.of(o.late()),
                    o.inOthers().stream().map(Amount::of).toList(),
                    o.nextDueOn(),
                    o.late().isPositive() ? Standing.daysLate(o.nextDueOn(), today) : 0,
                    o.client().more().tags());
        }
    }

    /** @param count of all that fit the filter @param more what to ask for the next page with, or null */
    record ClientPage(
            List<ClientRow> rows,
            int count,
            @Schema(nullable = true) ClientId more) {}

    private record ClientsOf(Shown shown, LocalDate on) {}

    record ArchivedClient(int version, boolean archived) {}

    /** @param version of the one that is merged into the other */
    record MergedClient(int version, ClientId into) {}

    /**
     * A page of clients.
     *
     * @param sort late (those who are latest first), name, or owes
     * @param after id of the last client of the page before
     */
    @GetMapping
    ClientPage list(
            @RequestParam(required = false) String filter,
            @RequestParam(defaultValue = "late") String sort,
            @RequestParam(defaultValue = "false") boolean archived,
            @RequestParam(required = false) ClientId after) {
        LocalDate today = clock.today();
        Shown shown = new Shown(filter, sort, archived);
        List<Owing> all = held.of(new ClientsOf(shown, today), () -> list.shown(shown));
        int from = 0;
        for (int i = 0; after != null && i < all.size(); i++) {
            from = all.get(i).client().id().equals(after) ? i + 1 : from;
        }
        int to = Math.min(all.size(), from + PAGE);
        List<ClientRow> page =
                all.subList(from, to).stream().map(o -> ClientRow.of(o, today)).toList();
        return new ClientPage(
                page, all.size(), to < all.size() ? page.get(page.size() - 1).id() : null);
    }

    @PutMapping("/{id}/archived")
    void archive(@PathVariable ClientId id, @RequestBody ArchivedClient kept) {
        standing.archive(id, kept.version(), kept.archived());
    }

    /** Makes this record a part of another one of the same client. */
    @PostMapping("/{id}/merging")
    Client merge(@PathVariable ClientId id, @RequestBody MergedClient merged) {
        return standing.merge(id, merged.version(), merged.into());
    }

    /** Exactly the clients that a list shows, with what they owe. */
    @GetMapping("/list.csv")
    @OneSnapshot
    ResponseEntity<byte[]> csv(
            @RequestParam(required = false) String filter,
            @RequestParam(defaultValue = "late") String sort,
            @RequestParam(defaultValue = "false") boolean archived) {
        return Csv.file("clients.csv", list.table(new Shown(filter, sort, archived), new ClientTable(clients)));
    }

    /** The same clients as cards (RFC 6350). */
    @GetMapping("/list.vcf")
    @OneSnapshot
    ResponseEntity<byte[]> cards(
            @RequestParam(required = false) String filter,
            @RequestParam(defaultValue = "late") String sort,
            @RequestParam(defaultValue = "false") boolean archived) {
        List<Client> shown = list.shown(new Shown(filter, sort, archived)).stream()
                .map(Owing::client)
                .toList();
        return Downloads.file(VCards.write(shown), "text/vcard", "clients.vcf");
    }
}
