package quill.core;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import quill.core.ledger.Account;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.Entry;
import quill.core.ledger.Receipt;
import quill.core.ledger.Settlement;
import quill.core.ledger.TakingBack;

/** Money that goes back, or comes again after it had gone. */
final class LedgerMoneyBack extends LedgerTelling {
    /** Debts that were opened by what was contested, by how much that was. */
    private final Map<Long, Set<Long>> contested = new LinkedHashMap<>();

    LedgerMoneyBack(LedgerTelling same) {
        super(same);
    }

    boolean takenBack(boolean chargeBack) {
        Long id = any(List.copyOf(payments.keySet()));
        if (id == null) {
            return false;
        }
        long amount = payments.remove(id);
        Receipt receipt = new Receipt(id, Account.BANK, money(amount));
        List<Settlement> others =
                kept.standing().stream().filter(s -> !s.source().is(id)).toList();
        TakingBack.Standing standing = new TakingBack.Standing(
                kept.standing().stream().filter(s -> s.source().is(id)).toList(),
                () -> others.stream().filter(s -> s.lot() != 0).toList(),
                () -> chargeBack
                        ? others.stream()
                                .filter(s -> s.lot() == 0 && s.source().movement() != null)
                                .toList()
                        : List.of());
        TakingBack back = new TakingBack(kept.ledger());
        if (!model.canGo(id, amount, chargeBack)) {
            // Its credit was given back before, as another payment's: undone it cannot be, and no other money stands
            // for it.
            assertThatThrownBy(() -> back.undo(receipt, standing))
                    .isInstanceOf(RefusedException.class)
                    .hasMessageContaining("at most");
            return false;
        }
        model.takeBack(id, amount, chargeBack);
        ClientLedger.Decision decision = chargeBack ? back.chargeBack(receipt, standing) : back.undo(receipt, standing);
        keep(decision);
        if (chargeBack) {
            contested.put(
                    amount,
                    decision.steps().stream()
                            .flatMap(step -> step.settlements().stream())
                            .filter(s -> s.kind() == Settlement.Kind.CHARGED_BACK)
                            .map(s -> s.debt().id())
                            .collect(Collectors.toSet()));
        }
        return true;
    }

    /** What was contested comes again: it settles what its going had opened, as far as that is open. */
    boolean wonBack() {
        Long amount = any(List.copyOf(contested.keySet()));
        if (amount == null) {
            return false;
        }
        Set<Long> opened = contested.remove(amount);
        long id = next();
        keep(kept.ledger()
                .receiveAgain(new Receipt(id, Account.BANK, money(amount)), opened, Entry.Event.CHARGEBACK_WON));
        model.receive(id, amount, List.copyOf(opened), true);
        payments.put(id, amount);
        return true;
    }

    /** Out of what is left of the payment, out of other credit; and only where that is said out of what it settles. */
    boolean refunded(boolean opens) {
        Long of = any(List.copyOf(payments.keySet()));
        long credit = minor(kept.ledger().free());
        long most = of == null ? 0 : Math.min(payments.get(of), opens ? model.refundable(of) : credit);
        if (most == 0) {
            return false;
        }
        Receipt out = new Receipt(next(), Account.BANK, money(1 + random.nextInt((int) most)));
        Receipt more = new Receipt(out.movement(), Account.BANK, money(credit + 1));
        TakingBack back = new TakingBack(kept.ledger());
        assertThatThrownBy(() -> back.refund(more, of, List.of()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most");
        List<Settlement> opened =
                opens ? kept.standing().stream().filter(s -> s.source().is(of)).toList() : List.of();
        keep(back.refund(out, of, opened));
        model.refund(of, minor(out.amount()), opens);
        payments.merge(of, -minor(out.amount()), Long::sum);
        payments.values().removeIf(left -> left == 0);
        return true;
    }
}
