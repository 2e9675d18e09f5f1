package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.letter.LetterField;
import quill.server.common.Shown;
import quill.server.dispatch.LetterBasics.About;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Jobs;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterFacts.Row;

/** What letters say of money that is asked for before it falls due, and of deposits on quotes. */
@Component
public class DepositFacts {
    private final LetterBasics basics;
    private final Jobs jobs;
    private final AskedOnQuotes onQuotes;

    DepositFacts(LetterBasics basics, Jobs jobs, AskedOnQuotes onQuotes) {
        this.basics = basics;
        this.jobs = jobs;
        this.onQuotes = onQuotes;
    }

    /**
     * What is asked for.
     *
     * @param words for what; empty for a deposit, or for a part of an invoice
     * @param lines whether the letter shows the lines of the document, rather than one sentence
     */
    public record Asking(Money amount, String words, boolean lines) {}

    /** A deposit that came. @param missing of what is asked for */
    record Came(Money amount, String way, LocalDate on, Money missing) {}

    /** It asks. */
    public LetterFacts request(Document document, Asking asked) {
        About a = basics.about(document);
        String words = whatFor(document, asked.words());
        List<Row> rows = new ArrayList<>();
        if (asked.lines()) {
            rows.addAll(basics.itemised(
                    a.printed(), document.kind() == DocumentKind.QUOTE ? "Total, as accepted" : "Total, as invoiced"));
        }
        rows.add(Row.plain("Asked for now: " + words, Shown.money(asked.amount())));
        LetterFacts.Values values = basics.values(a, a.printed().to().under())
                .put(LetterField.TOTAL, Shown.money(a.printed().sums().total().money()))
                .put(LetterField.ASKED, Shown.money(asked.amount()))
                .put(LetterField.ASKED_FOR, words)
                .put(LetterField.WAYS, basics.waysSentence(asked.amount(), document));
        return new LetterFacts(
                basics.from(asked.amount().getCurrencyUnit()),
                values.all(),
                rows,
                "",
                List.of(),
                List.of(basics.paying(asked.amount(), document, a.page(), false)));
    }

    /** What is asked for, in a few words. */
    public static String whatFor(Document document, String words) {
        return !words.isEmpty() ? words : document.kind() == DocumentKind.QUOTE ? "the deposit" : "a part of it ahead";
    }

    /** A deposit came, and is held. */
    public LetterFacts deposit(Document quote, String payer, Came came) {
        About a = basics.about(quote);
        LetterFacts.Values values = basics.values(a, payer)
                .put(LetterField.PAID, Shown.money(came.amount()))
                .put(
                        LetterField.ARRIVED,
                        basics.say("deposit-came", Map.of("paid", came.amount(), "number", quote.number())))
                .put(LetterField.LEFT, left(quote, came.missing()));
        List<Row> rows = new ArrayList<>();
        rows.add(Row.plain(
                basics.say("received", Map.of("on", came.on(), "way", came.way())), Shown.money(came.amount())));
        stillAsked(came.missing(), rows);
        return facts(a, values, rows, came.missing(), quote);
    }

    /**
     * A deposit came, and an invoice says so: the letter leads to its quote, whose page asks for what is still to come.
     *
     * @param deposit the deposit invoice
     * @param open of all that the money was for
     * @param values what the receipt says of that invoice
     */
    LetterFacts receipt(Document deposit, Money open, LetterFacts.Values values, List<Row> rows) {
        Document quote = jobs.quoteOf(deposit);
        Money missing = onQuotes.missing(quote);
        About a = basics.about(quote);
        if (!open.isPositive()) {
            values.put(LetterField.LEFT, left(quote, missing));
        }
        List<Row> all = new ArrayList<>(rows);
        stillAsked(missing, all);
        return facts(a, basics.about(a, values), all, missing, quote);
    }

    private static void stillAsked(Money missing, List<Row> rows) {
        if (missing.isPositive()) {
            rows.add(Row.plain("Still to pay of what was asked for", Shown.money(missing)));
        }
    }

    /** It did not come. */
    LetterFacts depositUndone(Document quote, String payer, Money amount, Money missing) {
        About a = basics.about(quote);
        LetterFacts.Values values = basics.values(a, payer)
                .put(LetterField.PAID, Shown.money(amount))
                .put(LetterField.LEFT, left(quote, missing));
        return facts(a, values, List.of(), missing, quote);
    }

    /** What is still to come of what was asked for on a quote, or what becomes of what came. */
    private String left(Document quote, Money missing) {
        return basics.say("deposit-left", Map.of("missing", missing, "number", quote.number()));
    }

    private LetterFacts facts(About a, LetterFacts.Values values, List<Row> rows, Money missing, Document quote) {
        return new LetterFacts(
                basics.from(missing.getCurrencyUnit()),
                values.all(),
                rows,
                "",
                List.of(),
                missing.isPositive() ? List.of(basics.paying(missing, quote, a.page(), false)) : List.of());
    }
}
