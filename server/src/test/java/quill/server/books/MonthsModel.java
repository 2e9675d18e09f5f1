package quill.server.books;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/**
 * A second reckoning of what clients owe and what the accounts hold, in whole cents, which shares no code with the books. It
 * rests on one thing: client credit settles whatever is open at once, so that of one client there is either something open or
 * credit; but what goes opens exactly what it had settled, whatever credit there is.
 */
final class MonthsModel {
    /** What a client owes less what it has paid; below zero for its credit. */
    final Map<ClientId, Long> balances = new HashMap<>();

    /** What accounts hold, by their names: a debit above zero. */
    final Map<String, Long> accounts = new HashMap<>();

    /** What of an invoice was written off. */
    final Map<DocumentId, Long> writtenOff = new HashMap<>();

    final List<Paid> payments = new ArrayList<>();

    /** Money that came. */
    static final class Paid {
        final long id;
        final ClientId client;
        final String account;
        /** Its order at the processor; null for none. */
        final String order;

        long left;
        long tip;
        long surcharge;
        long tax;
        boolean gone;
        boolean refunded;

        Paid(long id, ClientId client, String account, String order, long amount) {
            this.id = id;
            this.client = client;
            this.account = account;
            this.order = order;
            this.left = amount;
        }

        long top() {
            return tip + surcharge + tax;
        }
    }

    long open(ClientId client) {
        return Math.max(0, balances.getOrDefault(client, 0L));
    }

    void owe(ClientId client, long amount, String against) {
        balances.merge(client, amount, Long::sum);
        book(against, -amount);
    }

    void book(String account, long amount) {
        accounts.merge(account, amount, Long::sum);
    }

    /** Money comes for a client. */
    void came(Paid p) {
        payments.add(p);
        balances.merge(p.client, -p.left, Long::sum);
        book(p.account, p.left + p.top());
        top(p, 1);
    }

    private void top(Paid p, int sign) {
        book("TIPS", -sign * p.tip);
        book("SURCHARGES", -sign * p.surcharge);
        book("TAX", -sign * p.tax);
    }

    /** Some of it goes. @param withTop whether what was on top goes with it */
    void goes(Paid p, long amount, boolean withTop) {
        p.left -= amount;
        balances.merge(p.client, amount, Long::sum);
        book(p.account, -amount);
        if (withTop) {
            book(p.account, -p.top());
            top(p, -1);
        }
    }

    /** It is here again. */
    void comesAgain(Paid p, long amount, boolean withTop) {
        p.left += amount;
        balances.merge(p.client, -amount, Long::sum);
        book(p.account, amount);
        if (withTop) {
            book(p.account, p.top());
            top(p, 1);
        }
    }

    /** Costs that are kept where money is. */
    void costs(String account, long amount) {
        book(account, -amount);
        book("PROCESSING_FEES", amount);
    }
}
