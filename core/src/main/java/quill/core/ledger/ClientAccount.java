package quill.core.ledger;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/** The account of a client: every charge and receipt, with what the client owed after each. */
public final class ClientAccount {
    private ClientAccount() {}

    /** An entry as it touches the client: {@code change} raises what is owed where above zero. */
    public record Movement(long entry, LocalDate on, String what, String document, Money change) {}

    /** A line of the account; the balance is below zero where the client is owed. */
    public record Row(Movement movement, Money charged, Money received, Money balance) {}

    /** Rows in the order of the movements, each with the running balance. Movements of zero are left out. */
    public static List<Row> of(CurrencyUnit currency, List<Movement> movements) {
        List<Row> rows = new ArrayList<>();
        Money zero = Money.zero(currency);
        Money balance = zero;
        for (Movement movement : movements) {
            Money change = movement.change();
            if (!change.isZero()) {
                balance = balance.plus(change);
                rows.add(new Row(
                        movement,
                        change.isPositive() ? change : zero,
                        change.isNegative() ? change.negated() : zero,
                        balance));
            }
        }
        return List.copyOf(rows);
    }
}
