package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.document.CreditorReference;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.core.letter.LetterField;
import quill.core.money.Amounts;
import quill.core.pay.PageChoices;
import quill.core.pay.WayToPay;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.common.BusinessClock;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.letters.LetterFacts;
import quill.server.letters.Phrases;
import quill.server.links.Links;

/** What every letter about a document can say: whom it is to, what it is called, how it stands, how to pay it. */
@Component
class LetterBasics {
    private final InvoicesService invoices;
    private final BankAccounts accounts;
    private final Debts debts;
    private final WaysToPay ways;
    private final OnTrial trials;
    private final Links links;
    private final Phrases phrases;
    private final BusinessClock clock;

    LetterBasics(
            InvoicesService invoices,
            BankAccounts accounts,
            Debts debts,
            WaysToPay ways,
            OnTrial trials,
            Links links,
            Phrases phrases,
            BusinessClock clock) {
        this.invoices = invoices;
        this.accounts = accounts;
        this.debts = debts;
        this.ways = ways;
        this.trials = trials;
        this.links = links;
        this.phrases = phrases;
        this.clock = clock;
    }

    /** A document as a letter speaks of it. */
    record About(Document document, PrintedDocument printed, List<Measure.Part> parts, String page) {
        /** What is open of it; an invoice that deposits paid for whole has no installment. */
        Money open() {
            return parts.stream()
                    .map(p -> p.open().money())
                    .reduce(Money.zero(CurrencyUnit.of(document.currency())), Money::plus);
        }

        /** What is open of it, or null where nothing is, so that no sentence speaks of it. */
        String openOrNothing() {
            return open().isPositive() ? Shown.money(open()) : null;
        }

        private List<Measure.Part> openParts() {
            return parts.stream().filter(p -> p.open().money().isPositive()).toList();
        }
    }

    About about(Document document) {
        return new About(
                document,
                invoices.document(document),
                Measure.of(debts.of(document.id()), clock.today()),
                links.pageOf(document.id()));
    }

    LocalDate today() {
        return clock.today();
    }

    String page(DocumentId id) {
        return links.pageOf(id);
    }

    String say(String phrase, Map<String, Object> about) {
        return phrases.say(phrase, about);
    }

    /** The business as a letter about money of a currency shows it. */
    Business from(CurrencyUnit currency) {
        return accounts.business(currency);
    }

    /** What every letter says: to whom, from whom, when. @param contact who is written to; may be empty */
    LetterFacts.Values values(Business from, String client, String contact) {
        return new LetterFacts.Values()
                .put(LetterField.CONTACT, contact.isEmpty() ? client : contact)
                .put(LetterField.CLIENT, client)
                .put(LetterField.BUSINESS, from.name())
                .put(LetterField.TODAY, Texts.day(clock.today()));
    }

    /** The same, with what a letter about one document says of it. */
    LetterFacts.Values values(About a, String contact) {
        PrintedDocument d = a.printed();
        LetterFacts.Values values = values(from(a.open().getCurrencyUnit()), d.to().name(), contact);
        own(d).forEach(values::own);
        return about(a, values);
    }

    /** Puts what a letter says of one document, in place of what it said of another. */
    LetterFacts.Values about(About a, LetterFacts.Values values) {
        PrintedDocument d = a.printed();
        String document = d.kind() == DocumentKind.QUOTE
                ? say("quote", Map.of("number", d.number()))
                : document(List.of(d.number()));
        return values.put(LetterField.DOCUMENT, document)
                .put(
                        LetterField.DOCUMENT_FOR,
                        say(
                                "document-for",
                                Map.of(
                                        "document",
                                        document,
                                        "subject",
                                        d.matter().subject())))
                .put(LetterField.OPEN, a.openOrNothing())
                .put(LetterField.PAGE, a.page())
                .put(LetterField.WHAT_FOR, d.matter().subject());
    }

    /** What the business's own fields say on a document. */
    Map<String, String> own(PrintedDocument d) {
        Map<String, String> own = new LinkedHashMap<>();
        d.matter().fields().forEach(f -> own.putIfAbsent(f.label(), f.value()));
        return own;
    }

    /** What documents are called in a sentence. */
    String document(List<String> numbers) {
        return say("document", Map.of("numbers", numbers));
    }

    /** The due date of all that is open, where it has one; else null. */
    LocalDate dueOn(About a) {
        List<LocalDate> days = a.openParts().stream()
                .filter(p -> !p.fee())
                .map(Measure.Part::dueOn)
                .distinct()
                .toList();
        return days.size() == 1 ? days.get(0) : null;
    }

