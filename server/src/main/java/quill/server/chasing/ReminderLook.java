package quill.server.chasing;

import org.springframework.stereotype.Service;
import quill.core.RefusedException;
import quill.core.acts.ActKey;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.dispatch.LetterLook;
import quill.server.dispatch.Slip;

/** Shows a reminder before it goes. */
@Service
public class ReminderLook {
    private final Decisions decisions;
    private final LetterLook look;
    private final ClientsService clients;
    private final BusinessClock clock;

    ReminderLook(Decisions decisions, LetterLook look, ClientsService clients, BusinessClock clock) {
        this.decisions = decisions;
        this.look = look;
        this.clients = clients;
        this.clock = clock;
    }

    /** The letter that an act would send now. @throws RefusedException where it is no reminder */
    public LetterLook.ShownLetter lookAt(String key, ClientId clientId, Slip slip) {
        if (ActKey.read(key).filter(k -> k.kind() == ActKind.REMINDER).isEmpty()) {
            throw new RefusedException("key", key, "must be that of a reminder to come");
        }
        return look.at(clients.client(clientId).forReminders(), slip, s -> {
            decisions.doNow(key, clientId, s);
            return ActKey.reminder(clientId, clock.today()).toString();
        });
    }
}
