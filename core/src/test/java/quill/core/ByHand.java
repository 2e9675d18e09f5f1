package quill.core;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import quill.core.document.DocumentBody;
import quill.core.document.Extent;
import quill.core.document.Line;

/** A second reckoning of a document in whole cents, with exact fractions: it shares no line with the product's. */
final class ByHand {
    private final DocumentBody body;
    private final Map<String, Long> bases = new TreeMap<>();
    private final Map<String, BigDecimal> rates = new TreeMap<>();

    ByHand(DocumentBody body) {
        this.body = body;
    }

    long total() {
        for (Line line : body.lines()) {
            long gross = Fraction.of(line.quantity())
                    .times(Fraction.of(line.unitPrice()))
                    .times(Fraction.of(100))
                    .rounded();
            add(line.taxes().get(0).id(), line.taxes().get(0).rate().rate(), gross - of(line.discount(), gross));
        }
        Map<String, Long> lines = new TreeMap<>(bases);
        long sum = lines.values().stream().mapToLong(Long::longValue).sum();
        body.discounts().forEach(d -> split(of(d.extent(), sum), lines));
        body.charges()
                .forEach(c -> add(c.taxes().get(0).id(), c.taxes().get(0).rate().rate(), of(c.extent(), sum)));
        long total = 0;
        for (Map.Entry<String, Long> base : bases.entrySet()) {
            total += base.getValue()
                    + Fraction.of(base.getValue())
                            .times(Fraction.of(rates.get(base.getKey())))
                            .by(Fraction.of(100))
                            .rounded();
        }
        return total;
    }

    private void add(String tax, BigDecimal rate, long amount) {
        bases.merge(tax, amount, Long::sum);
        rates.put(tax, rate);
    }

    private static long of(Extent extent, long base) {
        if (extent instanceof Extent.OfPercent p) {
            return Fraction.of(base)
                    .times(Fraction.of(p.percent().rate()))
                    .by(Fraction.of(100))
                    .rounded();
        }
        return extent instanceof Extent.OfAmount a ? a.amount().getAmountMinorLong() : 0;
    }

    /** Largest remainders, in the order of the taxes' names where remainders are equal. */
    private void split(long amount, Map<String, Long> lines) {
        List<String> bearing =
                lines.keySet().stream().filter(k -> lines.get(k) > 0).toList();
        BigInteger weights =
                BigInteger.valueOf(bearing.stream().mapToLong(lines::get).sum());
        long spare = amount;
        Map<String, BigInteger> remainders = new TreeMap<>();
        for (String tax : bearing) {
            BigInteger[] share = BigInteger.valueOf(amount)
                    .multiply(BigInteger.valueOf(lines.get(tax)))
                    .divideAndRemainder(weights);
            bases.merge(tax, -share[0].longValueExact(), Long::sum);
            spare -= share[0].longValueExact();
            remainders.put(tax, share[1]);
        }
        List<String> byRemainder = new ArrayList<>(bearing);
        byRemainder.sort(Comparator.comparing((String k) -> remainders.get(k)).reversed());
        for (int i = 0; i < spare; i++) {
            bases.merge(byRemainder.get(i), -1L, Long::sum);
        }
    }
}
