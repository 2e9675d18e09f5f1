package quill.core.ledger;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.RefusedException;
import quill.core.document.CreditTotals;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;

/**
 * The decisions of a {@link ClientLedger} that take something back: money that was recorded wrongly or comes back, and
 * what was asked for. Money that its own credit no longer has is taken from other credit, and then from what that had
 * settled, the latest first: never from nothing.
 */
public final class TakingBack {
    private final ClientLedger ledger;

    /** @param ledger knows also the lots, empty ones too, of deposits that are put back */
    public TakingBack(ClientLedger ledger) {
        this.ledger = ledger;
    }

    /**
     * What settles debts, as far as it stands.
     *
     * @param own of the money that is taken back, the latest first: what it settled, and what credit of it did
     * @param others what other credit settled, the latest first; only asked for where it is needed
     * @param money what other money settled by itself, the latest first: where this money's credit was given back as that
     *     money's, it is that which goes
     */
    public record Standing(List<Settlement> own, Supplier<List<Settlement>> others, Supplier<List<Settlement>> money) {
        /** Where no other money stands for it: what is missing is refused. */
        public Standing(List<Settlement> own, Supplier<List<Settlement>> others) {
            this(own, others, List::of);
        }
    }

    /** A payment was recorded wrongly: what it settled is open again, the rest comes out of client credit. */
    public ClientLedger.Decision undo(Receipt money, Standing standing) {
        return takeBack(money, standing, Settlement.Kind.UNDONE, Entry.Event.PAYMENT_UNDONE);
    }

    /** The payer's bank took a payment back: the same debts are open again. */
    public ClientLedger.Decision chargeBack(Receipt money, Standing standing) {
        return takeBack(money, standing, Settlement.Kind.CHARGED_BACK, Entry.Event.CHARGEBACK);
    }

    /** A bank debit came back after it had been certain: the same debts are open again. */
    public ClientLedger.Decision returned(Receipt money, Standing standing) {
        return takeBack(money, standing, Settlement.Kind.CHARGED_BACK, Entry.Event.DEBIT_RETURNED);
    }

    private ClientLedger.Decision takeBack(Receipt money, Standing standing, Settlement.Kind why, Entry.Event event) {
        List<Settlement> direct = new ArrayList<>(upTo(money.amount(), standing.own()));
        List<Settlement> rows = new ArrayList<>();
        direct.forEach(s -> rows.add(Settlement.takingBack(s, why, s.amount())));
        Missing missing = new Missing(
                Source.movement(money.movement()), money.amount().minus(ledger.amounts(direct)), money.amount());
        missing.outOf(l -> l.source().is(money.movement()));
        missing.openedAgain(standing.own());
        missing.outOf(Lot::isFree);
        missing.openedAgainOf(standing.others());
        missing.outOf(l -> true);
        for (Settlement s :
                missing.sum.isPositive() ? upTo(missing.sum, standing.money().get()) : List.<Settlement>of()) {
            rows.add(Settlement.takingBack(s, why, s.amount()));
            direct.add(s);
            missing.sum = missing.sum.minus(s.amount());
        }
        missing.mustBeNothing();
        missing.coverOtherwise();
        rows.addAll(missing.exchanged);
        List<Step> steps = new ArrayList<>();
        Entry entry = Bookings.takenBack(
                event,
                money.where(),
                money.amount(),
                direct.stream().map(Settlement::part).toList());
        steps.add(new Step(entry, "", rows, List.of(), missing.draws));
        if (!missing.opened.isEmpty()) {
            steps.add(released(missing.opened, List.of()));
        }
        return ledger.decided(steps);
    }

    /** What money settled by itself, no more than goes back: a part of it may have been given back before. */
    private static List<Settlement> upTo(Money amount, List<Settlement> own) {
        List<Settlement> some = new ArrayList<>();
        Money left = amount;
        for (Settlement s : own) {
            Money part = Amounts.min(left, s.amount());
            if (s.lot() == 0 && part.isPositive()) {
                some.add(s.withAmount(part));
                left = left.minus(part);
            }
        }
        return some;
    }

    /** What must still be found of money that goes back. */
    private final class Missing {
        private final Source to;
        private final Money whole;
        private final Map<Long, Money> left = new LinkedHashMap<>();
        private final List<Step.Draw> draws = new ArrayList<>();
        private final List<Settlement> exchanged = new ArrayList<>();
        private final List<Settlement> opened = new ArrayList<>();
        private Money sum;

        private Missing(Source to, Money sum, Money whole) {
            this.to = to;
            this.sum = sum;
            this.whole = whole;
            ledger.lots().stream().filter(l -> l.kind() == Lot.Kind.CREDIT).forEach(l -> left.put(l.id(), l.left()));
        }

