package quill.core.quote;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.document.Creditable;
import quill.core.document.Taken;
import quill.core.document.TypedDraft;
import quill.core.issued.IssuedDocument;

/**
 * An accepted quote, and what invoices billed of its lines.
 *
 * @param quote as it was accepted
 * @param chosen what was typed of it and chosen, numbers as programs write them
 * @param places of the quote's lines in what was typed
 * @param invoices that bill it, without its deposit invoices
 */
public record Agreed(IssuedDocument quote, TypedDraft chosen, List<Integer> places, List<Invoice> invoices) {
    /** Copies the lists. */
    public Agreed {
        places = List.copyOf(places);
        invoices = List.copyOf(invoices);
    }

    /**
     * An invoice that bills some of it.
     *
     * @param typed what it was made of
     * @param takenBack by credit notes
     */
    public record Invoice(IssuedDocument document, TypedDraft typed, Taken takenBack) {
        /** What it bills of the quote's line at a place. */
        Money billed(int place) {
            Money sum = Money.zero(document.currency());
            Creditable as = document.creditable();
            List<TypedDraft.TypedLine> lines =
                    typed.lines().stream().filter(l -> !l.saysNothing()).toList();
            for (int i = 0; i < Math.min(lines.size(), as.lines().size()); i++) {
                if (lines.get(i).of() != null && lines.get(i).of() == place) {
                    sum = sum.plus(as.left(i, takenBack));
                }
            }
            return sum;
        }
    }

    /** In which everything of it is. */
    public CurrencyUnit currency() {
        return quote.currency();
    }

    /** What is billed of one of the quote's lines. @param line from 0 */
    public Money billed(int line) {
        return invoices.stream().map(i -> i.billed(places.get(line))).reduce(Money.zero(currency()), Money::plus);
    }

    /** What is left of one of the quote's lines; not below zero where more was billed than agreed. */
    public Money left(int line) {
        Money net = quote.lines().get(line).net();
        Money left = net.minus(billed(line));
        boolean over = net.isNegative() ? left.isPositive() : left.isNegative();
        return over ? Money.zero(currency()) : left;
    }

    /** What is left of each line. */
    public List<Money> left() {
        List<Money> left = new ArrayList<>();
        for (int i = 0; i < quote.lines().size(); i++) {
            left.add(left(i));
        }
        return left;
    }
}
