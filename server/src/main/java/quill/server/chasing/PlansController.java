package quill.server.chasing;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.reminder.ReminderPlan.TypedStep;

/** Reminder plans under names, and which of them holds where. */
@RestController
@RequestMapping("/api")
class PlansController {
    private final NamedPlans named;
    private final PlanPictures pictures;

    PlansController(NamedPlans named, PlanPictures pictures) {
        this.named = named;
        this.pictures = pictures;
    }

    /** @param version 0 for a new one */
    record KeepNamedPlan(String name, List<TypedStep> steps, int version) {}

    @GetMapping("/reminder-plans")
    List<NamedPlans.NamedPlan> all() {
        return named.all();
    }

    @PostMapping("/reminder-plans")
    NamedPlans.NamedPlan make(@RequestBody KeepNamedPlan plan) {
        return named.make(plan.name(), plan.steps());
    }

    @PutMapping("/reminder-plans/{id}")
    NamedPlans.NamedPlan change(@PathVariable long id, @RequestBody KeepNamedPlan plan) {
        return named.change(id, plan.name(), plan.steps(), plan.version());
    }

    @DeleteMapping("/reminder-plans/{id}")
    void delete(@PathVariable long id, @RequestParam int version) {
        named.delete(id, version);
    }

    @GetMapping("/clients/{id}/reminder-plan")
    PlanChoice ofClient(@PathVariable ClientId id) {
        return named.ofClient(id);
    }

    @PutMapping("/clients/{id}/reminder-plan")
    PlanChoice chooseForClient(@PathVariable ClientId id, @RequestBody PlanChoice choice) {
        named.chooseForClient(id, choice);
        return named.ofClient(id);
    }

    @GetMapping("/invoices/{id}/reminder-plan")
    PlanPictures.PlanPicture ofInvoice(@PathVariable DocumentId id) {
        return pictures.of(id);
    }

    @PutMapping("/invoices/{id}/reminder-plan")
    PlanPictures.PlanPicture chooseForInvoice(@PathVariable DocumentId id, @RequestBody PlanChoice choice) {
        named.chooseForDocument(id, choice);
        return pictures.of(id);
    }
}
