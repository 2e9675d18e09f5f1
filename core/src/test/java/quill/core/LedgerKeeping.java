package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.document.CreditTotals;
import quill.core.document.Income;
import quill.core.document.Taken;
import quill.core.ledger.Account;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.Entry;
import quill.core.ledger.Lot;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Posting;
import quill.core.ledger.Settlement;
import quill.core.ledger.Source;
import quill.core.ledger.Step;
import quill.core.ledger.Valuation;
import quill.core.money.Exchange;
import quill.core.tax.TaxCategory;

/** Keeps what a ledger decides as rows, nothing of which is ever changed, and reads it from them again. */
final class LedgerKeeping {
    private final CurrencyUnit currency;
    private final CurrencyUnit own = CurrencyUnit.EUR;
    private final List<Settlement> settlements = new ArrayList<>();
    private final Map<Long, Lot> made = new LinkedHashMap<>();
    private final List<Step.Draw> draws = new ArrayList<>();
    private final List<Posting> postings = new ArrayList<>();
    private final List<Money> owns = new ArrayList<>();
    final Map<Long, OpenDebt> asked = new LinkedHashMap<>();
    BigDecimal rate = BigDecimal.ONE;

    LedgerKeeping(CurrencyUnit currency) {
        this.currency = currency;
    }

    void keep(ClientLedger.Decision decision) {
        Map<Long, Long> ids = new LinkedHashMap<>();
        for (Step step : decision.steps()) {
            for (Lot lot : step.made()) {
                long id = made.size() + 1L;
                ids.put(lot.id(), id);
                long from = ids.getOrDefault(lot.from(), lot.from());
                made.put(id, new Lot(id, lot.kind(), lot.source(), from, lot.reservedFor(), lot.left()));
            }
            for (Settlement s : step.settlements()) {
                settlements.add(new Settlement(
                        settlements.size() + 1L,
                        s.kind(),
                        s.debt(),
                        s.source(),
                        ids.getOrDefault(s.lot(), s.lot()),
                        s.amount(),
                        s.reverses()));
            }
            step.draws().forEach(d -> draws.add(new Step.Draw(ids.getOrDefault(d.lot(), d.lot()), d.to(), d.amount())));
            if (step.entry() != null) {
                book(step.entry());
            }
        }
    }

    /** As an entry is valued wherever it is kept: by what stands where each posting goes. */
    void book(Entry entry) {
        Exchange exchange = new Exchange(own, rate);
        List<Money> usual =
                entry.postings().stream().map(p -> exchange.of(p.amount())).toList();
        List<Valuation.Carried> carried = new ArrayList<>();
        entry.postings().forEach(p -> carried.add(currency.equals(own) ? null : standing(p)));
        Valuation valuation = Valuation.of(entry.postings(), usual, carried);
        postings.addAll(entry.postings());
        owns.addAll(valuation.sides());
        assertThat(valuation.sides().stream().reduce(valuation.difference(), Money::plus))
                .isEqualTo(Money.zero(own));
    }

    private Valuation.Carried standing(Posting p) {
        boolean held = p.account() == Account.RECEIVABLE
                || p.account() == Account.CLIENT_CREDIT
                || p.account() == Account.CLIENT_DEPOSITS;
        if (!held) {
            return null;
        }
        Money amount = Money.zero(currency);
        Money value = Money.zero(own);
        for (int i = 0; i < postings.size(); i++) {
            if (sameStand(postings.get(i), p)) {
                amount = amount.plus(postings.get(i).amount());
                value = value.plus(owns.get(i));
            }
        }
        return new Valuation.Carried(amount, value);
    }

    private static boolean sameStand(Posting a, Posting b) {
        return a.account() == b.account()
                && (a.account() != Account.RECEIVABLE || a.document().equals(b.document()));
    }

    /** What is open of a debt, by its rows alone. */
    long open(long debt) {
        return asked.get(debt).open().getAmountMinorLong()
                - settlements.stream()
                        .filter(s -> s.debt().id() == debt)
                        .mapToLong(s -> s.amount().getAmountMinorLong())
                        .sum();
    }

    /** What is left of a lot, by the rows alone. */
    long left(long lot) {
        return made.get(lot).left().getAmountMinorLong()
                - settlements.stream()
                        .filter(s -> s.lot() == lot)
                        .mapToLong(s -> s.amount().getAmountMinorLong())
                        .sum()
                - draws.stream()
                        .filter(d -> d.lot() == lot)
                        .mapToLong(d -> d.amount().getAmountMinorLong())
                        .sum()
                - made.values().stream()
                        .filter(l -> l.from() == lot)
                        .mapToLong(l -> l.left().getAmountMinorLong())
                        .sum();
    }

    ClientLedger ledger() {
        return ledgerWith(List.of());
    }

