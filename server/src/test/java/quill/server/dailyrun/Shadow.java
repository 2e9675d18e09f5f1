package quill.server.dailyrun;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import quill.core.id.ClientId;

/** One client's debts and credit, reckoned a second time with plain numbers and none of the product's code. */
final class Shadow {
    /** A plan. @param tones 1 friendly, 2 firm, 3 final @param text whether a step goes by text message */
    record Plan(int[] steps, int[] tones, boolean[] text) {
        static final Plan USUAL =
                new Plan(new int[] {-3, 0, 3, 14}, new int[] {1, 1, 2, 3}, new boolean[] {false, false, false, false});
        static final Plan SLOW =
                new Plan(new int[] {7, 21, 45}, new int[] {1, 2, 3}, new boolean[] {false, true, false});
        static final Plan EARLY = new Plan(new int[] {-7, 1}, new int[] {1, 2}, new boolean[] {true, false});
        static final Plan NONE = new Plan(new int[] {}, new int[] {}, new boolean[] {});

        int place(int step) {
            return Arrays.binarySearch(steps, step);
        }
    }

    private static final Comparator<Debt> ORDER = Comparator.comparing((Debt d) -> d.due)
            .thenComparing(d -> d.feeOf != null)
            .thenComparing(d -> d.number)
            .thenComparingInt(d -> d.place);

    final ClientId id;
    final boolean hasAddress;
    final boolean hasNumber;
    final Plan plan;
    final List<Debt> debts = new ArrayList<>();
    long credit;
    LocalDate mutedUntil;
    LocalDate keptBackFor;
    LocalDate remindedOn;
    /** Why the day's list may differ from what was done: something happened to this client since the morning. */
    boolean touched;

    /** Whether the last letter came back, and nobody has seen to that. */
    boolean bounced;

    Shadow(ClientId id, boolean hasAddress, boolean hasNumber, Plan plan) {
        this.id = id;
        this.hasAddress = hasAddress;
        this.hasNumber = hasNumber;
        this.plan = plan;
    }

    /** Late fees as agreed. @param rate hundredths of a percent @param every 0 for once, -1 for monthly */
    record Policy(int rate, int grace, int every, long cap, long smallest) {
        LocalDate dayOf(LocalDate due, int sequence) {
            LocalDate first = due.plusDays(grace + 1L);
            return every < 0 ? first.plusMonths(sequence - 1L) : first.plusDays((sequence - 1L) * every);
        }

        int latest(LocalDate due, LocalDate day) {
            int sequence = 0;
            while (sequence < (every == 0 ? 1 : 5_000)
                    && !dayOf(due, sequence + 1).isAfter(day)) {
                sequence++;
            }
            return sequence;
        }
    }

    static final class Debt {
        final String number;
        final int place;
        final LocalDate due;
        final LocalDate issued;
        final long amount;
        final Policy policy;
        final Debt feeOf;
        long open;
        int lastFee;
        long feesCharged;
        Integer used;
        /** How stern its last letter was: 0 none, 1 friendly, 2 firm, 3 final. */
        int last;

        boolean waived;
        Plan plan = Plan.USUAL;
        /** Of another currency than the rest: nothing else settles it, and it settles nothing else. */
        boolean foreign;

        Debt(String number, int place, LocalDate due, LocalDate issued, long amount, Policy policy, Debt feeOf) {
            this.number = number;
            this.place = place;
            this.due = due;
            this.issued = issued;
            this.amount = amount;
            this.policy = policy;
            this.feeOf = feeOf;
            this.open = amount;
        }
    }

    void pay(long amount) {
        credit += amount;
        useCredit();
        touched = true;
    }

    void useCredit() {
        debts.sort(ORDER);
        for (Debt d : debts) {
            if (d.foreign) {
                continue;
            }
            long part = Math.min(credit, d.open);
            d.open -= part;
            credit -= part;
        }
    }

    long open() {
        return debts.stream().filter(d -> !d.foreign).mapToLong(d -> d.open).sum();
    }

