package quill.standins.countinghouse;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.server.ResponseStatusException;
import quill.standins.StandinsSettings;
import quill.standins.countinghouse.Keepings.Keeping;

/** Kept cards and accounts, as a business may ask for them and forget them. */
@RestController
@RequestMapping("/api")
class MethodApi {
    private final Keepings keepings;
    private final KeptMethods methods;
    private final StandinsSettings settings;

    MethodApi(Keepings keepings, KeptMethods methods, StandinsSettings settings) {
        this.keepings = keepings;
        this.methods = methods;
        this.settings = settings;
    }

    /** @param takes card, debit or both */
    record AskedToKeep(String description, String returnTo, List<String> takes) {}

    /** What was kept. @param method its token @param expiry month and year; null for a bank account */
    record Kept(String method, String way, String name, String lastFour, String expiry) {
        static Kept of(KeptMethod m) {
            return new Kept(m.id(), m.way(), OrderApi.nameOf(m.way()), m.lastFour(), m.expiry());
        }
    }

    /** @param state open, kept or withdrawn @param kept null before that */
    record KeepingAnswer(String id, String state, String keepAt, Kept kept) {}

    @PostMapping("/keepings")
    KeepingAnswer open(
            @RequestHeader("Authorization") String authorization,
            @RequestHeader("Idempotency-Key") String key,
            @RequestBody AskedToKeep asked) {
        settings.check(authorization);
        OrderApi.checkTexts(asked.description(), asked.returnTo());
        List<String> takes = asked.takes() == null ? List.of("card") : asked.takes();
        OrderApi.checkTakes(takes);
        if (takes.stream().anyMatch(t -> Wallet.of(t).isPresent())) {
            throw Calls.refused("of a wallet nothing can be kept");
        }
        return answer(keepings.open(key, asked.description(), asked.returnTo(), takes));
    }

    @GetMapping("/keepings/{id}")
    KeepingAnswer ask(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        return answer(find(id));
    }

    @PostMapping("/keepings/{id}/withdrawal")
    KeepingAnswer withdraw(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        find(id);
        keepings.withdraw(id);
        return answer(find(id));
    }

    /** Forgets a kept card or account. */
    @DeleteMapping("/methods/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        methods.find(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        methods.remove(id);
    }

    private Keeping find(String id) {
        return keepings.find(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    }

    private KeepingAnswer answer(Keeping k) {
        return new KeepingAnswer(
                k.id(),
                k.state(),
                settings.publicUrl() + "/keep/" + k.id(),
                k.keptAs() == null
                        ? null
                        : methods.find(k.keptAs()).map(Kept::of).orElseThrow());
    }
}
