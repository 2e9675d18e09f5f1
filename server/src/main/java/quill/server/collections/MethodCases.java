package quill.server.collections;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.letter.LetterKind;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.dispatch.LetterCases;
import quill.server.dispatch.MethodLetters;

/** Clients who are asked for a card or mandate, to look at that letter with. */
@Component
class MethodCases implements LetterCases {
    private final MethodRequestRepository repository;
    private final MethodRequests requests;
    private final ClientsService clients;
    private final MethodLetters letters;

    MethodCases(
            MethodRequestRepository repository,
            MethodRequests requests,
            ClientsService clients,
            MethodLetters letters) {
        this.repository = repository;
        this.requests = requests;
        this.clients = clients;
        this.letters = letters;
    }

    @Override
    public boolean writes(LetterKind kind) {
        return kind == LetterKind.ASK_TO_KEEP;
    }

    @Override
    public List<LetterCase> latest(LetterKind kind, ClientId clientId) {
        return repository.latest(clientId, MOST).stream()
                .map(r -> {
                    Client client = clients.client(r.clientId());
                    return new LetterCase(
                            client.id(),
                            "asked for a card or mandate",
                            () -> letters.facts(client, client.forInvoices().name(), requests.page(r)));
                })
                .toList();
    }
}
