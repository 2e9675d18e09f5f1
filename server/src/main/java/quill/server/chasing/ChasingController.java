package quill.server.chasing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.server.clients.ClientsService;
import quill.server.dispatch.LetterLook;
import quill.server.dispatch.Slip;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;

/** The reminder plan, and what a person decides about acts to come. */
@RestController
@RequestMapping("/api")
class ChasingController {
    private final ReminderPlans plans;
    private final FeePolicies policies;
    private final LateFees fees;
    private final Decisions decisions;
    private final Chasing chasing;
    private final ClientsService clients;
    private final Muting muting;
    private final ReminderLook look;

    ChasingController(
            ReminderPlans plans,
            FeePolicies policies,
            LateFees fees,
            Decisions decisions,
            Chasing chasing,
            ClientsService clients,
            Muting muting,
            ReminderLook look) {
        this.plans = plans;
        this.policies = policies;
        this.fees = fees;
        this.decisions = decisions;
        this.chasing = chasing;
        this.clients = clients;
        this.muting = muting;
        this.look = look;
    }

    record KeepPlan(TypedPlan plan, int version) {}

    /** An act that a person decides about. */
    record ActKey(String key, ClientId clientId) {}

    record DoNow(
            String key,
            ClientId clientId,
            @Schema(nullable = true) Slip slip) {}

    record LeaveOut(String key, ClientId clientId, String reason) {}

    record Mute(@Schema(nullable = true) String until) {}

    /** @param until the last day of it; null until a person lets it go */
    record KeepAllBack(
            boolean keptBack, @Schema(nullable = true) String until) {}

    /**
     * What holds for one client.
     *
     * @param keptBackUntil the last day on which everything is kept back; null where it has no end, or is not
     * @param lateFee null where the business's policy holds
     */
    record ClientChasingView(
            @Schema(nullable = true) LocalDate mutedUntil,
            boolean keptBack,
            @Schema(nullable = true) LocalDate keptBackUntil,
            @Schema(nullable = true) LocalDate remindedOn,
            @Schema(nullable = true) TypedLateFeePolicy lateFee) {}

    @GetMapping("/reminder-plan")
    ReminderPlans.PlanSetting plan() {
        return plans.setting();
    }

    @PutMapping("/reminder-plan")
    ReminderPlans.PlanSetting changePlan(@RequestBody KeepPlan plan) {
        return plans.change(plan.plan(), plan.version());
    }

    @PostMapping("/acts/keeping-back")
    void keepBack(@RequestBody ActKey act) {
        decisions.keepBack(act.key(), act.clientId());
    }

    @PostMapping("/acts/letting-go")
    void letGo(@RequestBody ActKey act) {
        decisions.letGo(act.key(), act.clientId());
    }

    @PostMapping("/acts/doing-now")
    void doNow(@RequestBody DoNow act) {
        decisions.doNow(act.key(), act.clientId(), act.slip());
    }

    /** The letter that an act would send now. */
    @PostMapping("/acts/letter")
    LetterLook.ShownLetter lookAt(@RequestBody DoNow act) {
        return look.lookAt(act.key(), act.clientId(), act.slip());
    }

    @PostMapping("/acts/letting-be")
    void letItBe(@RequestBody ActKey act) {
        decisions.letItBe(act.key(), act.clientId());
    }

    @PostMapping("/acts/leaving-out")
    void leaveOut(@RequestBody LeaveOut act) {
        decisions.leaveOut(act.key(), act.clientId(), act.reason());
    }

    @PutMapping("/acts/all")
    void keepAllBack(@RequestBody KeepAllBack all) {
        plans.keepAllBack(all.keptBack(), all.until());
    }

    @GetMapping("/clients/{id}/chasing")
    ClientChasingView ofClient(@PathVariable ClientId id) {
        clients.client(id);
        TypedLateFeePolicy own = policies.ofClient(id).orElse(null);
        return chasing.of(id)
                .map(c -> new ClientChasingView(c.mutedUntil(), c.keptBack(), c.keptBackUntil(), c.remindedOn(), own))
                .orElseGet(() -> new ClientChasingView(null, false, null, null, own));
    }

    @PutMapping("/clients/{id}/keeping-back")
    void keepClientBack(@PathVariable ClientId id, @RequestBody KeepAllBack client) {
        muting.keepClientBack(id, client.keptBack(), client.until());
    }

    @PutMapping("/clients/{id}/mute")
    void mute(@PathVariable ClientId id, @RequestBody Mute mute) {
        muting.mute(id, mute.until());
    }

    @PutMapping("/invoices/{id}/mute")
    void muteInvoice(@PathVariable DocumentId id, @RequestBody Mute mute) {
        muting.muteInvoice(id, mute.until());
    }

    /** How an invoice stands with reminders and fees. */
    record InvoiceChasing(@Schema(nullable = true) LocalDate mutedUntil, java.util.List<FeeView> fees) {}

    @GetMapping("/invoices/{id}/chasing")
    InvoiceChasing ofInvoice(@PathVariable DocumentId id) {
        return new InvoiceChasing(
                chasing.mutedUntil(id).orElse(null),
                fees.ofInvoice(id).stream().map(FeeView::of).toList());
    }
}
