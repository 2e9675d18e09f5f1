package quill.core.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.Money;
import quill.core.RefusedException;
import quill.core.money.Amounts;

/** The decisions of a {@link ClientLedger} that take deposits back which are held for work to come. */
public final class DepositsBack {
    private final ClientLedger ledger;

    /** @param ledger knows also the lots, empty ones too, of deposits that documents deducted */
    public DepositsBack(ClientLedger ledger) {
        this.ledger = ledger;
    }

    /**
     * A deposit was recorded wrongly, or came back, or what was left of it did. What an invoice deducted of it is taken from
     * other deposits instead.
     *
     * @param deducted what invoices took of it
     * @throws RefusedException naming {@code amount} where less than that is held in all
     */
    public ClientLedger.Decision undo(Receipt money, List<Step.Draw> deducted) {
        Money held = ledger.deposits();
        if (money.amount().isGreaterThan(held)) {
            throw new RefusedException(
                    "amount",
                    Amounts.plain(money.amount()),
                    "only " + Amounts.grouped(held) + " of deposits is still held");
        }
        Source source = Source.movement(money.movement());
        Map<Long, Money> own = new LinkedHashMap<>();
        Map<Long, Money> others = new LinkedHashMap<>();
        ledger.lots().stream()
                .filter(l -> l.kind() == Lot.Kind.DEPOSIT)
                .forEach(l -> (l.source().equals(source) ? own : others).put(l.id(), l.left()));
        List<Step.Draw> draws = new ArrayList<>();
        Money missing = money.amount();
        for (ClientLedger.OfLot part : ClientLedger.taking(missing, own)) {
            draws.add(new Step.Draw(part.lot(), source, part.amount()));
            missing = missing.minus(part.amount());
        }
        for (Step.Draw draw : deducted) {
            Money part = Amounts.min(missing, draw.amount());
            if (part.isPositive()) {
                draws.add(new Step.Draw(draw.lot(), draw.to(), part.negated()));
                draws.add(new Step.Draw(draw.lot(), source, part));
                ClientLedger.taking(part, others)
                        .forEach(p -> draws.add(new Step.Draw(p.lot(), draw.to(), p.amount())));
                missing = missing.minus(part);
            }
        }
        for (ClientLedger.OfLot part : ClientLedger.taking(missing, others)) {
            draws.add(new Step.Draw(part.lot(), source, part.amount()));
        }
        Entry entry = Bookings.depositUndone(money.where(), money.amount());
        return ledger.decided(List.of(new Step(entry, "", List.of(), List.of(), draws)));
    }

    /**
     * A deposit that is held goes back to the client: out of what is left of these movements first, then out of others.
     *
     * @param of keys of the payments that it was; those of a quote, say
     * @throws RefusedException naming {@code amount}, with what is held
     */
    public ClientLedger.Decision refund(Receipt out, Set<Long> of) {
        Money held = ledger.deposits();
        if (out.amount().isGreaterThan(held)) {
            throw new RefusedException(
                    "amount",
                    Amounts.plain(out.amount()),
                    "at most " + Amounts.grouped(held) + " of deposits is held for this client");
        }
        Map<Long, Money> own = new LinkedHashMap<>();
        Map<Long, Money> others = new LinkedHashMap<>();
        for (Lot lot : ledger.lots()) {
            if (lot.kind() == Lot.Kind.DEPOSIT) {
                Long from = lot.source().movement();
                (from != null && of.contains(from) ? own : others).put(lot.id(), lot.left());
            }
        }
        List<Step.Draw> draws = new ArrayList<>();
        Money left = out.amount();
        for (Map<Long, Money> some : List.of(own, others)) {
            for (ClientLedger.OfLot part : ClientLedger.taking(left, some)) {
                draws.add(new Step.Draw(part.lot(), Source.movement(out.movement()), part.amount()));
                left = left.minus(part.amount());
            }
        }
        Entry entry = Bookings.reversed(Entry.Event.REFUND, Bookings.deposit(out.where(), out.amount()));
        return ledger.decided(List.of(new Step(entry, "", List.of(), List.of(), draws)));
    }
}
