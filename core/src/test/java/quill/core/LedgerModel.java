package quill.core;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/** What a ledger should come to, in plain numbers of minor units; shares no code with it. */
final class LedgerModel {
    /** Open, by debt, in the order in which money settles them. */
    final Map<Long, Long> open = new LinkedHashMap<>();

    final List<Pool> pools = new ArrayList<>();
    private final List<Use> uses = new ArrayList<>();

    /** Money of a client; of a movement, or of a document where it is 0. */
    static final class Pool {
        final long movement;
        final boolean deposit;
        long reserved;
        long left;

        Pool(long movement, boolean deposit, long reserved, long left) {
            this.movement = movement;
            this.deposit = deposit;
            this.reserved = reserved;
            this.left = left;
        }

        boolean free() {
            return !deposit && reserved == 0 && left > 0;
        }
    }

    /** So much of a debt; out of a pool, or of the movement itself where that is null. */
    private static final class Use {
        final long debt;
        final long movement;
        final Pool pool;
        long amount;

        Use(long debt, long movement, Pool pool, long amount) {
            this.debt = debt;
            this.movement = movement;
            this.pool = pool;
            this.amount = amount;
        }
    }

    void receive(long movement, long amount, List<Long> named, boolean only) {
        List<Long> order = new ArrayList<>(open.keySet());
        order.sort(Comparator.comparing((Long d) -> !named.contains(d)));
        long left = amount;
        for (long debt : order) {
            long part = only && !named.contains(debt) ? 0 : Math.min(left, open.get(debt));
            if (part > 0) {
                use(debt, movement, null, part);
                left -= part;
            }
        }
        if (left > 0) {
            pools.add(new Pool(movement, false, 0, left));
        }
    }

    private void use(long debt, long movement, Pool pool, long part) {
        uses.add(new Use(debt, movement, pool, part));
        open.merge(debt, -part, Long::sum);
        if (pool != null) {
            pool.left -= part;
        }
    }

    void cover() {
        for (long debt : open.keySet()) {
            for (Pool pool : List.copyOf(pools)) {
                long part = pool.free() ? Math.min(pool.left, open.get(debt)) : 0;
                if (part > 0) {
                    use(debt, pool.movement, pool, part);
                }
            }
        }
    }

    void drawDeposits(long amount) {
        long left = amount;
        for (Pool pool : pools) {
            long part = pool.deposit ? Math.min(left, pool.left) : 0;
            pool.left -= part;
            left -= part;
        }
    }

    /** Takes a movement back, of which this much is with the client. */
    void takeBack(long movement, long amount, boolean others) {
        long missing = amount;
        for (Use use : latest(u -> u.movement == movement && u.pool == null)) {
            long part = Math.min(missing, use.amount);
            missing -= part;
            open.merge(use.debt, part, Long::sum);
            use.amount -= part;
        }
        missing = outOf(missing, p -> p.movement == movement);
        List<Use> opened = new ArrayList<>();
        missing = openAgain(missing, u -> u.pool != null && u.movement == movement, opened);
        missing = outOf(missing, Pool::free);
        missing = openAgain(missing, u -> u.pool != null && u.movement != movement, opened);
        missing = outOf(missing, p -> true);
        if (others) {
            missing = openAgain(missing, u -> u.pool == null && u.movement != movement, new ArrayList<>());
        }
        if (missing > 0) {
            throw new IllegalStateException("missing " + missing);
        }
        for (Use was : opened) {
            long wanted = was.amount;
            for (Pool other : List.copyOf(pools)) {
                long part = other.free() ? Math.min(wanted, other.left) : 0;
                if (part > 0) {
                    use(was.debt, other.movement, other, part);
                    wanted -= part;
                }
            }
        }
    }

    /** Whether so much of a movement can be found. @param others whether other money may stand for it */
    boolean canGo(long movement, long amount, boolean others) {
        long found = uses.stream()
                        .filter(u -> u.pool != null || others || u.movement == movement)
                        .mapToLong(u -> u.amount)
                        .sum()
                + pools.stream().filter(p -> !p.deposit).mapToLong(p -> p.left).sum();
        return found >= amount;
    }

    /** What can be given back of a movement where what it settles may be opened. */
    long refundable(long movement) {
        return uses.stream()
                        .filter(u -> u.movement == movement)
                        .mapToLong(u -> u.amount)
                        .sum()
                + pools.stream().filter(Pool::free).mapToLong(p -> p.left).sum();
    }

    /** Gives back of a movement: out of its credit, then any, then, where that is said, out of what it settles. */
    void refund(long movement, long amount, boolean opens) {
        long missing = outOf(amount, p -> p.free() && p.movement == movement);
        missing = outOf(missing, Pool::free);
        if (opens) {
            missing = openAgain(missing, u -> u.movement == movement, new ArrayList<>());
        }
        if (missing > 0) {
            throw new IllegalStateException("missing " + missing);
        }
    }

    /** A note takes credit that was given before: out of what was gained, then any, then what that had settled. */
    void takeCredit(long amount, List<Pool> gained) {
        long missing = outOf(amount, gained::contains);
        missing = outOf(missing, Pool::free);
        missing = openAgain(missing, u -> u.pool != null, new ArrayList<>());
        missing = outOf(missing, p -> true);
        if (missing > 0) {
            throw new IllegalStateException("missing " + missing);
        }
    }

    long outOf(long amount, Predicate<Pool> which) {
        long missing = amount;
        for (Pool pool : pools) {
            long part = !pool.deposit && which.test(pool) ? Math.min(missing, pool.left) : 0;
            pool.left -= part;
            missing -= part;
        }
        return missing;
    }

    private List<Use> latest(Predicate<Use> which) {
        List<Use> some = new ArrayList<>();
        uses.stream().filter(which).forEach(u -> some.add(0, u));
        return some;
    }

    private long openAgain(long amount, Predicate<Use> which, List<Use> opened) {
        long missing = amount;
        for (Use use : latest(which)) {
            long part = Math.min(missing, use.amount);
            use.amount -= part;
            open.merge(use.debt, part, Long::sum);
            missing -= part;
            opened.add(new Use(use.debt, use.movement, use.pool, part));
        }
        return missing;
    }

    /** What settles a debt is credit again, then the debt asks for nothing. @return by how much it falls */
    long takeOff(long debt) {
        for (Use use : uses) {
            if (use.debt == debt && use.pool != null) {
                use.pool.left += use.amount;
                open.merge(debt, use.amount, Long::sum);
                use.amount = 0;
            }
        }
        Map<Long, Long> byMovement = new java.util.TreeMap<>();
        for (Use use : uses) {
            if (use.debt == debt && use.amount > 0) {
                byMovement.merge(use.movement, use.amount, Long::sum);
                open.merge(debt, use.amount, Long::sum);
                use.amount = 0;
            }
        }
        byMovement.forEach((movement, sum) -> pools.add(new Pool(movement, false, 0, sum)));
        return open.put(debt, 0L);
    }

    /** All of one use becomes another debt's. @return how much */
    void move(long movement, boolean credit, long from, long to, long amount) {
        Use use = latest(u ->
                        u.movement == movement && u.debt == from && (u.pool != null) == credit && u.amount == amount)
                .get(0);
        use.amount = 0;
        open.merge(from, amount, Long::sum);
        uses.add(new Use(to, movement, use.pool, amount));
        open.merge(to, -amount, Long::sum);
    }
}
