package quill.core.ledger;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.RefusedException;
import quill.core.document.CreditTotals;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;

/**
 * What a client owes in one currency, and what it has with the business: decides what each event changes of them. Knows
 * what is open and what is left, never the history; what an event takes back is given to it. Stores nothing: a decision
 * says what is to be booked and kept, and how all stands after it.
 */
public final class ClientLedger {
    private final CurrencyUnit currency;
    private final Map<Long, OpenDebt> debts;
    private final Map<Long, Lot> lots;
    private final Comparator<OpenDebt> by;

    private ClientLedger(
            CurrencyUnit currency, Map<Long, OpenDebt> debts, Map<Long, Lot> lots, Comparator<OpenDebt> by) {
        this.currency = currency;
        this.debts = debts;
        this.lots = lots;
        this.by = by;
    }

    /** A decision. @param after how all stands once its steps are kept */
    public record Decision(List<Step> steps, ClientLedger after) {}

    /** So much of a lot. */
    public record OfLot(long lot, Money amount) {}

    /** @param by the order in which money settles debts, {@link OpenDebt#ORDER} or {@link OpenDebt#FEES_FIRST} */
    public static ClientLedger of(
            CurrencyUnit currency, Collection<OpenDebt> open, Collection<Lot> left, Comparator<OpenDebt> by) {
        Map<Long, OpenDebt> debts = new LinkedHashMap<>();
        open.forEach(d -> debts.put(d.id(), d));
        Map<Long, Lot> lots = new TreeMap<>();
        left.forEach(l -> lots.put(l.id(), l));
        return new ClientLedger(currency, debts, lots, by);
    }

    /** What is open, in the order in which money settles it. */
    public List<OpenDebt> open() {
        return debts.values().stream()
                .filter(d -> d.open().isPositive())
                .sorted(by)
                .toList();
    }

    /** Lots of which anything is left, in the order in which they are used. */
    public List<Lot> lots() {
        return lots.values().stream()
                .filter(l -> l.left().isPositive())
                .sorted(Lot.ORDER)
                .toList();
    }

    /** Credit that settles what is open by itself. */
    public Money free() {
        return sum(lots().stream().filter(Lot::isFree).toList());
    }

    /** All that is held for work to come. */
    public Money deposits() {
        return sum(lots().stream().filter(l -> l.kind() == Lot.Kind.DEPOSIT).toList());
    }

    /** Money arrives: it settles what the payer named, then the rest by the order; what is left is client credit. */
    public Decision receive(Receipt money, Set<Long> named) {
        return receive(money, Appropriation.of(money.amount(), open(), named, by));
    }

    /** Money arrives for these debts and no others: what they do not take is client credit. */
    public Decision receiveFor(Receipt money, Set<Long> only) {
        List<OpenDebt> taking =
                open().stream().filter(d -> only.contains(d.id())).toList();
        return receive(money, Appropriation.of(money.amount(), taking, only, by));
    }

    /** Money that had gone comes again: it settles what had been opened by its going, as far as that is open; the rest is credit. */
    public Decision receiveAgain(Receipt money, Set<Long> opened, Entry.Event event) {
        List<OpenDebt> taking =
                open().stream().filter(d -> opened.contains(d.id())).toList();
        return receive(money, Appropriation.of(money.amount(), taking, opened, by), event);
    }

    private Decision receive(Receipt money, Appropriation to) {
        return receive(money, to, Entry.Event.PAYMENT);
    }

    private Decision receive(Receipt money, Appropriation to, Entry.Event event) {
        Source source = Source.movement(money.movement());
        List<Settlement> paid = to.parts().stream()
                .map(p -> new Settlement(0, Settlement.Kind.PAID, p.debt(), source, 0, p.amount(), 0))
                .toList();
        List<Lot> made = to.credit().isPositive()
                ? List.of(new Lot(nextId(), Lot.Kind.CREDIT, source, 0, null, to.credit()))
                : List.of();
        return decided(
                List.of(new Step(Bookings.came(event, money.where(), money.amount(), to), "", paid, made, List.of())));
    }

