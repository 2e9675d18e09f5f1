package quill.server.moneyin;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.pay.PayingLater;
import quill.server.clients.ClientsService;
import quill.server.collections.PlannedPayment;
import quill.server.collections.PlannedPayments;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.Documents;

/** What is planned for a day, as a record of what comes in. */
@Service
@Transactional(readOnly = true)
class PlannedRecords {
    private final PlannedPayments planned;
    private final ClientsService clients;
    private final Documents documents;
    private final Debts debts;
    private final BusinessClock clock;

    PlannedRecords(
            PlannedPayments planned, ClientsService clients, Documents documents, Debts debts, BusinessClock clock) {
        this.planned = planned;
        this.clients = clients;
        this.documents = documents;
        this.debts = debts;
        this.clock = clock;
    }

    /** One. @throws ConflictException where it is planned no more */
    MoneyRecord of(long id) {
        PlannedPayment p = planned.find(id);
        if (p.state() != PlannedPayment.State.PLANNED) {
            throw new ConflictException(
                    p.state() == PlannedPayment.State.TAKEN
                            ? "It was taken: look for it among what came in."
                            : "It is planned no more: " + p.why() + ".");
        }
        String number = documents.find(p.documentId()).map(Document::number).orElse("");
        return new MoneyRecord(
                "planned-" + id,
                MoneyRow.State.PLANNED,
                p.clientId(),
                clients.client(p.clientId()).name(),
                Amount.of(p.amount()),
                null,
                "It is taken on " + Texts.day(p.on()) + " from " + planned.from(p)
                        + ", as the client wants it. Until then nobody is reminded of what it is for, and no late fee comes.",
                List.of(),
                MoneyRecord.Settled.toCome(debts.of(p.documentId()), number, p.parts()),
                List.of(),
                List.of(),
                MoneyRecord.After.notCome(
                        "",
                        null,
                        null,
                        null,
                        PayingLater.canBeTakenBack(p.on(), clock.today()) ? p.documentId() : null));
    }
}
