package quill.server.latefees;

import io.swagger.v3.oas.annotations.media.Schema;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.server.clients.ClientsService;
import quill.server.common.TypedMark;

/** The business's late-fee policy, and what a person decides about a fee that was charged. */
@RestController
@RequestMapping("/api")
class LateFeesController {
    private final FeePolicies policies;
    private final LateFees fees;
    private final ClientsService clients;

    LateFeesController(FeePolicies policies, LateFees fees, ClientsService clients) {
        this.policies = policies;
        this.fees = fees;
        this.clients = clients;
    }

    record Waive(String reason) {}

    /** @param lateFee null where the business's policy holds */
    record OwnPolicy(@Schema(nullable = true) TypedLateFeePolicy lateFee) {}

    @GetMapping("/late-fees")
    FeePolicies.FeeSetting lateFees() {
        return policies.setting();
    }

    @PutMapping("/late-fees")
    FeePolicies.FeeSetting changeLateFees(@RequestBody FeePolicies.FeeSetting setting) {
        return policies.change(setting.plain(TypedMark.current()));
    }

    @PostMapping("/late-fees/{id}/waiving")
    void waive(@PathVariable long id, @RequestBody Waive waive) {
        fees.waive(id, waive.reason());
    }

    @PostMapping("/late-fees/{id}/standing")
    void letStand(@PathVariable long id) {
        fees.letStand(id);
    }

    /** The policy of one client. */
    @PutMapping("/clients/{id}/late-fees")
    void ownPolicy(@PathVariable ClientId id, @RequestBody OwnPolicy own) {
        clients.client(id);
        policies.setForClient(id, own.lateFee() == null ? null : own.lateFee().plain(TypedMark.current()));
    }
}