    /** Charges what is due on a day of the run. @return the fees in the order of the list */
    List<Debt> fees(LocalDate day) {
        List<Debt> charged = new ArrayList<>();
        for (Debt d : List.copyOf(debts)) {
            if (d.feeOf != null || d.policy == null) {
                continue;
            }
            int latest = d.policy.latest(d.due, day);
            if (latest > d.lastFee && d.open > 0 && d.open >= d.policy.smallest) {
                long exact = (d.open * d.policy.rate + 5_000) / 10_000;
                long fee = Math.min(exact, d.policy.cap - d.feesCharged);
                if (fee > 0) {
                    d.lastFee = latest;
                    d.feesCharged += fee;
                    Debt charge = new Debt(d.number, 1000 + charged.size(), day, d.issued, fee, null, d);
                    charge.plan = d.plan;
                    charged.add(charge);
                }
            }
        }
        debts.addAll(charged);
        return charged;
    }

    /** A waived fee no longer counts; what was paid on it is credit again. */
    void waive(Debt fee) {
        credit += fee.amount - fee.open;
        fee.open = 0;
        fee.waived = true;
        fee.feeOf.feesCharged -= fee.amount;
        useCredit();
    }

    /** Whether a letter is due on a day; its steps are used up. Called in the order of the run: after the fees. */
    boolean remind(LocalDate day, LocalDate since) {
        boolean muted = mutedUntil != null && !day.isAfter(mutedUntil);
        if (muted || (remindedOn != null && !day.isAfter(remindedOn))) {
            return false;
        }
        boolean held = day.equals(keptBackFor);
        int tone = 0;
        int before;
        do {
            before = tone;
            // Whoever was asked more sternly than this letter would is not in it; without them it may be milder still.
            tone = 0;
            for (Debt d : debts) {
                Integer step = stepOf(d, day, since);
                boolean waits = before > 0 && waits(d, day, before);
                tone = step == null || waits ? tone : Math.max(tone, tone(d, step));
            }
        } while (tone != before && tone > 0);
        if (tone == 0 || !held && !reached(tone, day, since)) {
            return false;
        }
        for (Debt d : debts) {
            Integer step = stepOf(d, day, since);
            boolean listed = !waits(d, day, tone) && (step != null || !d.due.isAfter(day));
            d.last = listed && d.open > 0 && !held ? tone : d.last;
            d.used = step == null ? d.used : step;
        }
        remindedOn = held ? remindedOn : day;
        return !held;
    }

    private Integer stepOf(Debt d, LocalDate day, LocalDate since) {
        return d.feeOf == null && isOwed(d) ? step(d, day, since) : null;
    }

    private static boolean waits(Debt d, LocalDate day, int tone) {
        return d.due.isBefore(day) && d.last > tone || d.feeOf != null && waits(d.feeOf, day, tone);
    }

    private static int tone(Debt d, int step) {
        return d.plan.tones[d.plan.place(step)];
    }

    /** It goes by mail where any of the sternest steps does, else by text message. */
    private boolean reached(int tone, LocalDate day, LocalDate since) {
        boolean mail = false;
        for (Debt d : debts) {
            Integer step = stepOf(d, day, since);
            mail |= step != null && !waits(d, day, tone) && tone(d, step) == tone && !d.plan.text[d.plan.place(step)];
        }
        return mail ? hasAddress && !bounced : hasNumber;
    }

    /** On a day that the run catches up no letter goes; one that was kept back for it uses up its steps. */
    void missed(LocalDate day, LocalDate since) {
        if (day.equals(keptBackFor)) {
            remind(day, since);
        }
    }

    private boolean isOwed(Debt d) {
        return d.open > 0 || debts.stream().anyMatch(f -> f.feeOf == d && f.open > 0);
    }

    private static Integer step(Debt d, LocalDate day, LocalDate since) {
        Integer latest = null;
        for (int step : d.plan.steps) {
            LocalDate on = d.due.plusDays(step);
            boolean waiting = (d.used == null || step > d.used) && on.isAfter(d.issued) && !on.isBefore(since);
            if (waiting && !on.isAfter(day)) {
                latest = step;
            }
        }
        return latest;
    }
}