    /** The lines of a document without tax, what is added and taken off, its taxes, and what it comes to. */
    List<LetterFacts.Row> itemised(PrintedDocument printed, String total) {
        List<LetterFacts.Row> rows = new ArrayList<>();
        printed.body()
                .lines()
                .forEach(l -> rows.add(LetterFacts.Row.plain(
                        l.description(), Shown.money(l.sums().net().money()))));
        PrintedDocument.PrintedBody body = printed.body();
        body.discounts()
                .forEach(e -> rows.add(LetterFacts.Row.plain(
                        e.description(), Shown.money(e.amount().money().negated()))));
        body.charges()
                .forEach(e -> rows.add(LetterFacts.Row.plain(
                        e.description(), Shown.money(e.amount().money()))));
        body.taxes().stream()
                .filter(t -> !body.taxInside() && !t.amount().money().isZero())
                .forEach(t -> rows.add(
                        LetterFacts.Row.plain(t.name(), Shown.money(t.amount().money()))));
        rows.add(LetterFacts.Row.plain(total, Shown.money(printed.sums().total().money())));
        return rows;
    }

    /** What is to be paid now, as its page asks first: all that is due, else what falls due next; null for nothing. */
    Money askedNow(About a) {
        List<Measure.Part> open = a.openParts();
        if (open.isEmpty() || a.document().voidedOn() != null) {
            return null;
        }
        List<Measure.Part> now =
                PageChoices.of(open, Measure.Part::dueOn, clock.today()).get(0).parts();
        return Amounts.sum(
                open.get(0).open().money().getCurrencyUnit(),
                now.stream().map(p -> p.open().money()).toList());
    }

    /** What was paid on trial, and whether cards are taken so now; letters say neither. */
    record Trial(List<OnTrial.Tried> payments, boolean on) {}

    Trial trial(About a) {
        Money sum = askedNow(a);
        boolean on = sum != null
                && ways.of(sum, a.document().clientId(), a.document().id()).test();
        return new Trial(trials.of(a.document().id()), on);
    }

    /** How to pay what is asked for now; none where nothing is open. */
    List<LetterFacts.Paying> payings(About a) {
        Money sum = askedNow(a);
        return sum == null ? List.of() : List.of(paying(sum, a.document(), a.page(), false));
    }

    /** How to pay a sum under the reference of a document. @param named whether the button says which sum it leads to */
    LetterFacts.Paying paying(Money sum, Document document, String page, boolean named) {
        WaysToPay.Ways offered = ways.of(sum, document.clientId(), document.id());
        String reference = CreditorReference.of(document.number());
        String code = SquareCode.payload(
                from(sum.getCurrencyUnit()).name(), offered.iban(), offered.bic(), sum, reference, page);
        return new LetterFacts.Paying(
                button(offered, named ? sum : null),
                page,
                offered.iban(),
                CreditorReference.grouped(reference),
                code,
                code.startsWith(SquareCode.TRANSFER),
                Shown.money(sum));
    }

    private String button(WaysToPay.Ways offered, Money sum) {
        Map<String, Object> about = new HashMap<>();
        about.put("any", offered.any());
        about.put("sum", sum);
        return say("button", about);
    }

    /** What came beside a payment, in sentences with a blank before them; empty for nothing. */
    String onTop(OnTop top) {
        return top.isAny() ? " " + say("on-top", about(top)) : "";
    }

    private Map<String, Object> about(OnTop top) {
        return Map.of("tip", top.tip(), "charged", top.charged(), "tax", top.tax());
    }

    /** The same as rows of a table. */
    List<LetterFacts.Row> topRows(OnTop top) {
        List<LetterFacts.Row> rows = new ArrayList<>();
        if (top.tip().isPositive()) {
            rows.add(LetterFacts.Row.plain(say("row-tip", Map.of()), Shown.money(top.tip())));
        }
        if (top.charged().isPositive()) {
            rows.add(LetterFacts.Row.plain(say("row-surcharge", about(top)), Shown.money(top.charged())));
        }
        return rows;
    }

    /** Sums, in words. */
    String sums(List<Money> sums) {
        return say("sums", Map.of("sums", sums));
    }

    /** A sentence that names the ways to pay a sum of a document; that nothing is to be paid, where the sum is null. */
    String waysSentence(Money asked, Document document) {
        WaysToPay.Ways offered = asked == null ? null : ways.of(asked, document.clientId(), document.id());
        return say(
                "ways",
                Map.of(
                        "settled",
                        asked == null,
                        "how",
                        asked == null ? List.of() : offered.how(),
                        "account",
                        asked != null && offered.transfer() && !offered.online()));
    }

    /** A sentence that says how else to pay, now that a card did not. */
    String otherWays(About a) {
        Money asked = askedNow(a);
        List<String> how = asked == null
                ? List.of()
                : ways.of(asked, a.document().clientId(), a.document().id()).offered().stream()
                        .filter(w -> !w.isOnline())
                        .map(WayToPay::how)
                        .toList();
        return say("other-ways", Map.of("how", how));
    }

    /** The schedule as it stands, to be drawn. */
    LetterFacts.Drawn drawn(String number, String subject, List<Measure.Part> parts) {
        return new LetterFacts.Drawn(say("caption", Map.of("number", number, "subject", subject)), parts);
    }
}
