package quill.server.debts;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToLongFunction;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.Lot;
import quill.core.ledger.Settlement;
import quill.core.ledger.Step;
import quill.server.books.BooksService;
import quill.server.common.BusinessClock;

/** Keeps what a ledger decided: the only place that changes what is open, or what is left of client credit. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class LedgerWriter {
    private final DebtRepository debts;
    private final SettlementRepository repository;
    private final BooksService books;
    private final BusinessClock clock;
    private final ApplicationEventPublisher publisher;

    LedgerWriter(
            DebtRepository debts,
            SettlementRepository repository,
            BooksService books,
            BusinessClock clock,
            ApplicationEventPublisher publisher) {
        this.debts = debts;
        this.repository = repository;
        this.books = books;
        this.clock = clock;
        this.publisher = publisher;
    }

    /**
     * Books the entries of a decision and keeps its rows.
     *
     * @param valueOn when the money moved
     * @param own books a step of which the caller knows more than the core, or says which entry it has; every step with
     *     words of its own is booked here
     */
    void keep(ClientId clientId, ClientLedger.Decision decision, LocalDate valueOn, ToLongFunction<Step> own) {
        keepQuietly(clientId, decision, valueOn, own)
                .forEach(id -> publisher.publishEvent(new Debts.DebtsChanged(id, clientId)));
    }

    /** The same, telling nobody: the caller changes more of the same documents. @return what changed */
    Set<DocumentId> keepQuietly(
            ClientId clientId, ClientLedger.Decision decision, LocalDate valueOn, ToLongFunction<Step> own) {
        Map<Long, Long> ids = new HashMap<>();
        Map<Long, Long> left = new TreeMap<>();
        Set<DocumentId> changed = new TreeSet<>();
        for (Step step : decision.steps()) {
            long entry = step.words().isEmpty()
                    ? own.applyAsLong(step)
                    : books.book(step.entry(), step.words(), new BooksService.About(clientId, null, null), null);
            for (Lot lot : step.made()) {
                long from = ids.getOrDefault(lot.from(), lot.from());
                ids.put(lot.id(), repository.insert(clientId, lot, from));
                if (from != 0) {
                    left.merge(from, -lot.left().getAmountMinorLong(), Long::sum);
                }
            }
            var booked = new SettlementRepository.Booked(valueOn, clock.today(), entry);
            for (Settlement s : step.settlements()) {
                long lot = ids.getOrDefault(s.lot(), s.lot());
                repository.insert(s, lot, booked);
                debts.change(s.debt().id(), s.kind().sum(), s.amount(), clock.today());
                left.merge(lot, -s.amount().getAmountMinorLong(), Long::sum);
                changed.add(s.debt().document());
            }
            for (Step.Draw draw : step.draws()) {
                long lot = ids.getOrDefault(draw.lot(), draw.lot());
                repository.insert(draw, lot, entry);
                left.merge(lot, -draw.amount().getAmountMinorLong(), Long::sum);
            }
        }
        left.remove(0L);
        left.forEach((lot, change) -> {
            if (change != 0) {
                repository.left(lot, change);
            }
        });
        return changed;
    }
}
