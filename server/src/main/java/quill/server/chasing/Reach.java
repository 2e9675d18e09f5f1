package quill.server.chasing;

import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.id.ClientId;
import quill.core.letter.Channel;
import quill.server.QuillSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.dispatch.Correspondence;

/** By which ways a client can be reminded, and what stands in the way of each other. */
@Component
class Reach {
    private final ClientsService clients;
    private final Correspondence correspondence;
    private final QuillSettings settings;

    Reach(ClientsService clients, Correspondence correspondence, QuillSettings settings) {
        this.clients = clients;
        this.correspondence = correspondence;
        this.settings = settings;
    }

    /** What stands in the way, by way; a way that is not in it is open. */
    Map<ClientId, Map<Channel, Act.Stop>> of(Collection<ClientId> ids) {
        Set<String> bouncing = correspondence.bouncing();
        Map<ClientId, Map<Channel, Act.Stop>> all = new HashMap<>();
        clients.some(ids).forEach((id, client) -> all.put(id, of(client.forReminders(), bouncing)));
        return all;
    }

    private Map<Channel, Act.Stop> of(Client.Recipient recipient, Set<String> bouncing) {
        Map<Channel, Act.Stop> stops = new EnumMap<>(Channel.class);
        if (recipient.email().isEmpty()) {
            stops.put(Channel.MAIL, Act.Stop.NO_ADDRESS);
        } else if (bouncing.contains(recipient.email().toLowerCase(Locale.ROOT))) {
            stops.put(Channel.MAIL, Act.Stop.CAME_BACK);
        }
        if (!settings.texts().isSet()) {
            stops.put(Channel.TEXT, Act.Stop.NO_GATEWAY);
        } else if (recipient.phone().isBlank()) {
            stops.put(Channel.TEXT, Act.Stop.NO_NUMBER);
        }
        return stops;
    }
}
