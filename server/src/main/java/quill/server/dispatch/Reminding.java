package quill.server.dispatch;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.id.DocumentId;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Changes;
import quill.server.common.Json;
import quill.server.common.Shown;

/** Writes reminders and queues them, by the plan or by hand. */
@Service
public class Reminding {
    private final MessageQueue queue;
    private final ReminderLetters reminders;
    private final ClientsService clients;
    private final Destinations destinations;
    private final Json json;
    private final Happenings happenings;
    private final Changes changes;
    private final QuillSettings settings;

    Reminding(
            MessageQueue queue,
            ReminderLetters reminders,
            ClientsService clients,
            Destinations destinations,
            Json json,
            Happenings happenings,
            Changes changes,
            QuillSettings settings) {
        this.queue = queue;
        this.reminders = reminders;
        this.clients = clients;
        this.destinations = destinations;
        this.json = json;
        this.happenings = happenings;
        this.changes = changes;
        this.settings = settings;
    }

    /**
     * Queues a reminder of the plan, which leaves at once, within the transaction that notes its steps as used up.
     *
     * @return whether it was queued: false where a letter has this key already
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean remind(ActKey key, Act.Reminder act) {
        return remind(key, act, Slip.of(act.step()), null, 0);
    }

    /**
     * The same as a person wants it, to be called back for a while.
     *
     * @param keptBackAct the act's key where it had been kept back before, else null
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean remindByHand(ActKey key, Act.Reminder act, Slip slip, ActKey keptBackAct) {
        return remind(key, act, Slip.checked(slip), keptBackAct, settings.callBackSeconds());
    }

    private boolean remind(ActKey key, Act.Reminder act, Slip slip, ActKey keptBackAct, int hold) {
        Client client = clients.client(act.client());
        if (slip.leavesAt() != null) {
            throw new RefusedException("slip.at", slip.at(), "a reminder goes now, or on its own day");
        }
        String to = destinations.of(client, client.forReminders(), slip);
        slip.check(() -> reminders.write(act, client, slip.plain()).written());
        ReminderLetters.Made made = reminders.write(act, client, slip);
        Set<DocumentId> about =
                act.asked().stream().map(i -> i.debt().document()).collect(Collectors.toCollection(LinkedHashSet::new));
        MessageDraft draft = MessageDraft.of(
                        key.toString(),
                        MessageKind.REMINDER,
                        client.id(),
                        act.main().document(),
                        to,
                        made.written())
                .about(about)
                .with(slip.papers(List.of(Enclosed.reminder(made.letter().writtenOn()))))
                .copiedTo(slip.others())
                .reminding(json.write(made.letter()))
                .held(hold, keptBackAct == null ? null : keptBackAct.toString());
        boolean queued = queue.add(slip.isText() ? draft.byText() : draft, slip);
        if (queued) {
            destinations.keep(client, slip, to);
            String what = "Reminder written (" + act.step().tone().words() + ", step "
                    + act.step().words() + "): "
                    + act.sums().stream().map(Shown::money).collect(Collectors.joining(" and "));
            long id = queue.idOf(key.toString());
            queue.asks(id, act.asked(), act.step().tone());
            Happenings.About itself = Happenings.About.letter(id);
            about.forEach(invoice -> happenings.note(invoice, client.id(), what, itself));
            about.forEach(invoice -> changes.letter(invoice, client.id()));
        }
        return queued;
    }
}
