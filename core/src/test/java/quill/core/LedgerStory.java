package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.DepositsBack;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Posting;
import quill.core.ledger.Receipt;
import quill.core.ledger.Settlement;
import quill.core.ledger.Source;
import quill.core.ledger.Step;
import quill.core.ledger.TakingBack;

/** What may happen to what one client owes in one currency, told at random, and kept as rows and as plain numbers. */
final class LedgerStory extends LedgerTelling {
    private static final int EVENTS = 45;
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);

    /** What happens. */
    enum Event {
        ISSUED,
        RECEIVED,
        RECEIVED_FOR,
        HELD,
        HELD_UNDONE,
        UNDONE,
        CHARGED_BACK,
        WON_BACK,
        REFUNDED,
        REFUNDED_OPENING,
        WAIVED,
        CREDITED,
        TAKEN_BACK,
        MOVED,
        WRITTEN_OFF,
        RESERVED
    }

    private final Set<Event> seen;
    private final Map<Long, Long> held = new LinkedHashMap<>();
    private final Map<Long, Long> givenAsCredit = new LinkedHashMap<>();
    private final LedgerMoneyBack back;

    LedgerStory(CurrencyUnit currency, Random random, Set<Event> seen) {
        super(new LedgerTelling.LedgerBeside(currency, random));
        this.seen = seen;
        this.back = new LedgerMoneyBack(this);
    }

    void tell() {
        for (int i = 0; i < EVENTS; i++) {
            kept.rate = BigDecimal.valueOf(5_000 + random.nextInt(10_000), 4);
            Event event = Event.values()[random.nextInt(Event.values().length)];
            if (happens(random.nextInt(3) == 0 ? Event.ISSUED : event)) {
                seen.add(event);
            }
            keep(kept.ledger().cover());
            model.cover();
            kept.mustAgree();
            model.open.forEach((debt, open) ->
                    assertThat(kept.open(debt)).as("open of %s", debt).isEqualTo(open));
            for (int lot = 0; lot < model.pools.size(); lot++) {
                assertThat(kept.left(lot + 1L)).as("left of lot %s", lot + 1).isEqualTo(model.pools.get(lot).left);
            }
        }
    }

    private boolean happens(Event event) {
        switch (event) {
            case ISSUED -> issued();
            case RECEIVED, RECEIVED_FOR -> received(event == Event.RECEIVED_FOR);
            case HELD -> hold();
            case HELD_UNDONE -> {
                return holdUndone();
            }
            case UNDONE, CHARGED_BACK -> {
                return back.takenBack(event == Event.CHARGED_BACK);
            }
            case WON_BACK -> {
                return back.wonBack();
            }
            case REFUNDED, REFUNDED_OPENING -> {
                return back.refunded(event == Event.REFUNDED_OPENING);
            }
            case WAIVED -> {
                return waived();
            }
            case CREDITED, TAKEN_BACK -> {
                return credited(event == Event.TAKEN_BACK);
            }
            case MOVED -> {
                return moved();
            }
            case WRITTEN_OFF -> {
                return writtenOff();
            }
            case RESERVED -> {
                return reserved();
            }
            default -> throw new IllegalStateException(event.name());
        }
        return true;
    }

    private void issued() {
        long id = next();
        Money due = money(1 + random.nextInt(90_000));
        Money prepaid = money(Math.min(random.nextInt(500), minor(kept.ledger().deposits())));
        DocumentId document = new DocumentId(id);
        // Due in the order in which they come, so that plain numbers need no order of their own.
        kept.asked.put(id, new OpenDebt(id, document, "2027-" + id, 1, false, DAY.plusDays(id), due));
        model.open.put(id, minor(due));
        List<Posting> postings = new ArrayList<>();
        postings.add(new Posting(Account.RECEIVABLE, "", document, due));
        postings.add(new Posting(Account.INCOME, "", document, due.plus(prepaid).negated()));
        if (prepaid.isPositive()) {
            postings.add(new Posting(Account.CLIENT_DEPOSITS, "", document, prepaid));
        }
        kept.book(new Entry(Entry.Event.ISSUED, postings));
        keep(kept.ledger().deduct(document, prepaid));
        model.drawDeposits(minor(prepaid));
        assertThatThrownBy(() ->
                        kept.ledger().deduct(document, kept.ledger().deposits().plusMinor(1)))
                .isInstanceOf(RefusedException.class);
    }

    private void received(boolean only) {
        long id = next();
        Money amount = money(1 + random.nextInt(120_000));
        List<Long> named = kept.ledger().open().stream()
                .map(OpenDebt::id)
                .filter(d -> random.nextInt(3) == 0)
                .toList();
        Receipt receipt = new Receipt(id, Account.BANK, amount);
        ClientLedger ledger = kept.ledger();
        keep(only ? ledger.receiveFor(receipt, Set.copyOf(named)) : ledger.receive(receipt, Set.copyOf(named)));
        model.receive(id, minor(amount), named, only);
        payments.put(id, minor(amount));
    }

    private void hold() {
        long id = next();
        Money amount = money(1 + random.nextInt(900));
        keep(kept.ledger().hold(new Receipt(id, Account.BANK, amount)));
        model.pools.add(new LedgerModel.Pool(id, true, 0, minor(amount)));
        held.put(id, minor(amount));
    }

    private boolean holdUndone() {
        Long id = any(List.copyOf(held.keySet()));
        if (id == null) {
            return false;
        }
        Receipt receipt = new Receipt(id, Account.BANK, money(held.get(id)));
        List<Step.Draw> deducted = kept.drawnByDocuments(Source.movement(id));
        DepositsBack back = new DepositsBack(kept.ledgerWith(deducted));
        if (receipt.amount().isGreaterThan(kept.ledger().deposits())) {
            assertThatThrownBy(() -> back.undo(receipt, deducted))
                    .isInstanceOf(RefusedException.class)
                    .hasMessageContaining("still held");
            return false;
        }
        keep(back.undo(receipt, deducted));
        long missing = held.remove(id);
        for (boolean own : List.of(true, false)) {
            for (LedgerModel.Pool pool : model.pools) {
                long part = pool.deposit && (pool.movement == id) == own ? Math.min(missing, pool.left) : 0;
                pool.left -= part;
                missing -= part;
            }
        }
        return true;
    }

    private boolean waived() {
        Long id = any(List.copyOf(model.open.keySet()));
        if (id == null) {
            return false;
        }
        OpenDebt debt = kept.debt(id);
        ClientLedger.Decision decision = new TakingBack(kept.ledger()).waive(debt, kept.standingOf(id));
        long falls = model.takeOff(id);
        if (falls > 0) {
            kept.book(new Entry(
                    Entry.Event.LATE_FEE_WAIVED,
                    List.of(
                            new Posting(Account.INCOME, "", debt.document(), money(falls)),
                            new Posting(Account.RECEIVABLE, "", debt.document(), money(-falls)))));
        }
        keep(decision);
        return true;
    }

    private boolean credited(boolean whole) {
        Long id = any(List.copyOf(model.open.keySet()));
        if (id == null || minor(kept.asked.get(id).open()) < 2) {
            return false;
        }
        OpenDebt debt = kept.debt(id);
        long asks = minor(debt.open())
                + kept.standingOf(id).stream().mapToLong(s -> minor(s.amount())).sum();
        if (asks == 0) {
            return false;
        }
        DocumentId note = new DocumentId(next());
        List<Step.Draw> deducted = kept.drawnByDocuments(Source.document(debt.document()));
        long prepaid = deducted.stream().mapToLong(d -> minor(d.amount())).sum();
        long before = givenAsCredit.getOrDefault(id, 0L);
        if (asks + prepaid <= before) {
            return false;
        }
        TakingBack back = new TakingBack(kept.ledgerWith(deducted));
        if (whole) {
            long given = asks + prepaid - before;
            long deposits = Math.min(prepaid, given);
            keep(back.creditWhole(
                    new TakingBack.Note(note, debt.document(), kept.totals(given), money(deposits)),
                    List.of(debt),
                    new TakingBack.Standing(kept.standingOf(id), () -> kept.othersThan(id)),
                    deducted));
            takeOffWhole(id, asks + deposits - given, deducted, deposits);
        } else {
            long given = 1 + random.nextInt((int) (asks + prepaid - before));
            keep(back.creditBackwards(
                    new TakingBack.Note(note, debt.document(), kept.totals(given), money(0)), List.of(debt)));
            long off = Math.min(given, model.open.get(id));
            model.open.merge(id, -off, Long::sum);
            if (given > off) {
                givenAsCredit.merge(id, given - off, Long::sum);
                model.pools.add(new LedgerModel.Pool(0, false, 0, given - off));
            }
        }
        return true;
    }

    private void takeOffWhole(long id, long over, List<Step.Draw> deducted, long deposits) {
        List<Long> before = model.pools.stream().map(p -> p.left).toList();
        model.takeOff(id);
        long left = deposits;
        for (int i = deducted.size() - 1; i >= 0; i--) {
            long part = Math.min(left, minor(deducted.get(i).amount()));
            model.pools.get((int) deducted.get(i).lot() - 1).left += part;
            left -= part;
        }
        List<LedgerModel.Pool> gained = new ArrayList<>();
        for (int i = 0; i < model.pools.size(); i++) {
            LedgerModel.Pool pool = model.pools.get(i);
            if (pool.left > (i < before.size() ? before.get(i) : 0)) {
                gained.add(pool);
            }
        }
        model.takeCredit(over, gained);
    }

    private boolean moved() {
        List<Settlement> money = kept.standing().stream()
                .filter(s -> s.kind().sum() == Settlement.Sum.SETTLED)
                .toList();
        Settlement from = any(money);
        OpenDebt to = any(kept.ledger().open());
        if (from == null || to == null || from.debt().id() == to.id()) {
            return false;
        }
        if (from.amount().isGreaterThan(to.open())) {
            assertThatThrownBy(() -> kept.ledger().move(List.of(from), to.id())).isInstanceOf(RefusedException.class);
            return false;
        }
        Long movement = from.source().movement();
        keep(kept.ledger().move(List.of(from), to.id()));
        model.move(movement == null ? 0 : movement, from.lot() != 0, from.debt().id(), to.id(), minor(from.amount()));
        return true;
    }

    private boolean writtenOff() {
        OpenDebt debt = any(kept.ledger().open());
        if (debt == null) {
            return false;
        }
        keep(kept.ledger().writeOff(Set.of(debt.id())));
        assertThat(kept.open(debt.id())).isZero();
        if (random.nextBoolean()) {
            model.open.put(debt.id(), 0L);
        } else {
            keep(kept.ledger()
                    .oweAgain(kept.standing().stream()
                            .filter(s -> s.debt().id() == debt.id()
                                    && s.kind() == Settlement.Kind.WRITTEN_OFF
                                    && s.id() == latestWriteOff(debt.id()))
                            .toList()));
        }
        return true;
    }

    private long latestWriteOff(long debt) {
        return kept.standing().stream()
                .filter(s -> s.debt().id() == debt && s.kind() == Settlement.Kind.WRITTEN_OFF)
                .mapToLong(Settlement::id)
                .max()
                .orElseThrow();
    }

    private boolean reserved() {
        List<ClientLedger.OfLot> parts = kept.ledger().lots().stream()
                .filter(quill.core.ledger.Lot::isFree)
                .map(l -> new ClientLedger.OfLot(l.id(), money(1 + random.nextInt((int) minor(l.left())))))
                .toList();
        long draft = next();
        keep(kept.ledger().reserve(parts, new DocumentId(draft)));
        for (ClientLedger.OfLot part : parts) {
            LedgerModel.Pool of = model.pools.get((int) part.lot() - 1);
            of.left -= minor(part.amount());
            model.pools.add(new LedgerModel.Pool(of.movement, false, draft, minor(part.amount())));
        }
        return !parts.isEmpty();
    }
}
