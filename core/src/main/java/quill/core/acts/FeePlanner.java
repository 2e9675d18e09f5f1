package quill.core.acts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.Money;
import quill.core.acts.ActsToCome.Debt;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.ledger.OpenDebt;

/** Late fees to come. */
final class FeePlanner implements ActPlanner {
    @Override
    public List<Act.Fee> on(LocalDate day, Forecast ahead) {
        List<Act.Fee> fees = new ArrayList<>();
        Map<Long, Money> asked = ahead.asked();
        for (Debt debt : ahead.debts()) {
            if (debt.feeOf() == 0 && debt.hasDate()) {
                Money base = asked.getOrDefault(debt.open().id(), debt.zero());
                LateFee.on(day, debt.overdue(base), debt.policy()).ifPresent(fee -> {
                    Act.Fee act = new Act.Fee(day, ahead.state().client(), debt, fee, stop(debt, fee, day, ahead));
                    fees.add(act);
                    foresee(act, ahead);
                });
            }
        }
        return fees;
    }

    @Override
    public Optional<LocalDate> nextDay(Debt d, Forecast ahead) {
        return d.open().open().isPositive()
                ? LateFee.nextDay(d.overdue(d.open().open()), d.policy())
                : Optional.empty();
    }

    private static Act.Stop stop(Debt debt, LateFee fee, LocalDate day, Forecast ahead) {
        Act.Stop held = ahead.held(Act.Fee.key(debt, fee), day);
        return held == Act.Stop.NOTHING && ahead.rules().reviewFees() ? Act.Stop.REVIEW : held;
    }

    private static void foresee(Act.Fee act, Forecast ahead) {
        boolean charged = act.stop() == Act.Stop.NOTHING;
        ahead.replace(act.debt().open().id(), d -> {
            List<LateFee.Charged> fees = new ArrayList<>(d.fees());
            fees.add(new LateFee.Charged(
                    d.open().dueOn(), act.fee().sequence(), act.fee().fee(), !charged));
            return d.with(d.usedThrough(), fees, d.lastTone());
        });
        if (charged) {
            OpenDebt of = act.debt().open();
            OpenDebt fee = new OpenDebt(
                    ahead.newId(), of.document(), of.number(), of.position(), true, act.on(), act.amount());
            ahead.add(new Debt(
                    fee,
                    false,
                    act.amount(),
                    act.debt().zero(),
                    act.debt().issuedOn(),
                    act.debt().mutedUntil(),
                    null,
                    LateFeePolicy.none(act.debt().zero()),
                    List.of(),
                    of.id(),
                    null,
                    act.debt().plan()));
        }
    }
}
