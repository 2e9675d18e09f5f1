package quill.server.business;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.CashRounding;
import quill.core.money.TypedNumber;
import quill.server.common.Texts;

/**
 * How documents look and what they say.
 *
 * @param layout ledger or letter
 * @param terms what a new invoice begins with
 * @param labels of the business's own fields, as printed
 * @param lineShows what a line shows on paper beside its amount: quantity (and price), hours (and rate), or amount, nothing
 * @param typeface two (a serif for names and headings), plain (the one of the figures throughout) or noto
 * @param accent colour of headings on paper, as {@code #rrggbb}; empty for the usual ink
 * @param pageOnPaper whether the paper of what is not paid bears its page's address and a square code; left out is yes
 * @param coins the smallest coin of each currency in which cash is rounded
 */
public record DocumentSetting(
        String layout,
        String lineShows,
        String typeface,
        String terms,
        List<String> labels,
        List<Coin> coins,
        String accent,
        Boolean pageOnPaper,
        int version) {
    /** What is not named is as it is at first. */
    public DocumentSetting {
        lineShows = lineShows == null ? SHOWS.get(0) : lineShows;
        typeface = typeface == null ? TYPEFACES.get(0) : typeface;
        accent = accent == null ? "" : accent.strip().toLowerCase(Locale.ROOT);
        pageOnPaper = pageOnPaper == null || pageOnPaper;
    }

    /** One in the usual ink. */
    public DocumentSetting(String layout, String terms, List<String> labels, List<Coin> coins, int version) {
        this(layout, SHOWS.get(0), TYPEFACES.get(0), terms, labels, coins, "", true, version);
    }

    /** The layouts there are. */
    public static final List<String> LAYOUTS = List.of("ledger", "letter");

    /** What a line may show beside its amount. */
    public static final List<String> SHOWS = List.of("quantity", "hours", "amount");

    /** The typefaces there are. */
    public static final List<String> TYPEFACES = List.of("two", "plain", "noto");

    private static final int MOST_LABELS = 8;

    /** A currency's smallest coin. */
    public record Coin(String currency, String step) {}

    static DocumentSetting first() {
        return new DocumentSetting("ledger", "", List.of(), List.of(), 0);
    }

    /** The coins, as the core reads them. */
    public Map<CurrencyUnit, CashRounding> rounding() {
        Map<CurrencyUnit, CashRounding> rounding = new HashMap<>();
        for (Coin coin : coins) {
            CurrencyUnit currency = CurrencyUnit.of(coin.currency());
            rounding.put(currency, new CashRounding(Money.of(currency, new java.math.BigDecimal(coin.step()))));
        }
        return rounding;
    }

    /** The same with every field checked and trimmed. @throws RefusedException with all that is wrong */
    DocumentSetting checked() {
        List<Problem> problems = new ArrayList<>();
        oneOf("layout", layout, LAYOUTS, problems);
        oneOf("lineShows", lineShows, SHOWS, problems);
        oneOf("typeface", typeface, TYPEFACES, problems);
        String plainTerms = Texts.text("terms", terms, 4000, false, problems);
        List<String> plainLabels = new ArrayList<>();
        List<String> typed = labels == null ? List.of() : labels;
        for (int i = 0; i < typed.size(); i++) {
            String label = Texts.text("labels[" + i + "]", typed.get(i), 40, false, problems);
            if (plainLabels.contains(label)) {
                problems.add(new Problem("labels[" + i + "]", label, "is there already"));
            }
            if (!label.isEmpty()) {
                plainLabels.add(label);
            }
        }
        if (plainLabels.size() > MOST_LABELS) {
            problems.add(new Problem("labels", "", "at most " + MOST_LABELS + " fields"));
        }
        List<Coin> plainCoins = coins(problems);
        Accent.check("accent", accent, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new DocumentSetting(
                layout, lineShows, typeface, plainTerms, plainLabels, plainCoins, accent, pageOnPaper, version);
    }

    private static void oneOf(String field, String value, List<String> allowed, List<Problem> problems) {
        if (value == null || !allowed.contains(value)) {
            problems.add(new Problem(field, value, "must be one of " + String.join(", ", allowed)));
        }
    }

    private List<Coin> coins(List<Problem> problems) {
        List<Coin> plain = new ArrayList<>();
        List<Coin> typed = coins == null ? List.of() : coins;
        for (int i = 0; i < typed.size(); i++) {
            String path = "coins[" + i + "].";
            CurrencyUnit currency =
                    TypedNumber.currency(path + "currency", typed.get(i).currency(), problems);
            if (currency == null) {
                continue;
            }
            Money step = TypedNumber.amount(path + "step", typed.get(i).step(), currency, problems);
            if (step != null && step.isZero()) {
                problems.add(new Problem(path + "step", typed.get(i).step(), "must be above zero, such as 0.05"));
            } else if (step != null) {
                plain.add(new Coin(currency.getCode(), step.getAmount().toPlainString()));
            }
        }
        return plain;
    }
}
