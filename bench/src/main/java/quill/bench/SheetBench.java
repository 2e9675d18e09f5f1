package quill.bench;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.joda.money.CurrencyUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxRounding;

/** A sheet of 50 lines: our reckoning, with every why, against a bare loop that only adds up. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class SheetBench {
    private static final BigDecimal TENTH = new BigDecimal("0.10");
    private final List<Line> lines = lines(50);
    private final List<Line> thousand = lines(1_000);

    private static List<Line> lines(int count) {
        List<Line> lines = new ArrayList<>();
        Tax high = Tax.standard("high", "VAT 21%", "21");
        Tax low = Tax.standard("low", "VAT 6%", "6");
        for (int i = 0; i < count; i++) {
            lines.add(new Line(
                    "work",
                    BigDecimal.valueOf(10 + i, 1),
                    "h",
                    BigDecimal.valueOf(6800 + 31L * i, 2),
                    i % 5 == 0 ? new Extent.OfPercent(Percent.of("10")) : new Extent.None(),
                    List.of(i % 3 == 0 ? low : high)));
        }
        return lines;
    }

    @Benchmark
    public Totals thousandLines() {
        return DocumentReckoning.reckon(CurrencyUnit.EUR, thousand, false, TaxRounding.PER_TAX);
    }

    @Benchmark
    public Totals ours() {
        return DocumentReckoning.reckon(CurrencyUnit.EUR, lines, false, TaxRounding.PER_TAX);
    }

    @Benchmark
    public BigDecimal bare() {
        BigDecimal net = BigDecimal.ZERO;
        BigDecimal high = BigDecimal.ZERO;
        BigDecimal low = BigDecimal.ZERO;
        for (int i = 0; i < lines.size(); i++) {
            Line line = lines.get(i);
            BigDecimal gross = line.quantity().multiply(line.unitPrice()).setScale(2, RoundingMode.HALF_UP);
            if (i % 5 == 0) {
                gross = gross.subtract(gross.multiply(TENTH).setScale(2, RoundingMode.HALF_UP));
            }
            net = net.add(gross);
            if (i % 3 == 0) {
                low = low.add(gross);
            } else {
                high = high.add(gross);
            }
        }
        BigDecimal tax = high.multiply(new BigDecimal("0.21")).setScale(2, RoundingMode.HALF_UP);
        return net.add(tax).add(low.multiply(new BigDecimal("0.06")).setScale(2, RoundingMode.HALF_UP));
    }
}