    /** Money arrives for work to come. */
    public Decision hold(Receipt money) {
        Lot lot = new Lot(nextId(), Lot.Kind.DEPOSIT, Source.movement(money.movement()), 0, null, money.amount());
        return decided(List.of(
                new Step(Bookings.deposit(money.where(), money.amount()), "", List.of(), List.of(lot), List.of())));
    }

    /** Free credit settles what is open, the oldest credit first; no steps where there is none, or nothing is open. */
    public Decision cover() {
        List<OpenDebt> open = open();
        if (!free().isPositive() || open.isEmpty()) {
            return decided(List.of());
        }
        Appropriation used = Appropriation.of(free(), open, Set.of(), by);
        Map<Long, Money> left = new LinkedHashMap<>();
        lots().stream().filter(Lot::isFree).forEach(l -> left.put(l.id(), l.left()));
        List<Settlement> covered = new ArrayList<>();
        used.parts().forEach(p -> covered.addAll(covering(p.debt(), p.amount(), left)));
        String words = "Client credit used, " + Amounts.grouped(used.settled()) + numbers(used.parts());
        return decided(List.of(new Step(Bookings.creditUsed(used.parts()), words, covered, List.of(), List.of())));
    }

    /** Covers a debt from lots of which so much is left; takes it out of {@code left}. */
    List<Settlement> covering(OpenDebt debt, Money amount, Map<Long, Money> left) {
        return taking(amount, left).stream()
                .map(p -> new Settlement(
                        0, Settlement.Kind.COVERED, debt, lots.get(p.lot()).source(), p.lot(), p.amount(), 0))
                .toList();
    }

    /** So much of these lots, the first first; less where less is left. Takes it out of {@code left}. */
    static List<OfLot> taking(Money amount, Map<Long, Money> left) {
        List<OfLot> parts = new ArrayList<>();
        Money missing = amount;
        for (Map.Entry<Long, Money> lot : left.entrySet()) {
            Money part = Amounts.min(missing, lot.getValue());
            if (part.isPositive()) {
                parts.add(new OfLot(lot.getKey(), part));
                lot.setValue(lot.getValue().minus(part));
                missing = missing.minus(part);
            }
        }
        return parts;
    }

    /** This credit waits for a draft, and nothing else takes it. */
    public Decision reserve(List<OfLot> credit, DocumentId draft) {
        List<Lot> made = new ArrayList<>();
        for (OfLot part : credit) {
            Lot of = lots.get(part.lot());
            made.add(new Lot(nextId() - made.size(), of.kind(), of.source(), of.id(), draft, part.amount()));
        }
        return decided(made.isEmpty() ? List.of() : List.of(new Step(null, "", List.of(), made, List.of())));
    }

    /** What gained, lot by lot, since another state. */
    public List<OfLot> gainedSince(ClientLedger before) {
        List<OfLot> gained = new ArrayList<>();
        for (Lot lot : lots()) {
            Lot was = before.lots.get(lot.id());
            Money more = was == null ? lot.left() : lot.left().minus(was.left());
            if (lot.kind() == Lot.Kind.CREDIT && more.isPositive()) {
                gained.add(new OfLot(lot.id(), more));
            }
        }
        return gained;
    }

