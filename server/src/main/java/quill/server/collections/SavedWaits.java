package quill.server.collections;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;

/** What of saved methods and planned payments waits for a person. */
@Service
@Transactional(readOnly = true)
public class SavedWaits {
    private final SavedMethods methods;
    private final PlannedPayments planned;
    private final ClientsService clients;
    private final BusinessClock clock;

    SavedWaits(SavedMethods methods, PlannedPayments planned, ClientsService clients, BusinessClock clock) {
        this.methods = methods;
        this.planned = planned;
        this.clients = clients;
        this.clock = clock;
    }

    /** One thing. @param kind card-ends (by the method's id) or planned (by the planned payment's) @param documentId null for a card */
    public record Wait(String kind, long id, ClientId clientId, DocumentId documentId, String title, String text) {}

    /** All of it. */
    public List<Wait> all() {
        List<Wait> waits = new ArrayList<>();
        for (PlannedPayment p : planned.all(PlannedPayment.State.FAILED)) {
            waits.add(new Wait(
                    "planned",
                    p.id(),
                    p.clientId(),
                    p.documentId(),
                    "Planned, and not taken: " + Shown.money(p.amount()) + ", "
                            + clients.client(p.clientId()).name(),
                    "It was to be taken on " + Texts.day(p.on()) + ": " + p.why()
                            + ". They were told; what it was for is open."));
        }
        LocalDate today = clock.today();
        for (SavedMethod m : methods.ending()) {
            boolean another = methods.ofClient(m.clientId()).stream()
                    .anyMatch(o ->
                            o.with().expires() == null || !o.with().expires().isNear(today));
            if (!another) {
                waits.add(new Wait(
                        "card-ends",
                        m.id(),
                        m.clientId(),
                        null,
                        "A saved card " + (m.isUsable(today) ? "ends soon: " : "has ended: ")
                                + clients.client(m.clientId()).name(),
                        m.with().words() + " is valid until "
                                + Texts.day(m.with().expires().lastDay())
                                + ", and nothing else is kept of them. Ask for another one, or remove it."));
            }
        }
        return waits;
    }
}
