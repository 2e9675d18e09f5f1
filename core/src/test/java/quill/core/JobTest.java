package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.Billed;
import quill.core.document.Continuing;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.Deduction;
import quill.core.document.DocumentReckoning;
import quill.core.document.DraftReading;
import quill.core.document.DraftRules;
import quill.core.document.Income;
import quill.core.document.IncomeReckoning;
import quill.core.document.JobBefore;
import quill.core.document.Taken;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.DocumentId;
import quill.core.issued.DepositInvoiceWriting;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedSums;
import quill.core.issued.Job;
import quill.core.issued.Look;
import quill.core.issued.Matter;
import quill.core.issued.Party;
import quill.core.issued.Paying;
import quill.core.ledger.Account;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.Posting;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.quote.Agreed;
import quill.core.quote.Staging;
import quill.core.tax.Tax;
import quill.core.tax.TaxRounding;

/** A quote that is billed by several documents: deposit invoices, stages, a final invoice that deducts them. */
public class JobTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final Party PARTY = new Party("A", "", "", "BE", "", "", "");
    private static final Map<String, Tax> TAXES = Map.of(
            "high",
            Documents.HIGH,
            "low",
            Documents.LOW,
            "gst",
            Documents.GST,
            "qst",
            Documents.QST,
            "upon",
            Documents.UPON);
    private static final List<List<String>> SETS =
            List.of(List.of("high"), List.of("low"), List.of("gst", "qst"), List.of("gst", "upon"));

    /** A job as it goes on: everything that was issued of it, and its entries. */
    private static final class Story {
        private final TypedDraft chosen;
        private final IssuedDocument quote;
        private final List<Integer> places;
        private final TaxRounding rounding;
        private final List<Agreed.Invoice> invoices = new ArrayList<>();
        private final List<Billed> billed = new ArrayList<>();
        private final List<Deduction> deposits = new ArrayList<>();
        private final List<IssuedDocument> issued = new ArrayList<>();
        private final List<Posting> postings = new ArrayList<>();

        private Story(TypedDraft chosen, TaxRounding rounding) {
            this.chosen = chosen;
            this.rounding = rounding;
            DraftReading.Read read = read(chosen);
            this.quote = document(DocumentReckoning.reckon(read.body()), null);
            this.places = read.places();
        }

        private DraftReading.Read read(TypedDraft typed) {
            DraftReading.Read read = DraftReading.read(
                    typed,
                    new DraftRules(
                            TAXES, CurrencyUnit.of(typed.currency()), rounding, Map.of(), Map.of(), "", null, DAY));
            assertThat(read.problems()).as(typed.toString()).isEmpty();
            return read;
        }

        private Agreed agreed() {
            return new Agreed(quote, chosen, places, invoices);
        }

        private Money left() {
            return Amounts.sum(
                            quote.currency(),
                            billed.stream().map(b -> b.total(quote.currency())).toList())
                    .negated()
                    .plus(quote.sums().total().amount());
        }

        private IssuedDocument deposit(Money received) {
            CreditTotals totals =
                    DepositInvoiceWriting.reckon(quote, Taken.billed(quote.creditable(), billed), received);
            Job job = new Job("Q-1", DAY, quote.sums().total().amount(), List.of(), left(), List.of());
            IssuedDocument d = DepositInvoiceWriting.write("D-" + issued.size(), quote, totals, DAY, DAY, null, job);
            Billed of = Billed.of(d.creditable(), Taken.nothing(d.creditable()));
            billed.add(of);
            deposits.add(new Deduction("Less " + d.number(), of));
            issued.add(d);
            postings.addAll(Bookings.depositInvoiced(new DocumentId(9), totals).postings());
            return d;
        }

        private IssuedDocument invoice(TypedDraft typed, boolean last) {
            DraftReading.Read read = read(typed);
            JobBefore before = new JobBefore(quote.creditable(), billed, last ? deposits : List.of());
            Totals totals = Continuing.of(
                    DocumentReckoning.reckon(read.body()), before, read.body().cash());
            List<Money> deducted = Continuing.deducted(totals, before);
            IssuedDocument d =
                    document(totals, new Job("Q-1", DAY, totals.total(), List.of(), totals.total(), deducted));
            Taken none = Taken.nothing(d.creditable());
            billed.add(Billed.of(d.creditable(), none));
            invoices.add(new Agreed.Invoice(d, typed, none));
            issued.add(d);
            postings.addAll(Bookings.issued(new DocumentId(8), totals, deducted).postings());
            return d;
        }
    }

    private static IssuedDocument document(Totals totals, Job job) {
        return new IssuedDocument(
                "N",
                DAY,
                null,
                PARTY,
                PARTY,
                new Matter("Job", "", "", List.of(), DAY, null, "", "", ""),
                IssuedDocument.Body.of(totals, unit -> ""),
                IssuedSums.of(totals),
                null,
                Paying.NOTHING,
                new Look("serif", "", "", "quantity", "two"),
                job);
    }

    private static TypedLine line(String what, String quantity, String price, String discount, List<String> taxes) {
        return new TypedLine(what, quantity, "h", price, discount, taxes, null, null, null, what, null, null);
    }

    private static final TypedDraft TWO_RATES = TypedDraft.in("EUR")
            .lines(List.of(
                    line("Restoration", "1", "6000.05", "", List.of("high")),
                    line("Sheet music", "10", "95.37", "", List.of("low"))))
            .build();

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }

    /** 6,000.05 at 21 % and 953.70 at 6 %: 8,270.98. Half of it is received, billed by sets, and deducted by the end. */
    @Test
    public void aDepositInvoiceOverTwoRatesIsDeductedByTheFinalInvoice() {
        Story story = new Story(TWO_RATES, TaxRounding.PER_TAX);
        assertThat(story.quote.sums().total().amount()).isEqualTo(eur("8270.98"));
        IssuedDocument deposit = story.deposit(eur("4135.49"));
        assertThat(deposit.sums().groups()).extracting(TaxGroup::total).containsExactly(eur("3630.03"), eur("505.46"));
        assertThat(deposit.sums().groups()).extracting(TaxGroup::tax).containsExactly(eur("630.01"), eur("28.61"));
        IssuedDocument last = story.invoice(Staging.ofRest(story.agreed()), true);
        assertThat(last.lines()).hasSize(4);
        assertThat(last.lines().get(2).net()).isEqualTo(eur("-3000.02"));
        assertThat(last.lines().get(3).net()).isEqualTo(eur("-476.85"));
        assertThat(last.sums().groups()).extracting(TaxGroup::tax).containsExactly(eur("630.00"), eur("28.61"));
        assertThat(last.sums().total().amount()).isEqualTo(eur("4135.49"));
        settled(story);
    }

    /** Three stages of the same job: 30 %, then 4 of 10, then the rest; their taxes sum to the whole's. */
    @Test
    public void threeStagesSumToTheWhole() {
        Story story = new Story(TWO_RATES, TaxRounding.PER_TAX);
        IssuedDocument first = story.invoice(Staging.ofPercent(story.agreed(), Percent.of("30")), false);
        assertThat(first.lines().get(0).description()).isEqualTo("30% of Restoration");
        assertThat(first.sums().net().amount()).isEqualTo(eur("2086.13"));
        assertThat(Staging.quantityLeft(story.agreed(), 1)).isEqualByComparingTo("7");
        IssuedDocument second = story.invoice(Staging.ofLines(story.agreed(), Map.of(1, new BigDecimal("4"))), false);
        assertThat(second.lines().get(0).quantity()).isEqualByComparingTo("4");
        assertThat(second.sums().net().amount()).isEqualTo(eur("381.48"));
        assertThatThrownBy(() -> Staging.ofLines(story.agreed(), Map.of(1, new BigDecimal("3.5"))))
                .hasMessageContaining("lines[1].quantity (3.5): must be above zero and at most 3");
        IssuedDocument last = story.invoice(Staging.ofRest(story.agreed()), true);
        assertThat(last.lines())
                .extracting(l -> l.description())
                .containsExactly("Rest of Restoration", "Rest of Sheet music");
        settled(story);
        assertThatThrownBy(() -> Staging.ofRest(story.agreed())).hasMessageContaining("all of this quote is billed");
        assertThatThrownBy(() -> Staging.ofPercent(story.agreed(), Percent.of("1")))
                .hasMessageContaining("nothing");
    }

    /** A deposit of the whole leaves a final invoice of nothing, with no tax left over. */
    @Test
    public void aDepositOfAllLeavesNothing() {
        Story story = new Story(TWO_RATES, TaxRounding.PER_TAX);
        story.deposit(eur("1000.01"));
        story.deposit(eur("7270.97"));
        assertThatThrownBy(() -> story.deposit(eur("0.01"))).isInstanceOf(RefusedException.class);
        IssuedDocument last = story.invoice(Staging.ofRest(story.agreed()), true);
        assertThat(last.sums().total().amount()).isEqualTo(eur("0.00"));
        settled(story);
    }

    /** Taken back whole, the final invoice leaves the deposits invoiced as they were. */
    @Test
    public void aFinalInvoiceTakenBackGivesItsDepositsBack() {
        for (String inside : List.of("no", "yes")) {
            Story story = new Story(
                    TWO_RATES.changed().taxInside(inside.equals("yes")).build(), TaxRounding.PER_TAX);
            story.deposit(eur("333.33"));
            IssuedDocument last = story.invoice(Staging.ofRest(story.agreed()), true);
            Creditable of = last.creditable();
            CreditTotals note = quill.core.document.CreditReckoning.ofRest(of, Taken.nothing(of));
            List<Posting> both = new ArrayList<>(story.postings);
            both.addAll(Bookings.creditNote(new DocumentId(8), note, note.total(), eur("0.00"))
                    .postings());
            assertThat(balance(both, Account.INCOME)).isEqualTo(eur("0.00"));
            assertThat(balance(both, Account.DEPOSITS_INVOICED))
                    .isEqualTo(story.issued.get(0).sums().net().amount().negated());
        }
    }

    /** Any quote, billed in any way: what its documents bill sums to it, tax by tax and category by category. */
    @Test
    public void whateverIsBilledSumsToTheQuote() {
        Random random = new Random(20_270_315);
        int documents = 0;
        for (int i = 0; i < 4_000; i++) {
            Story story = new Story(
                    any(random, List.of("EUR", "JPY", "KWD").get(i % 3)),
                    i % 4 == 0 ? TaxRounding.PER_LINE : TaxRounding.PER_TAX);
            for (int n = random.nextInt(5); n > 0; n--) {
                step(story, random);
            }
            if (story.agreed().left().stream().anyMatch(m -> !m.isZero())) {
                story.invoice(Staging.ofRest(story.agreed()), true);
                settled(story);
            }
            documents += story.issued.size();
        }
        assertThat(documents).isGreaterThan(7_000);
    }

    private static void step(Story story, Random random) {
        Money left = story.left();
        long most = left.getAmountMinorLong();
        if (most <= 2 || story.deposits.isEmpty() && random.nextBoolean() && story.invoices.isEmpty()) {
            if (most > 2) {
                story.deposit(Money.ofMinor(
                        left.getCurrencyUnit(), 1 + random.nextInt((int) Math.min(most / 2, 1 << 30))));
            }
            return;
        }
        try {
            TypedDraft typed = random.nextBoolean()
                    ? Staging.ofPercent(story.agreed(), Percent.of(String.valueOf(1 + random.nextInt(40))))
                    : Staging.ofLines(story.agreed(), some(story, random));
            story.invoice(typed, false);
        } catch (RefusedException e) {
            assertThat(e.problems()).isNotEmpty();
        }
    }

    private static Map<Integer, BigDecimal> some(Story story, Random random) {
        int line = random.nextInt(story.quote.lines().size());
        BigDecimal all = story.quote.lines().get(line).quantity();
        return Map.of(line, all.divide(BigDecimal.valueOf(2 + random.nextInt(3)), 3, java.math.RoundingMode.DOWN));
    }

    private static TypedDraft any(Random random, String currency) {
        int decimals = CurrencyUnit.of(currency).getDecimalPlaces();
        List<TypedLine> lines = new ArrayList<>();
        for (int n = 1 + random.nextInt(4); n > 0; n--) {
            lines.add(line(
                    "Line " + n,
                    String.valueOf(1 + random.nextInt(12)),
                    BigDecimal.valueOf(1 + random.nextInt(500_000), decimals).toPlainString(),
                    random.nextInt(4) == 0 ? 1 + random.nextInt(50) + "%" : "",
                    SETS.get(random.nextInt(SETS.size()))));
        }
        return TypedDraft.in(currency)
                .lines(lines)
                .discounts(
                        random.nextInt(3) == 0
                                ? List.of(new TypedExtra("Loyal", 1 + random.nextInt(30) + "%", List.of()))
                                : List.of())
                .charges(
                        random.nextInt(3) == 0
                                ? List.of(new TypedExtra(
                                        "Delivery", String.valueOf(1 + random.nextInt(90)), List.of("high")))
                                : List.of())
                .taxInside(random.nextBoolean())
                .build();
    }

    /** All that was issued sums to the quote, and so do its books. */
    private static void settled(Story story) {
        IssuedSums quote = story.quote.sums();
        assertThat(sum(story, d -> d.sums().total().amount()))
                .as(story.chosen.toString())
                .isEqualTo(quote.total().amount());
        assertThat(sum(story, d -> d.sums().tax().amount()))
                .isEqualTo(quote.tax().amount());
        Map<String, Money> taxes = new TreeMap<>();
        Stream.concat(Stream.of(quote), story.issued.stream().map(IssuedDocument::sums))
                .forEach(s -> s.taxes()
                        .forEach(t -> taxes.merge(
                                t.tax().id(), s == quote ? t.amount().negated() : t.amount(), Money::plus)));
        assertThat(taxes.values()).allMatch(Money::isZero);
        assertThat(balance(story.postings, Account.DEPOSITS_INVOICED).isZero()).isTrue();
        assertThat(Amounts.sum(
                                story.quote.currency(),
                                story.postings.stream().map(Posting::amount).toList())
                        .isZero())
                .isTrue();
        Money income = Amounts.sum(
                story.quote.currency(),
                IncomeReckoning.ofInvoice(story.quote.creditable()).stream()
                        .map(Income::net)
                        .toList());
        assertThat(balance(story.postings, Account.INCOME)).isEqualTo(income.negated());
        new Entry(Entry.Event.ISSUED, story.postings);
    }

    private static Money balance(List<Posting> postings, Account account) {
        return Amounts.sum(
                postings.get(0).amount().getCurrencyUnit(),
                postings.stream()
                        .filter(p -> p.account() == account)
                        .map(Posting::amount)
                        .toList());
    }

    private static Money sum(Story story, java.util.function.Function<IssuedDocument, Money> of) {
        return Amounts.sum(
                story.quote.currency(),
                IntStream.range(0, story.issued.size())
                        .mapToObj(i -> of.apply(story.issued.get(i)))
                        .toList());
    }
}
