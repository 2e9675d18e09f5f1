package quill.server.clearing;

import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.processor.CardProcessor;
import quill.server.processor.Processors;

/** Our answers to what payers contest: kept first, then told to the processor until it has answered. */
@Service
public class Disputes {
    private static final Logger LOG = LoggerFactory.getLogger(Disputes.class);
    private static final int LONGEST = 20_000;
    private final DisputeRepository repository;
    private final Processors processors;
    private final Happenings happenings;
    private final Changes changes;
    private final TransactionTemplate transaction;
    private final BusinessClock clock;

    Disputes(
            DisputeRepository repository,
            Processors processors,
            Happenings happenings,
            Changes changes,
            TransactionTemplate transaction,
            BusinessClock clock) {
        this.repository = repository;
        this.processors = processors;
        this.happenings = happenings;
        this.changes = changes;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** The one about a payment, decided or not. */
    public Optional<Dispute> ofPayment(long paymentId) {
        return repository.ofPayment(paymentId);
    }

    /** Those that wait for an answer, whichever must be answered first at the top. */
    public List<Dispute> open() {
        return repository.in(Dispute.State.OPEN);
    }

    /** @throws NotFoundException where there is none */
    public Dispute find(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no dispute " + id + "."));
    }

    /**
     * Answers one.
     *
     * @param evidence all that speaks for the business, as it is to be read by the payer's bank
     * @param before the answer that this one takes the place of; null for none
     * @throws RefusedException naming {@code evidence}
     * @throws ConflictException where it is decided, was answered otherwise meanwhile, or its last day has passed
     */
    public Dispute answer(long id, String evidence, String before) {
        String text = evidence == null ? "" : Texts.printable(evidence).strip();
        if (text.isEmpty() || text.length() > LONGEST) {
            throw new RefusedException(
                    "evidence",
                    text.isEmpty() ? "" : text.length() + " characters",
                    "say what speaks for you, in at most 20,000 characters");
        }
        Dispute d = find(id);
        if (clock.today().isAfter(d.days().answerBy())) {
            throw new ConflictException(
                    "It had to be answered by " + Texts.day(d.days().answerBy()) + ".");
        }
        transaction.executeWithoutResult(s -> {
            if (repository.sending(id, before, text, clock.today()) != 1) {
                throw new ConflictException(
                        "It is decided, or was answered meanwhile. Nothing was sent; look at what stands there now.");
            }
            happenings.tell(
                    d.documentId(),
                    d.clientId(),
                    "Contested payment answered",
                    Happenings.About.payment(d.paymentId()));
            changes.say(d.documentId(), d.clientId());
        });
        send(find(id));
        return find(id);
    }

    /** Sends what could not be sent before. */
    void sendAll(BooleanSupplier stop) {
        for (Dispute d : repository.in(Dispute.State.SENDING)) {
            if (stop.getAsBoolean()) {
                return;
            }
            try {
                send(d);
            } catch (ConflictException e) {
                LOG.debug("dispute {} is open again", d.id(), e);
            }
        }
    }

    private void send(Dispute d) {
        try {
            processors.connect(d.at().processor(), false).answer(d.at().contest(), d.evidence());
            transaction.executeWithoutResult(s -> repository.sent(d.id(), Dispute.State.ANSWERED));
        } catch (CardProcessor.Refused e) {
            LOG.warn("dispute {} could not be answered: {}", d.id(), e.getMessage());
            transaction.executeWithoutResult(s -> repository.sent(d.id(), Dispute.State.OPEN));
            throw new ConflictException("The card processor does not take the answer: " + e.getMessage() + ".");
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the answer to dispute {} is not sent yet", d.id(), e);
        }
    }
}
