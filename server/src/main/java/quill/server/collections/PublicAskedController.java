package quill.server.collections;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.savedmethods.Agreed;
import quill.server.savedmethods.SavedMethods;

/** The page by which a client is asked for a card or mandate, reached by an unguessable address. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicAskedController {
    private final SavedViews views;
    private final SavedMethods methods;
    private final MethodRequests requests;
    private final Keeping keeping;
    private final ClientsService clients;

    PublicAskedController(
            SavedViews views, SavedMethods methods, MethodRequests requests, Keeping keeping, ClientsService clients) {
        this.views = views;
        this.methods = methods;
        this.requests = requests;
        this.keeping = keeping;
        this.clients = clients;
    }

    @GetMapping("/asked")
    SavedViews.AskedPage asked(@PathVariable String token) {
        return page(requests.byToken(token));
    }

    private SavedViews.AskedPage page(MethodRequest r) {
        return views.page(r, clients.client(r.clientId()).name());
    }

    record KeepAt(String address) {}

    /** The client is about to give a card or an account. */
    @PostMapping("/asked/keeping")
    KeepAt begin(@PathVariable String token, @RequestBody SavedViews.TypedKeep typed) {
        SavedViews.AskedPage page = asked(token);
        List<Problem> problems = new ArrayList<>();
        Agreed agreed = views.ticked(typed, CurrencyUnit.of(page.currency()), problems)
                .orElseThrow(() -> new RefusedException(problems));
        return new KeepAt(keeping.begin(token, agreed));
    }

    /** What was given is kept no more. */
    @DeleteMapping("/asked/given")
    SavedViews.AskedPage removeGiven(@PathVariable String token) {
        MethodRequest r = requests.byToken(token);
        if (r.given() != null) {
            Happenings.asClient(clients.client(r.clientId()).name(), () -> methods.remove(r.clientId(), r.given()));
        }
        return page(r);
    }

    /** The client is back: the processor is asked at once. */
    @PostMapping("/asked/back")
    SavedViews.AskedPage back(@PathVariable String token) {
        return page(keeping.back(token));
    }
}
