package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.ledger.Account;
import quill.core.ledger.Posting;
import quill.core.ledger.Valuation;
import quill.core.ledger.Valuation.Carried;
import quill.core.money.Exchange;

/**
 * Entries of another currency in the own one. That a settled debt leaves nothing behind, and that the rates' difference
 * is a gain or a loss of its own, is how IAS 21.28 has it (value from memory).
 */
public class ValuationTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final CurrencyUnit GBP = CurrencyUnit.GBP;

    @Test
    public void aPaymentTakesTheReceivableOffAtItsOwnValue() {
        // £865.00 issued at 1.1745 are €1,015.94; £900.00 arrive at 1.2013, €1,081.17, of which £35.00 (€42.05) is
        // credit.
        List<Posting> postings = List.of(
                posting(Account.BANK, "900.00"),
                posting(Account.RECEIVABLE, "-865.00"),
                posting(Account.CLIENT_CREDIT, "-35.00"));
        Valuation v = value(postings, "1.2013", null, carried("865.00", "1015.94"), carried("0.00", "0.00"));
        assertThat(v.sides()).containsExactly(eur("1081.17"), eur("-1015.94"), eur("-42.05"));
        assertThat(v.difference()).isEqualTo(eur("-23.18"));
    }

    @Test
    public void apartFromAllOfItAShareGoes() {
        List<Posting> half = List.of(posting(Account.BANK, "50.00"), posting(Account.RECEIVABLE, "-50.00"));
        Valuation v = value(half, "1.0000", null, carried("100.00", "117.35"));
        // Half of 117.35 is 58.675, half up 58.68: a loss of 8.68.
        assertThat(v.sides()).containsExactly(eur("50.00"), eur("-58.68"));
        assertThat(v.difference()).isEqualTo(eur("8.68"));
    }

    @Test
    public void whatGoesBeyondHasTheRateOfTheDay() {
        List<Posting> more = List.of(posting(Account.CLIENT_CREDIT, "30.00"), posting(Account.RECEIVABLE, "-30.00"));
        Valuation v = value(more, "2", carried("-10.00", "-11.00"), carried("30.00", "60.00"));
        // £10.00 of credit at €11.00, and £20.00 beyond it at 2.
        assertThat(v.sides()).containsExactly(eur("51.00"), eur("-60.00"));
        assertThat(v.difference()).isEqualTo(eur("9.00"));
    }

    @Test
    public void roundingIsNoDifference() {
        List<Posting> issued = List.of(
                posting(Account.RECEIVABLE, "121.00"),
                posting(Account.INCOME, "-100.00"),
                posting(Account.TAX, "-21.00"));
        Valuation v = value(issued, "1.17345", carried("0.00", "0.00"), null, null);
        assertThat(v.sides().stream().reduce(Money::plus)).contains(eur("0.00"));
        assertThat(v.difference()).isEqualTo(eur("0.00"));
    }

    /** Invoices, payments in parts and credit used at changing rates: when nothing is open, nothing is left of it. */
    @Test
    public void whatIsSettledIsSettledInBothCurrencies() {
        Random random = new Random(28);
        for (int run = 0; run < 1_000; run++) {
            Map<Account, long[]> standing = new HashMap<>();
            Map<Account, Long> own = new HashMap<>();
            long open = 100 + random.nextInt(500_000);
            book(standing, own, random, Account.RECEIVABLE, open, Account.INCOME);
            long over = random.nextInt(10_000);
            long left = open + over;
            while (left > 0) {
                long part = Math.min(left, 1 + random.nextInt(200_000));
                book(standing, own, random, Account.BANK, part, Account.CLIENT_CREDIT);
                long used = Math.min(part, standing.get(Account.RECEIVABLE)[0]);
                if (used > 0) {
                    book(standing, own, random, Account.CLIENT_CREDIT, used, Account.RECEIVABLE);
                }
                left -= part;
            }
            if (over > 0) {
                book(standing, own, random, Account.CLIENT_CREDIT, over, Account.BANK);
            }
            for (Account account : List.of(Account.RECEIVABLE, Account.CLIENT_CREDIT)) {
                assertThat(standing.get(account)).as(account + " in run " + run).containsExactly(0, 0);
            }
            assertThat(own.values().stream().mapToLong(Long::longValue).sum()).isZero();
        }
    }

    /** Debits one account and credits another at a rate by chance. */
    private static void book(
            Map<Account, long[]> standing,
            Map<Account, Long> own,
            Random random,
            Account debit,
            long minor,
            Account credit) {
        List<Posting> postings = List.of(
                new Posting(debit, "", null, Money.ofMinor(GBP, minor)),
                new Posting(credit, "", null, Money.ofMinor(GBP, -minor)));
        List<Carried> carried = new ArrayList<>();
        for (Posting p : postings) {
            boolean held = p.account() == Account.RECEIVABLE || p.account() == Account.CLIENT_CREDIT;
            long[] now = standing.computeIfAbsent(p.account(), a -> new long[2]);
            carried.add(held ? new Carried(Money.ofMinor(GBP, now[0]), Money.ofMinor(EUR, now[1])) : null);
        }
        Exchange exchange = new Exchange(EUR, new BigDecimal("0.9").add(BigDecimal.valueOf(random.nextInt(5_000), 4)));
        Valuation v = Valuation.of(
                postings, postings.stream().map(p -> exchange.of(p.amount())).toList(), carried);
        for (int i = 0; i < postings.size(); i++) {
            long side = v.sides().get(i).getAmountMinorLong();
            long[] now = standing.get(postings.get(i).account());
            now[0] += postings.get(i).amount().getAmountMinorLong();
            now[1] += side;
            own.merge(postings.get(i).account(), side, Long::sum);
        }
        own.merge(Account.EXCHANGE_DIFFERENCES, v.difference().getAmountMinorLong(), Long::sum);
    }

    private static Valuation value(List<Posting> postings, String rate, Carried... carried) {
        Exchange exchange = new Exchange(EUR, new BigDecimal(rate));
        return Valuation.of(
                postings,
                postings.stream().map(p -> exchange.of(p.amount())).toList(),
                new ArrayList<>(java.util.Arrays.asList(carried)));
    }

    private static Posting posting(Account account, String pounds) {
        return new Posting(account, "", null, Money.parse("GBP " + pounds));
    }

    private static Carried carried(String pounds, String euros) {
        return new Carried(Money.parse("GBP " + pounds), eur(euros));
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
