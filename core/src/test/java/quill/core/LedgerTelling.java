package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.ledger.ClientLedger;

/** What happens to a client's money, beside plain numbers that must say the same. */
class LedgerTelling {
    final CurrencyUnit currency;
    final Random random;
    final LedgerKeeping kept;
    final LedgerModel model;
    /** What is left of each payment. */
    final Map<Long, Long> payments;

    private final LedgerBeside beside;

    LedgerTelling(LedgerBeside beside) {
        this.beside = beside;
        this.currency = beside.currency;
        this.random = beside.random;
        this.kept = beside.kept;
        this.model = beside.model;
        this.payments = beside.payments;
    }

    LedgerTelling(LedgerTelling same) {
        this(same.beside);
    }

    /** The state that is shared by all that tells of one story. */
    static final class LedgerBeside {
        private final CurrencyUnit currency;
        private final Random random;
        private final LedgerKeeping kept;
        private final LedgerModel model = new LedgerModel();
        private final Map<Long, Long> payments = new LinkedHashMap<>();
        private long ids;

        LedgerBeside(CurrencyUnit currency, Random random) {
            this.currency = currency;
            this.random = random;
            this.kept = new LedgerKeeping(currency);
        }
    }

    long next() {
        return ++beside.ids;
    }

    void keep(ClientLedger.Decision decision) {
        kept.keep(decision);
        ClientLedger after = decision.after();
        assertThat(minor(after.free())).isEqualTo(minor(kept.ledger().free()));
        assertThat(after.open()).isEqualTo(kept.ledger().open());
    }

    <T> T any(List<T> of) {
        return of.isEmpty() ? null : of.get(random.nextInt(of.size()));
    }

    Money money(long minor) {
        return Money.ofMinor(currency, minor);
    }

    static long minor(Money money) {
        return money.getAmountMinorLong();
    }
}