        private Map<Long, Money> leftIn(Predicate<Lot> which) {
            Map<Long, Money> some = new LinkedHashMap<>(left);
            some.keySet().removeIf(id -> !which.test(ledger.lot(id)));
            return some;
        }

        private void outOf(Predicate<Lot> which) {
            Map<Long, Money> some = leftIn(which);
            for (ClientLedger.OfLot part : ClientLedger.taking(sum, some)) {
                draw(part.lot(), part.amount());
            }
            left.putAll(some);
        }

        private void draw(long lot, Money part) {
            draws.add(new Step.Draw(lot, to, part));
            sum = sum.minus(part);
        }

        /** What credit covered is open again. */
        private void openedAgain(List<Settlement> covered) {
            for (Settlement s : covered) {
                Money part = Amounts.min(sum, s.amount());
                if (s.lot() != 0 && part.isPositive()) {
                    opened.add(s.withAmount(part));
                    draw(s.lot(), part);
                }
            }
        }

        private void openedAgainOf(Supplier<List<Settlement>> others) {
            if (sum.isPositive()) {
                openedAgain(others.get());
            }
        }

        /** Other credit that is left takes the place of what went back: so much of the debts stays settled. */
        private void coverOtherwise() {
            for (Settlement s : List.copyOf(opened)) {
                Map<Long, Money> others = leftIn(Lot::isFree);
                Money part = Amounts.min(s.amount(), Amounts.sum(ledger.currency(), others.values()));
                if (part.isPositive()) {
                    exchanged.add(Settlement.takingBack(s, Settlement.Kind.MOVED, part));
                    exchanged.addAll(ledger.covering(s.debt(), part, others));
                    left.putAll(others);
                    opened.remove(s);
                    if (s.amount().isGreaterThan(part)) {
                        opened.add(s.withAmount(s.amount().minus(part)));
                    }
                }
            }
        }

        private void mustBeNothing() {
            if (sum.isPositive()) {
                throw new RefusedException(
                        "amount",
                        Amounts.plain(whole),
                        "at most " + Amounts.grouped(whole.minus(sum)) + " can be given back");
            }
        }
    }

    /**
     * Money goes back to the client: out of what is left of the payment that it was, then out of other credit, the oldest
     * first, and only then out of these settlements, which are open again.
     *
     * @param of key of the payment that is given back
     * @param opened what a person said is to be owed again, first what the payment settles; mostly empty
     * @throws RefusedException naming {@code amount}, with the figure that would be allowed
     */
    public ClientLedger.Decision refund(Receipt out, long of, List<Settlement> opened) {
        Missing missing = new Missing(Source.movement(out.movement()), out.amount(), out.amount());
        missing.outOf(l -> l.isFree() && l.source().is(of));
        missing.outOf(Lot::isFree);
        List<Settlement> rows = new ArrayList<>();
        for (Settlement s : opened) {
            Money part = Amounts.min(missing.sum, s.amount());
            if (part.isPositive()) {
                rows.add(Settlement.takingBack(s, Settlement.Kind.REFUNDED, part));
                if (s.lot() != 0) {
                    missing.draw(s.lot(), part);
                } else {
                    missing.sum = missing.sum.minus(part);
                }
            }
        }
        missing.mustBeNothing();
        Entry entry = Bookings.takenBack(
                Entry.Event.REFUND,
                out.where(),
                out.amount(),
                rows.stream().map(Settlement::part).toList());
        return ledger.decided(List.of(new Step(entry, "", rows, List.of(), missing.draws)));
    }

    /** What was paid on a late fee is client credit, and the fee is taken off, under the entry that takes it back. */
    public ClientLedger.Decision waive(OpenDebt fee, List<Settlement> standing) {
        List<Step> steps = released(standing);
        Source source = Source.document(fee.document());
        ClientLedger now = ledger.decided(steps).after();
        List<Settlement> off = takenOff(now, List.of(fee), Settlement.Kind.WAIVED, source);
        steps.add(new Step(null, "", off, List.of(), List.of()));
        return ledger.decided(steps);
    }

    /** What a credit note takes back. @param deposits what of the invoice's deposits is held again */
    public record Note(DocumentId id, DocumentId invoice, CreditTotals totals, Money deposits) {
        private Money given() {
            return totals.total().plus(totals.rounding());
        }
    }

