package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.Charge;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentDiscount;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Taken;
import quill.core.document.Totals;
import quill.core.issued.CreditNoteWriting;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedLine;
import quill.core.issued.IssuedSums;
import quill.core.issued.Look;
import quill.core.issued.Matter;
import quill.core.issued.Party;
import quill.core.issued.Paying;
import quill.core.issued.Reckoned;
import quill.core.money.Percent;
import quill.core.tax.TaxRounding;

/** An issued document is valid or there is none; that every sum holds is checked where it is made. */
public class IssuedDocumentTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final Party PARTY = new Party("A", "", "", "BE", "", "", "");
    private static final Look LOOK = new Look("serif", "", "", "quantity", "two");

    @Test
    public void whateverIsReckonedCanBeIssuedAndTakenBackInParts() {
        Documents documents = new Documents(20_270_315, Documents.ALL);
        Random random = new Random(7);
        int notes = 0;
        for (int i = 0; i < 1_500; i++) {
            Totals totals = Documents.totals(documents.next(i % 5 == 0 ? CurrencyUnit.JPY : CurrencyUnit.EUR));
            IssuedDocument invoice = issued(totals);
            assertThat(invoice.creditable()).isEqualTo(Creditable.of(totals));
            Taken taken = Taken.nothing(invoice.creditable());
            for (int n = 0; n < 3; n++) {
                CreditTotals note = part(invoice, taken, random);
                if (note != null) {
                    IssuedDocument written = written(invoice, note, note.whole() && taken.isNothing());
                    assertThat(written.sums().total().amount()).isEqualTo(note.total());
                    assertThat(written.corrects().number()).isEqualTo("2027-0001");
                    taken = note.after();
                    notes++;
                }
            }
        }
        assertThat(notes).isGreaterThan(2_000);
    }

    @Test
    public void oneOfTheWholeSaysTheInvoicesOwnLinesAgain() {
        IssuedDocument invoice = issued(Documents.totals(new Documents(3, Documents.PLAIN).next(CurrencyUnit.EUR)));
        CreditTotals rest = CreditReckoning.ofRest(invoice.creditable(), Taken.nothing(invoice.creditable()));
        IssuedDocument written = written(invoice, rest, true);
        assertThat(written.body()).isEqualTo(invoice.body());
        assertThat(written.sums().total().amount())
                .isEqualTo(invoice.sums().total().amount());
        assertThat(written.paying()).isEqualTo(Paying.NOTHING);
        assertThat(written.matter().terms()).isEmpty();
    }

    @Test
    public void whatDoesNotAddUpIsNoDocument() {
        IssuedDocument d = issued(Documents.totals(new Documents(3, Documents.PLAIN).next(CurrencyUnit.EUR)));
        IssuedSums s = d.sums();
        Reckoned more = new Reckoned(s.total().amount().plus(1), s.total().why());
        assertThatThrownBy(() -> new IssuedSums(
                        s.taxes(), s.groups(), false, s.net(), s.tax(), more, s.prepaid(), s.rounding(), s.due()))
                .hasMessageContaining("net and tax come to");
        assertThatThrownBy(() -> new IssuedSums(
                        s.taxes(), s.groups(), false, s.net(), s.tax(), s.total(), s.prepaid(), s.rounding(), more))
                .hasMessageContaining("total, less prepaid, and rounding come to");
        IssuedLine line = d.lines().get(0);
        Money net = line.net();
        assertThatThrownBy(() -> new IssuedLine.Sums(net, net, net)).hasMessageContaining("is not");
        List<IssuedLine> without = d.lines().subList(0, d.lines().size() - 1);
        assertThatThrownBy(() -> with(
                        d,
                        new IssuedDocument.Body(
                                without, d.body().discounts(), d.body().charges())))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new IssuedDocument.Body(List.of(), List.of(), List.of()))
                .hasMessageContaining("a line at least");
    }

    @Test
    public void aPercentageOfNothingButReturnsIsRefusedSinceItWouldBePrintedAndNotCounted() {
        Line returned = new Line(
                "strings", BigDecimal.ONE.negate(), "", BigDecimal.TEN, new Extent.None(), List.of(Documents.HIGH));
        DocumentBody body = new DocumentBody(
                CurrencyUnit.EUR,
                List.of(returned),
                List.of(new DocumentDiscount("loyal", new Extent.OfPercent(Percent.of("10")), List.of())),
                List.of(new Charge("delivery", new Extent.OfAmount(Money.parse("EUR 30")), List.of(Documents.HIGH))),
                false,
                TaxRounding.PER_TAX,
                null,
                null,
                null);
        assertThatThrownBy(() -> Documents.totals(body)).hasMessageContaining("must not be more than the lines");
    }

    private static IssuedDocument issued(Totals totals) {
        return new IssuedDocument(
                "2027-0001",
                DAY,
                null,
                PARTY,
                PARTY,
                new Matter("Tuning", "", "", List.of(), DAY, null, "", "At once", ""),
                IssuedDocument.Body.of(totals, unit -> "HUR"),
                IssuedSums.of(totals),
                null,
                new Paying("BE1", "", "RF1", ""),
                LOOK);
    }

    private static IssuedDocument with(IssuedDocument d, IssuedDocument.Body body) {
        return new IssuedDocument(
                d.number(), DAY, null, PARTY, PARTY, d.matter(), body, d.sums(), null, d.paying(), LOOK);
    }

    private static IssuedDocument written(IssuedDocument invoice, CreditTotals note, boolean mirror) {
        return CreditNoteWriting.write("CN-1", invoice, note, mirror, "damp", DAY.plusDays(1), "serif");
    }

    /** A line, an amount or the rest; null where the rules refuse it. */
    private static CreditTotals part(IssuedDocument invoice, Taken taken, Random random) {
        Creditable of = invoice.creditable();
        Money left = CreditReckoning.left(of, taken);
        try {
            switch (random.nextInt(3)) {
                case 0:
                    return left.isZero() ? null : CreditReckoning.ofRest(of, taken);
                case 1:
                    return CreditReckoning.ofAmount(
                            of, taken, Money.ofMinor(of.currency(), 1 + left.getAmountMinorLong() / 3));
                default:
                    int line = random.nextInt(of.lines().size());
                    BigDecimal open = of.lines()
                            .get(line)
                            .quantity()
                            .subtract(taken.lines().get(line));
                    List<Integer> charges =
                            of.charges().isEmpty() || taken.charges().get(0).signum() != 0 ? List.of() : List.of(0);
                    return CreditReckoning.ofLines(of, taken, Map.of(line, open), charges);
            }
        } catch (RefusedException e) {
            return null;
        }
    }
}
