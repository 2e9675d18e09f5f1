package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Posting;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxRounding;

public class AppropriationTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private final Random random = new Random(19);

    /** What comes in goes somewhere, no debt takes more than it has, and no later debt is served before an earlier. */
    @Test
    public void generatedPaymentsAreAppropriatedWholeAndInOrder() {
        for (int round = 0; round < 3_000; round++) {
            List<OpenDebt> debts = debts(random.nextInt(8));
            Set<Long> named = new HashSet<>();
            debts.stream().filter(d -> random.nextInt(4) == 0).forEach(d -> named.add(d.id()));
            Money money = Money.ofMinor(EUR, random.nextInt(60_000));
            Appropriation result = Appropriation.of(money, debts, named);
            assertThat(result.settled().plus(result.credit())).isEqualTo(money);
            assertThat(result.parts()).allSatisfy(p -> {
                assertThat(p.amount().isPositive()).isTrue();
                assertThat(p.amount().isGreaterThan(p.debt().open())).isFalse();
            });
            if (result.credit().isPositive()) {
                Money open = Amounts.sum(EUR, debts.stream().map(OpenDebt::open).toList());
                assertThat(result.settled()).isEqualTo(open);
            }
            noneServedBeforeAnEarlierOne(result, debts, named);
        }
    }

    private static void noneServedBeforeAnEarlierOne(Appropriation result, List<OpenDebt> debts, Set<Long> named) {
        Set<Long> full = new HashSet<>();
        result.parts().stream()
                .filter(p -> p.amount().isEqual(p.debt().open()))
                .forEach(p -> full.add(p.debt().id()));
        for (Appropriation.Part part : result.parts()) {
            boolean isNamed = named.contains(part.debt().id());
            for (OpenDebt other : debts) {
                boolean before = named.contains(other.id()) == isNamed
                        ? OpenDebt.ORDER.compare(other, part.debt()) < 0
                        : named.contains(other.id());
                if (before && other.open().isPositive()) {
                    assertThat(full).contains(other.id());
                }
            }
        }
    }

    private List<OpenDebt> debts(int count) {
        List<OpenDebt> debts = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            debts.add(new OpenDebt(
                    i + 1,
                    new DocumentId(1 + i / 2),
                    "2027-000" + (1 + i / 2),
                    1 + i % 2,
                    random.nextInt(4) == 0,
                    LocalDate.of(2027, 1, 1 + random.nextInt(5)),
                    Money.ofMinor(EUR, random.nextInt(20_000))));
        }
        return debts;
    }

    @Test
    public void moneyBelowZeroIsRefused() {
        assertThatThrownBy(() -> Appropriation.of(Money.parse("EUR -0.01"), List.of(), Set.of()))
                .hasMessageContaining("must be zero or more");
    }

    /** A credit note of the whole mirrors its invoice to the cent, posting by posting. */
    @Test
    public void aCreditNoteOfTheWholeMirrorsItsInvoice() {
        Tax high = Tax.standard("high", "VAT 21%", "21");
        Tax exempt = new Tax("exempt", "Exempt", Percent.of("0"), TaxCategory.E, false, "Article 132, teaching");
        for (boolean inside : new boolean[] {false, true}) {
            List<Line> lines = List.of(line("3", "10.12", high), line("1", "49.99", exempt), line("0.5", "0.01", high));
            Totals totals = DocumentReckoning.reckon(EUR, lines, inside, TaxRounding.PER_TAX);
            Entry issued = Bookings.issued(new DocumentId(7), totals);
            Entry credited = Bookings.reversed(Entry.Event.CREDIT_NOTE, issued);
            for (int i = 0; i < issued.postings().size(); i++) {
                Posting a = issued.postings().get(i);
                Posting b = credited.postings().get(i);
                assertThat(b.account()).isEqualTo(a.account());
                assertThat(b.amount()).isEqualTo(a.amount().negated());
            }
            assertThat(issued.postings().stream()
                            .filter(p -> p.account() == Account.INCOME)
                            .map(Posting::detail))
                    .containsExactly("S", "E");
        }
    }

    private static Line line(String quantity, String price, Tax tax) {
        return new Line("work", new BigDecimal(quantity), "", new BigDecimal(price), new Extent.None(), List.of(tax));
    }
}
