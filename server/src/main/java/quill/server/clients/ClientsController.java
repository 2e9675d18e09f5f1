package quill.server.clients;

import java.io.IOException;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import quill.core.id.ClientId;
import quill.core.money.DecimalMark;
import quill.server.business.BusinessService;
import quill.server.common.Downloads;
import quill.server.tables.TableImport;

/** Clients: chosen, made, changed, deleted, taken in from tables and cards, and given out as a card. */
@RestController
@RequestMapping("/api/clients")
class ClientsController {
    private static final int MOST_CHOICES = 500;
    private final ClientsService clients;
    private final TableImport tables;
    private final BusinessService business;

    ClientsController(ClientsService clients, TableImport tables, BusinessService business) {
        this.clients = clients;
        this.tables = tables;
        this.business = business;
    }

    /** A client to choose. */
    record ClientChoice(ClientId id, String name) {}

    /** Clients to choose from, by name: those that have what was typed in any part of what is known of them. */
    @GetMapping("/choices")
    List<ClientChoice> choices(@RequestParam(required = false) String filter) {
        return clients.named(filter).stream()
                .limit(MOST_CHOICES)
                .map(c -> new ClientChoice(c.id(), c.name()))
                .toList();
    }

    @PostMapping
    Client make(@RequestBody Client client) {
        return clients.make(client);
    }

    @PutMapping("/{id}")
    Client change(@PathVariable ClientId id, @RequestBody Client c) {
        return clients.change(c.withId(id));
    }

    @DeleteMapping("/{id}")
    void delete(@PathVariable ClientId id, @RequestParam int version) {
        clients.delete(id, version);
    }

    /** One client as a card. */
    @GetMapping("/{id}/card.vcf")
    ResponseEntity<byte[]> card(@PathVariable ClientId id) {
        Client client = clients.client(id);
        return Downloads.file(VCards.write(List.of(client)), "text/vcard", Downloads.plain(client.name()) + ".vcf");
    }

    /** Shows what a table or cards of clients would do, or does it. */
    @PostMapping(path = "/table", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    TableImport.TablePlan clientTable(@RequestPart("file") MultipartFile file, @RequestPart("how") TableImport.How how)
            throws IOException {
        return tables.read(
                VCards.asTable(file.getBytes()), how, () -> new ClientTable(clients), DecimalMark.of(business.mark()));
    }
}