    /** With lots of which nothing is left only where a document took it: what settles something says its lot itself. */
    ClientLedger ledgerWith(List<Step.Draw> drawn) {
        List<OpenDebt> debts = asked.keySet().stream().map(this::debt).toList();
        List<Lot> lots = made.values().stream()
                .map(l -> new Lot(
                        l.id(), l.kind(), l.source(), l.from(), l.reservedFor(), Money.ofMinor(currency, left(l.id()))))
                .filter(l -> l.left().isPositive() || drawn.stream().anyMatch(d -> d.lot() == l.id()))
                .toList();
        return ClientLedger.of(currency, debts, lots, OpenDebt.ORDER);
    }

    OpenDebt debt(long id) {
        return asked.get(id).withOpen(Money.ofMinor(currency, open(id)));
    }

    /** Settlements of money that stand, the latest first, with what of each does. */
    List<Settlement> standing() {
        List<Settlement> stand = new ArrayList<>();
        for (Settlement s : settlements) {
            long left = s.amount().getAmountMinorLong()
                    + settlements.stream()
                            .filter(r -> r.reverses() == s.id())
                            .mapToLong(r -> r.amount().getAmountMinorLong())
                            .sum();
            if (s.reverses() == 0 && left > 0) {
                stand.add(
                        0,
                        new Settlement(
                                s.id(),
                                s.kind(),
                                debt(s.debt().id()),
                                s.source(),
                                s.lot(),
                                Money.ofMinor(currency, left),
                                0));
            }
        }
        return stand;
    }

    /** What documents took out of lots of a source, and did not put back. */
    List<Step.Draw> drawnByDocuments(Source of) {
        Map<String, Step.Draw> sums = new LinkedHashMap<>();
        for (Step.Draw d : draws) {
            if (d.to().document() != null
                    && (of.equals(d.to()) || made.get(d.lot()).source().equals(of))) {
                sums.merge(
                        d.lot() + " " + d.to(),
                        d,
                        (a, b) -> new Step.Draw(a.lot(), a.to(), a.amount().plus(b.amount())));
            }
        }
        return sums.values().stream().filter(d -> d.amount().isPositive()).toList();
    }

    List<Settlement> standingOf(long debt) {
        return standing().stream()
                .filter(s -> s.debt().id() == debt && s.kind().sum() == Settlement.Sum.SETTLED)
                .toList();
    }

    List<Settlement> othersThan(long debt) {
        return standing().stream()
                .filter(s -> s.lot() != 0 && s.debt().id() != debt)
                .toList();
    }

    CreditTotals totals(long given) {
        return new CreditTotals(
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(new Income(TaxCategory.S, "", Money.ofMinor(currency, given))),
                false,
                Money.ofMinor(currency, given),
                Money.zero(currency),
                Money.ofMinor(currency, given),
                Money.zero(currency),
                false,
                new Taken(List.of(), List.of(), List.of()));
    }

    long posted(Account account) {
        return postings.stream()
                .filter(p -> p.account() == account)
                .mapToLong(p -> p.amount().getAmountMinorLong())
                .sum();
    }

    /** Debts, lots and postings say the same, and what is settled is settled in both currencies. */
    void mustAgree() {
        long open = asked.keySet().stream().mapToLong(this::open).sum();
        assertThat(posted(Account.RECEIVABLE)).isEqualTo(open);
        assertThat(posted(Account.CLIENT_CREDIT)).isEqualTo(-lots(Lot.Kind.CREDIT));
        assertThat(posted(Account.CLIENT_DEPOSITS)).isEqualTo(-lots(Lot.Kind.DEPOSIT));
        asked.keySet().forEach(d -> assertThat(open(d)).isNotNegative());
        made.keySet().forEach(l -> assertThat(left(l)).isNotNegative());
        Map<Object, long[]> stands = new LinkedHashMap<>();
        for (int i = 0; i < postings.size(); i++) {
            Posting p = postings.get(i);
            Object stand = p.account() == Account.RECEIVABLE ? p.document() : p.account();
            long[] sums = stands.computeIfAbsent(stand, k -> new long[2]);
            sums[0] += p.amount().getAmountMinorLong();
            sums[1] += owns.get(i).getAmountMinorLong();
        }
        stands.forEach((stand, sums) -> {
            boolean held = !(stand instanceof Account a) || a == Account.CLIENT_CREDIT || a == Account.CLIENT_DEPOSITS;
            if (held && sums[0] == 0) {
                assertThat(sums[1]).as("own value of settled %s", stand).isZero();
            }
        });
    }

    private long lots(Lot.Kind kind) {
        return made.values().stream()
                .filter(l -> l.kind() == kind)
                .mapToLong(l -> left(l.id()))
                .sum();
    }
}
