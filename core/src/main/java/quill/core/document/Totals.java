package quill.core.document;

import java.util.List;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.tax.TaxTotal;

/** A document reckoned; total = net + tax, each of them already rounded and shown. */
public record Totals(
        List<LineTotal> lines,
        List<TaxTotal> taxes,
        Money net,
        Why netWhy,
        Money tax,
        Why taxWhy,
        Money total,
        Why totalWhy) {}
