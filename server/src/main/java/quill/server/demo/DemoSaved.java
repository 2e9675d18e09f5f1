package quill.server.demo;

import org.springframework.stereotype.Component;
import quill.server.cardorders.HowPaid;
import quill.server.clients.ClientsService;
import quill.server.collections.MethodRequests;
import quill.server.collections.SavedViews;
import quill.server.documents.Document;
import quill.server.savedmethods.SavedMethods;

/** Cards that are kept in the demo, and one that is asked for. */
@Component
class DemoSaved {
    private final SavedMethods methods;
    private final SavedViews views;
    private final MethodRequests requests;
    private final ClientsService clients;

    DemoSaved(SavedMethods methods, SavedViews views, MethodRequests requests, ClientsService clients) {
        this.methods = methods;
        this.views = views;
        this.requests = requests;
        this.clients = clients;
    }

    /** As the owner. @param client who is asked; null to have cards kept from now on */
    void play(String client) {
        if (client == null) {
            methods.change(new SavedMethods.SavedSetting(true, 14, 0));
            return;
        }
        requests.ask(clients.all().stream()
                .filter(c -> c.name().equals(client))
                .findFirst()
                .orElseThrow()
                .id());
    }

    /** As a client who lets the card be kept, and the business take up to 1,000 at a time. */
    HowPaid keeping(Document invoice) {
        return views.onPage(invoice, new SavedViews.TypedKeep(true, "1000.00"), false);
    }
}