    /**
     * An invoice is taken back whole: all that settles it is client credit, and what it still asked for is taken off.
     *
     * @param debts all of its debts
     * @param standing what settles them, and what other credit settles
     * @param deducted what it deducted of deposits
     */
    public ClientLedger.Decision creditWhole(
            Note note, List<OpenDebt> debts, Standing standing, List<Step.Draw> deducted) {
        List<Step> steps = released(standing.own());
        ClientLedger now = ledger.decided(steps).after();
        List<Settlement> off = takenOff(now, debts, Settlement.Kind.CREDITED, Source.document(note.id()));
        List<Step.Draw> back = ClientLedger.puttingBack(deducted, note.deposits());
        steps.addAll(noted(note, off, now, back, standing.others()));
        return ledger.decided(steps);
    }

    /** A part of an invoice is taken back: off its open installments from the last backwards; the rest is client credit. */
    public ClientLedger.Decision creditBackwards(Note note, List<OpenDebt> installments) {
        List<OpenDebt> lastFirst = new ArrayList<>(installments);
        Collections.reverse(lastFirst);
        List<Settlement> off = new ArrayList<>();
        Money left = note.given();
        for (OpenDebt debt : lastFirst) {
            Money part = Amounts.min(left, debt.open());
            if (part.isPositive()) {
                off.add(new Settlement(0, Settlement.Kind.CREDITED, debt, Source.document(note.id()), 0, part, 0));
                left = left.minus(part);
            }
        }
        return ledger.decided(noted(note, off, ledger, List.of(), List::of));
    }

    /**
     * What a note takes off, and what it gives.
     *
     * @param now how all stands once what settled the invoice is credit again
     * @param others what other credit settles: where an earlier note gave credit that is used by now, that is open again
     */
    private List<Step> noted(
            Note note,
            List<Settlement> off,
            ClientLedger now,
            List<Step.Draw> back,
            Supplier<List<Settlement>> others) {
        Money lowered = ledger.amounts(off);
        Money over = lowered.plus(note.deposits()).minus(note.given());
        Source source = Source.document(note.id());
        List<Lot> made = over.isNegative()
                ? List.of(new Lot(now.nextId(), Lot.Kind.CREDIT, source, 0, null, over.negated()))
                : List.of();
        Missing missing = new TakingBack(now)
        .new Missing(source, over.isPositive() ? over : Money.zero(now.currency()), note.given());
        Set<Long> gained =
                now.gainedSince(ledger).stream().map(ClientLedger.OfLot::lot).collect(Collectors.toSet());
        missing.outOf(l -> gained.contains(l.id()));
        missing.outOf(Lot::isFree);
        missing.openedAgainOf(others);
        missing.outOf(l -> true);
        missing.mustBeNothing();
        List<Step.Draw> draws = new ArrayList<>(back);
        draws.addAll(missing.draws);
        List<Step> steps = new ArrayList<>();
        Entry entry = Bookings.creditNote(note.invoice(), note.totals(), lowered, note.deposits());
        steps.add(new Step(entry, "", off, made, draws));
        if (!missing.opened.isEmpty()) {
            steps.add(released(missing.opened, List.of()));
        }
        return steps;
    }

    private static List<Settlement> takenOff(
            ClientLedger now, List<OpenDebt> debts, Settlement.Kind kind, Source source) {
        return debts.stream()
                .map(now::asItStands)
                .filter(d -> d.open().isPositive())
                .map(d -> new Settlement(0, kind, d, source, 0, d.open(), 0))
                .toList();
    }

    /** What stands is client credit again: an entry for what came out of credit, and one for each payment. */
    private List<Step> released(List<Settlement> standing) {
        Map<Long, List<Settlement>> byMovement = new TreeMap<>();
        for (Settlement s : standing) {
            Long movement = s.source().movement();
            byMovement
                    .computeIfAbsent(s.lot() != 0 || movement == null ? 0 : movement, k -> new ArrayList<>())
                    .add(s);
        }
        List<Step> steps = new ArrayList<>();
        long id = ledger.nextId();
        for (Map.Entry<Long, List<Settlement>> group : byMovement.entrySet()) {
            List<Lot> made = new ArrayList<>();
            if (group.getKey() != 0) {
                Money sum = ledger.amounts(group.getValue());
                made.add(new Lot(id, Lot.Kind.CREDIT, Source.movement(group.getKey()), 0, null, sum));
                id--;
            }
            steps.add(released(group.getValue(), made));
        }
        return steps;
    }

    private Step released(Collection<Settlement> standing, List<Lot> made) {
        List<Settlement> rows = standing.stream()
                .map(s -> Settlement.takingBack(s, Settlement.Kind.MOVED, s.amount()))
                .toList();
        List<Appropriation.Part> parts = standing.stream().map(Settlement::part).toList();
        String words = "Client credit again, " + Amounts.grouped(ledger.amounts(List.copyOf(standing)))
                + ClientLedger.numbers(parts);
        return new Step(Bookings.creditReleased(parts), words, rows, made, List.of());
    }
}
