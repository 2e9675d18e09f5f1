package quill.server.collections;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.cardorders.CardOrders;
import quill.server.savedmethods.SavedMethods;

/** What is kept of clients, as the business sees it, asks for it and takes from it. */
@RestController
@RequestMapping("/api")
class SavedMethodsController {
    private final SavedMethods methods;
    private final SavedViews views;
    private final MethodRequests requests;
    private final TakingFromSaved taking;
    private final PlannedPayments planned;

    SavedMethodsController(
            SavedMethods methods,
            SavedViews views,
            MethodRequests requests,
            TakingFromSaved taking,
            PlannedPayments planned) {
        this.methods = methods;
        this.views = views;
        this.requests = requests;
        this.taking = taking;
        this.planned = planned;
    }

    @GetMapping("/saved-methods/setting")
    SavedMethods.SavedSetting setting() {
        return methods.setting();
    }

    @PutMapping("/saved-methods/setting")
    SavedMethods.SavedSetting change(@RequestBody SavedMethods.SavedSetting typed) {
        return methods.change(typed);
    }

    @GetMapping("/clients/{id}/saved-methods")
    SavedViews.SavedOfClient ofClient(@PathVariable ClientId id) {
        return views.ofClient(id);
    }

    @DeleteMapping("/clients/{id}/saved-methods/{method}")
    SavedViews.SavedOfClient remove(@PathVariable ClientId id, @PathVariable long method) {
        methods.remove(id, method);
        return views.ofClient(id);
    }

    /** @param sent whether a letter goes: a client without an address is shown the page otherwise */
    record AskedToKeep(boolean sent, SavedViews.SavedOfClient saved) {}

    @PostMapping("/clients/{id}/method-requests")
    AskedToKeep ask(@PathVariable ClientId id) {
        boolean sent = requests.ask(id);
        return new AskedToKeep(sent, views.ofClient(id));
    }

    @DeleteMapping("/clients/{id}/method-requests/{request}")
    SavedViews.SavedOfClient withdraw(@PathVariable ClientId id, @PathVariable long request) {
        requests.withdraw(id, request);
        return views.ofClient(id);
    }

    /**
     * What is to be taken.
     *
     * @param installments all that is open where there are none
     * @param amount the sum that the person saw
     */
    record CollectFromSaved(
            long method, @Schema(nullable = true) List<Long> installments, String amount) {}

    /** What came of it. */
    record TakenFromSaved(CardOrders.Taken came) {}

    @PostMapping("/documents/{id}/saved-collections")
    TakenFromSaved collect(@PathVariable DocumentId id, @RequestBody CollectFromSaved c) {
        return new TakenFromSaved(taking.collect(id, c.installments(), c.amount(), c.method()));
    }

    @DeleteMapping("/documents/{id}/planned-payments/{planned}")
    void takeBack(@PathVariable DocumentId id, @PathVariable("planned") long plannedId) {
        planned.takeBack(id, plannedId);
    }

    /** A person has seen that a planned payment failed. */
    @PostMapping("/planned-payments/{id}/seen")
    void seen(@PathVariable long id) {
        planned.seen(id);
    }
}