    /**
     * An invoice deducts deposits, under the entry of its issue.
     *
     * @throws RefusedException naming {@code prepaid} where less is held
     */
    public Decision deduct(DocumentId invoice, Money prepaid) {
        if (prepaid.isGreaterThan(deposits())) {
            throw new RefusedException(
                    "prepaid",
                    Amounts.plain(prepaid),
                    "at most " + Amounts.grouped(deposits())
                            + " is held as deposits for this client; record the deposit first");
        }
        Map<Long, Money> left = new LinkedHashMap<>();
        lots().stream().filter(l -> l.kind() == Lot.Kind.DEPOSIT).forEach(l -> left.put(l.id(), l.left()));
        List<Step.Draw> draws = taking(prepaid, left).stream()
                .map(p -> new Step.Draw(p.lot(), Source.document(invoice), p.amount()))
                .toList();
        return decided(draws.isEmpty() ? List.of() : List.of(new Step(null, "", List.of(), List.of(), draws)));
    }

    /** What an invoice deducted is held again, the latest first, under an entry that there is. */
    public Decision putBack(List<Step.Draw> deducted, Money amount) {
        List<Step.Draw> back = puttingBack(deducted, amount);
        return decided(back.isEmpty() ? List.of() : List.of(new Step(null, "", List.of(), List.of(), back)));
    }

    static List<Step.Draw> puttingBack(List<Step.Draw> deducted, Money amount) {
        List<Step.Draw> latestFirst = new ArrayList<>(deducted);
        Collections.reverse(latestFirst);
        List<Step.Draw> back = new ArrayList<>();
        Money left = amount;
        for (Step.Draw draw : latestFirst) {
            Money part = Amounts.min(left, draw.amount());
            if (part.isPositive()) {
                back.add(new Step.Draw(draw.lot(), draw.to(), part.negated()));
                left = left.minus(part);
            }
        }
        return back;
    }

    /** Money that settled one debt settles another instead. @throws RefusedException where it is more than is open there */
    public Decision move(List<Settlement> from, long to) {
        OpenDebt target = debts.get(to);
        Money all = amounts(from);
        if (all.isGreaterThan(target.open())) {
            throw new RefusedException(
                    "amount", Amounts.plain(all), "at most " + Amounts.grouped(target.open()) + " is open there");
        }
        List<Settlement> moved = new ArrayList<>();
        for (Settlement s : from) {
            moved.add(Settlement.takingBack(s, Settlement.Kind.MOVED, s.amount()));
            moved.add(new Settlement(0, Settlement.Kind.MOVED, target, s.source(), s.lot(), s.amount(), 0));
        }
        List<Appropriation.Part> opened = from.stream().map(Settlement::part).toList();
        return decided(List.of(new Step(
                Bookings.moved(opened, new Appropriation.Part(target, all)),
                "Moved, " + Amounts.grouped(all) + numbers(opened) + ", to " + target.number(),
                moved,
                List.of(),
                List.of())));
    }

    /** What is open of these debts is given up. */
    public Decision writeOff(Set<Long> which) {
        List<Settlement> given = open().stream()
                .filter(d -> which.contains(d.id()))
                .map(d -> new Settlement(
                        0, Settlement.Kind.WRITTEN_OFF, d, Source.document(d.document()), 0, d.open(), 0))
                .toList();
        List<Appropriation.Part> parts = given.stream().map(Settlement::part).toList();
        return decided(List.of(
                new Step(Bookings.writtenOff(parts), "Written off" + numbers(parts), given, List.of(), List.of())));
    }

    /**
     * What is open of an invoice's installments is let off, since the rest was paid early.
     *
     * @param installments of the invoice
     * @param off what it comes to, with its share of each tax; as much as is open of them
     * @throws IllegalArgumentException where another sum is open
     */
    public Decision letOff(Set<Long> installments, DocumentId invoice, CreditTotals off) {
        List<Settlement> rows = open().stream()
                .filter(d -> installments.contains(d.id()))
                .map(d -> new Settlement(0, Settlement.Kind.LET_OFF, d, Source.document(invoice), 0, d.open(), 0))
                .toList();
        if (!amounts(rows).isEqual(off.total())) {
            throw new IllegalArgumentException(amounts(rows) + " is open, not " + off.total());
        }
        return decided(List.of(new Step(Bookings.earlySettlement(invoice, off), "", rows, List.of(), List.of())));
    }

