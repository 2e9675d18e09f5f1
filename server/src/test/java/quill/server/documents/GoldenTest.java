package quill.server.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.document.CashRounding;
import quill.core.document.Charge;
import quill.core.document.DocumentBody;
import quill.core.document.DocumentDiscount;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.issued.Corrects;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedSums;
import quill.core.issued.Job;
import quill.core.issued.Look;
import quill.core.issued.Matter;
import quill.core.issued.Party;
import quill.core.issued.Paying;
import quill.core.latefee.FeeTax;
import quill.core.latefee.LateFeePolicy;
import quill.core.money.Exchange;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxRounding;
import quill.server.common.ValueJson;

/**
 * What is kept is read by every later build: the files here are what a build wrote, one for each format, and are never
 * changed. A new format gets a file of its own beside them.
 */
public class GoldenTest {
    private static final Path GOLDEN = Path.of("src/test/resources/golden");
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final Tax HIGH = Tax.standard("high", "VAT 21%", "21");
    private static final Tax UPON = Tax.compound("upon", "Upon 10%", "10");
    private final ValueJson json = new ValueJson();

    @Test
    public void anIssuedDocumentOfTheFirstFormatIsReadWhole() throws IOException {
        String kept = Files.readString(GOLDEN.resolve("issued-1.json")).strip();
        assertThat(DocumentContents.read(json, 1, kept)).isEqualTo(document());
    }

    @Test
    public void anIssuedDocumentOfTheSecondFormatIsReadWholeAndWrittenAlike() throws IOException {
        assertThat(DocumentContents.ISSUED_FORMAT).isEqualTo(2);
        String kept = Files.readString(GOLDEN.resolve("issued-2.json")).strip();
        assertThat(DocumentContents.read(json, 2, kept)).isEqualTo(ofAJob());
        assertThat(json.write(ofAJob())).isEqualTo(kept);
    }

    private static IssuedDocument ofAJob() {
        IssuedDocument d = document();
        Money ten = Money.parse("EUR 10.00");
        return new IssuedDocument(
                d.number(),
                d.issuedOn(),
                d.corrects(),
                d.from(),
                d.to(),
                d.matter(),
                d.body(),
                d.sums(),
                d.exchange(),
                d.paying(),
                d.look(),
                new Job(
                        "Q-2027-0001",
                        DAY,
                        Money.parse("EUR 5000.00"),
                        List.of(new Job.Earlier("2027-0001", DAY, "Deposit invoice", true, ten)),
                        Money.parse("EUR 12.00"),
                        List.of(ten, ten)));
    }

    @Test
    public void aPolicyIsReadWholeAndWrittenAlike() throws IOException {
        String kept = Files.readString(GOLDEN.resolve("late-fee-1.json")).strip();
        assertThat(json.read(kept, LateFeePolicy.class)).isEqualTo(policy());
        assertThat(json.write(policy())).isEqualTo(kept);
    }

    @Test
    public void whatIsNotWholeIsRefused() throws IOException {
        String kept = Files.readString(GOLDEN.resolve("issued-2.json"));
        for (String broken : List.of(
                kept.replaceFirst("\"number\":\"[^\"]*\",", ""),
                kept.replaceFirst("\"number\":", "\"numbers\":"),
                kept.replaceFirst("\"percent\":\\{", "\"by chance\":{"),
                kept.replaceFirst("\"total\":\\{\"amount\":\"EUR ", "\"total\":{\"amount\":\"EUR 1"))) {
            assertThat(broken).isNotEqualTo(kept);
            assertThatThrownBy(() -> json.read(broken, IssuedDocument.class)).isInstanceOf(RuntimeException.class);
        }
    }

    private static IssuedDocument document() {
        Totals totals = DocumentReckoning.reckon(new DocumentBody(
                CurrencyUnit.EUR,
                List.of(
                        new Line(
                                "Regulation",
                                new BigDecimal("14.5"),
                                "h",
                                new BigDecimal("68.00"),
                                new Extent.OfPercent(Percent.of("10")),
                                List.of(HIGH, UPON),
                                7L,
                                "both manuals",
                                "Tuning"),
                        new Line(
                                "Felt",
                                new BigDecimal("2.125"),
                                "m",
                                new BigDecimal("31.625"),
                                new Extent.OfAmount(Money.parse("EUR 1.05")),
                                List.of(HIGH))),
                List.of(new DocumentDiscount("Loyal", new Extent.OfPercent(Percent.of("2.5")), List.of())),
                List.of(new Charge("Delivery", new Extent.OfAmount(Money.parse("EUR 12.00")), List.of(HIGH))),
                false,
                TaxRounding.PER_TAX,
                null,
                Money.parse("EUR 100.00"),
                new CashRounding(Money.parse("EUR 0.05"))));
        return new IssuedDocument(
                "2027-0001",
                DAY,
                new Corrects("2026-0009", DAY.minusDays(9), "damp", false),
                new Party("Workshop", "pianos", "Quay 1", "BE", "w@w.example", "BE0123456789", ""),
                new Party("Reader", "", "There 2", "GB", "r@r.example", "", "Hall 3"),
                new Matter(
                        "Spring",
                        "PO 7",
                        "",
                        List.of(new Matter.Field("Room", "4")),
                        DAY,
                        DAY.plusDays(2),
                        "Thank you",
                        "",
                        ""),
                IssuedDocument.Body.of(totals, unit -> "h".equals(unit) ? "HUR" : ""),
                IssuedSums.of(totals),
                new Exchange(CurrencyUnit.GBP, new BigDecimal("0.8625")),
                new Paying("BE68539007547034", "", "RF18539007547034", "Late fee: EUR 10.00, once."),
                new Look("classic", "", "#224466", "quantity", "two"));
    }

    private static LateFeePolicy policy() {
        return new LateFeePolicy(
                new LateFeePolicy.Charge.OfOverdue(Percent.of("1.5")),
                7,
                new LateFeePolicy.Repeat.EveryDays(30),
                new LateFeePolicy.Cap.OfAmount(Money.parse("EUR 40.00")),
                Money.parse("EUR 5.00"),
                true,
                new FeeTax(true, false, List.of(new FeeTax.Share(List.of(HIGH), new BigDecimal("120.00")))));
    }
}