    /** What was let off is owed again: the whole is open. @param standing what was let off @param off what it came to */
    public Decision askAgain(List<Settlement> standing, DocumentId invoice, CreditTotals off) {
        List<Settlement> rows = standing.stream()
                .map(s -> Settlement.takingBack(s, Settlement.Kind.ASKED_AGAIN, s.amount()))
                .toList();
        return decided(
                List.of(new Step(Bookings.earlySettlementWithdrawn(invoice, off), "", rows, List.of(), List.of())));
    }

    /** What was given up is owed again. */
    public Decision oweAgain(List<Settlement> writtenOff) {
        List<Settlement> again = writtenOff.stream()
                .map(s -> Settlement.takingBack(s, Settlement.Kind.OWED_AGAIN, s.amount()))
                .toList();
        List<Appropriation.Part> parts =
                writtenOff.stream().map(Settlement::part).toList();
        return decided(List.of(
                new Step(Bookings.owedAgain(parts), "Owed again" + numbers(parts), again, List.of(), List.of())));
    }

    CurrencyUnit currency() {
        return currency;
    }

    /** A debt as it stands here; one that is not known here, as it was given. */
    OpenDebt asItStands(OpenDebt debt) {
        return debts.getOrDefault(debt.id(), debt);
    }

    Lot lot(long id) {
        return lots.get(id);
    }

    /** A key for a lot that a decision makes; the next ones lie below it. */
    long nextId() {
        return lots.keySet().stream().mapToLong(Long::longValue).min().stream()
                        .map(l -> Math.min(0, l))
                        .findFirst()
                        .orElse(0)
                - 1;
    }

    /** How all stands after these steps. */
    Decision decided(List<Step> steps) {
        Map<Long, OpenDebt> debtsAfter = new LinkedHashMap<>(debts);
        Map<Long, Money> left = new TreeMap<>();
        Map<Long, Lot> known = new TreeMap<>(lots);
        for (Step step : steps) {
            for (Lot lot : step.made()) {
                known.put(lot.id(), lot);
                left.merge(lot.id(), lot.left(), Money::plus);
                if (lot.from() != 0) {
                    left.merge(lot.from(), lot.left().negated(), Money::plus);
                }
            }
            for (Settlement s : step.settlements()) {
                OpenDebt debt = debtsAfter.getOrDefault(s.debt().id(), s.debt());
                debtsAfter.put(debt.id(), debt.withOpen(debt.open().minus(s.amount())));
                if (s.lot() != 0) {
                    // A lot of which nothing is left may not be known: what it settled says where it came from.
                    known.putIfAbsent(
                            s.lot(), new Lot(s.lot(), Lot.Kind.CREDIT, s.source(), 0, null, Money.zero(currency)));
                    left.merge(s.lot(), s.amount().negated(), Money::plus);
                }
            }
            step.draws().forEach(d -> left.merge(d.lot(), d.amount().negated(), Money::plus));
        }
        Map<Long, Lot> lotsAfter = new TreeMap<>(known);
        left.forEach((id, change) -> {
            Lot before = lots.get(id);
            lotsAfter.put(
                    id,
                    known.get(id)
                            .withLeft(before == null ? change : before.left().plus(change)));
        });
        return new Decision(List.copyOf(steps), new ClientLedger(currency, debtsAfter, lotsAfter, by));
    }

    Money sum(Collection<Lot> some) {
        return Amounts.sum(currency, some.stream().map(Lot::left).toList());
    }

    Money amounts(Collection<Settlement> some) {
        return Amounts.sum(currency, some.stream().map(Settlement::amount).toList());
    }

    static String numbers(List<Appropriation.Part> parts) {
        return " · "
                + parts.stream().map(p -> p.debt().number()).distinct().limit(6).collect(Collectors.joining(", "));
    }
}
