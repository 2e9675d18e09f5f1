package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.letter.LetterField;
import quill.core.money.Amounts;
import quill.core.quote.InstallmentOffer;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.creditnotes.CreditNote;
import quill.server.debts.AgreedTerms;
import quill.server.dispatch.LetterBasics.About;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.invoices.Plans;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterFacts.Row;

/** What letters about an invoice say: that it goes out, is credited, or that money came for it. */
@Component
public class DocumentFacts {
    private final LetterBasics basics;
    private final InvoicesService invoices;
    private final MessageRepository messages;
    private final DepositFacts deposits;
    private final Plans plans;

    DocumentFacts(
            LetterBasics basics,
            InvoicesService invoices,
            MessageRepository messages,
            DepositFacts deposits,
            Plans plans) {
        this.basics = basics;
        this.invoices = invoices;
        this.messages = messages;
        this.deposits = deposits;
        this.plans = plans;
    }

    /** An invoice goes out. */
    LetterFacts invoice(Document invoice) {
        About a = basics.about(invoice);
        boolean single = a.parts().stream().filter(p -> !p.fee()).count() == 1;
        LocalDate due = basics.dueOn(a);
        LetterFacts.Values values = basics.values(a, a.printed().to().under())
                .put(LetterField.TOTAL, Shown.money(a.printed().sums().total().money()))
                .put(LetterField.DUE, due == null ? null : Texts.day(due))
                .put(
                        LetterField.SENT_BEFORE,
                        messages.firstSent(invoice.id()).map(Texts::day).orElse(null))
                .put(LetterField.WAYS, (basics.waysSentence(basics.askedNow(a), invoice) + offered(invoice)).strip());
        return facts(a, values, a.parts().stream().map(p -> row(p, single)).toList());
    }

    /** What its page offers besides, and asks for first; empty for nothing. */
    private String offered(Document invoice) {
        Map<String, Object> about = new HashMap<>();
        Optional<InstallmentOffer> open = plans.open(invoice);
        about.put("most", open.map(InstallmentOffer::most).orElse(0));
        about.put("by", open.map(InstallmentOffer::first).orElse(null));
        about.put("early", plans.early(invoice).orElse(null));
        about.put("accept", plans.waitsForAcceptance(invoice));
        return " " + basics.say("offered", about);
    }

    /**
     * A quote goes out, or is accepted.
     *
     * @param by who accepted it; null until then
     * @param next what is asked for then; may be null
     */
    public LetterFacts quote(Document quote, LocalDate validUntil, String by, String next) {
        About a = basics.about(quote);
        LetterFacts.Values values = basics.values(a, a.printed().to().under())
                .put(LetterField.TOTAL, Shown.money(a.printed().sums().total().money()))
                .put(LetterField.VALID_UNTIL, Texts.day(validUntil))
                .put(LetterField.ACCEPTED_BY, by)
                .put(LetterField.WHAT_NEXT, next)
                .put(
                        LetterField.SENT_BEFORE,
                        messages.firstSent(quote.id()).map(Texts::day).orElse(null));
        return new LetterFacts(
                basics.from(a.open().getCurrencyUnit()),
                values.all(),
                basics.itemised(a.printed(), "Total"),
                "",
                List.of(),
                List.of());
    }

    /** The same once it is accepted, with how to pay what is asked for at once. @param asked null for nothing */
    public LetterFacts accepted(Document quote, LocalDate validUntil, String by, String next, Money asked) {
        LetterFacts said = quote(quote, validUntil, by, next);
        return asked == null
                ? said
                : said.payable(List.of(basics.paying(asked, quote, basics.page(quote.id()), false)));
    }

    /**
     * Installments are agreed anew.
     *
     * @param change what is, in a sentence
     * @param before what was agreed of them; those without a day say nothing
     */
    LetterFacts arranged(Document invoice, String change, List<AgreedTerms.Earlier> before) {
        About a = basics.about(invoice);
        List<AgreedTerms.Earlier> dated =
                before.stream().filter(e -> e.dueOn() != null).toList();
        LetterFacts.Values values = basics.values(a, a.printed().to().under())
                .put(LetterField.CHANGE, change)
                .put(LetterField.BEFORE, dated.isEmpty() ? null : basics.say("before", Map.of("parts", dated)));
        return facts(a, values, a.parts().stream().map(p -> row(p, false)).toList());
    }

    private Row row(Measure.Part p, boolean single) {
        return new Row(
                basics.say("part", Map.of("p", p, "single", single)),
                basics.say("part-stands", Map.of("p", p)),
                p.daysLate() > 0,
                Shown.money((p.isPartly() ? p.open() : p.amount()).money()),
                "");
    }

    /**
     * What became of what a credit note gave back.
     *
     * @param settled what it settled of other documents
     * @param credit what is held of the client's now
     * @param waiting the part of it that waits for an invoice
     */
    record Became(List<Appropriation.Part> settled, Money credit, Money waiting) {}

    /** A credit note goes out. */
    LetterFacts creditNote(Document invoice, CreditNote note, Became became) {
        About a = basics.about(invoice);
        Money free = became.credit().minus(became.waiting());
        String document = basics.document(List.of(invoice.number()));
        LetterFacts.Values values = basics.values(a, a.printed().to().under())
                .put(LetterField.CREDIT_NOTE, note.number())
                .put(LetterField.EXTENT, note.extent(a.printed().sums().total().money()))
                .put(LetterField.CREDITED, Shown.money(note.total()))
                .put(LetterField.REASON, note.reason())
                .put(
                        LetterField.LEFT,
                        (basics.say("left-of-one", Map.of("open", a.open(), "document", document))
                                        + " "
                                        + basics.say(
                                                "settles-others",
                                                Map.of(
                                                        "sums",
                                                        settled(byDocument(became.settled()), invoices::invoice))))
                                .strip())
                .put(LetterField.FREE_CREDIT, free.isPositive() ? Shown.money(free) : null)
                .put(LetterField.WAITING_CREDIT, became.waiting().isPositive() ? Shown.money(became.waiting()) : null);
        return facts(a, values, List.of());
    }

    private static Map<DocumentId, Money> byDocument(List<Appropriation.Part> settled) {
        Map<DocumentId, Money> sums = new LinkedHashMap<>();
        settled.forEach(p -> sums.merge(p.debt().document(), p.amount(), Money::plus));
        return sums;
    }

    private List<Settled> settled(Map<DocumentId, Money> sums, Function<DocumentId, Document> of) {
        return sums.entrySet().stream()
                .map(e -> new Settled(named(of.apply(e.getKey())), e.getValue()))
                .toList();
    }

    /** What a payment settled of one document. @param document what it is called in a sentence */
    record Settled(String document, Money sum) {}

    /**
     * Money arrived.
     *
     * @param invoice whose page the letter leads to
     * @param arrived what came, and every debt that it settled
     */
    public LetterFacts receipt(Document invoice, String payer, MoneyLetters.Arrived arrived) {
        About main = basics.about(invoice);
        Map<DocumentId, Money> sums = byDocument(arrived.settled());
        Map<DocumentId, About> about = new LinkedHashMap<>();
        sums.keySet().forEach(id -> about.put(id, id.equals(invoice.id()) ? main : basics.about(invoices.invoice(id))));
        List<String> numbers =
                about.values().stream().map(x -> x.document().number()).toList();
        Money open = Amounts.sum(
                main.open().getCurrencyUnit(),
                about.values().stream().map(About::open).toList());
        LetterFacts.Values values = basics.values(main, payer)
                .put(LetterField.PAID, Shown.money(arrived.paid()))
                .put(LetterField.ARRIVED, arrived(sums, about, arrived.paid()) + basics.onTop(arrived.onTop()))
                .put(
                        LetterField.LEFT,
                        basics.say(
                                "left-after-paying",
                                Map.of(
                                        "count",
                                        about.size(),
                                        "open",
                                        open,
                                        "document",
                                        basics.document(numbers),
                                        "marked",
                                        arrived.marked())))
                .put(LetterField.OPEN, open.isPositive() ? Shown.money(open) : null)
                .put(LetterField.FREE_CREDIT, arrived.credit().isPositive() ? Shown.money(arrived.credit()) : null);
        List<Row> rows = rows(arrived, sums, about);
        return invoice.kind() == DocumentKind.DEPOSIT_INVOICE
                ? deposits.receipt(invoice, open, values, rows)
                : facts(main, values, rows);
    }

    private String named(Document invoice) {
        return invoice.kind() == DocumentKind.DEPOSIT_INVOICE
                ? basics.say("deposit-invoice", Map.of("number", invoice.number()))
                : basics.document(List.of(invoice.number()));
    }

    private String arrived(Map<DocumentId, Money> sums, Map<DocumentId, About> about, Money paid) {
        List<Settled> settled = settled(sums, id -> about.get(id).document());
        boolean whole = settled.size() == 1 && settled.get(0).sum().isEqual(paid);
        return basics.say("arrived", Map.of("paid", paid, "sums", settled, "whole", whole));
    }

    private List<Row> rows(MoneyLetters.Arrived arrived, Map<DocumentId, Money> sums, Map<DocumentId, About> about) {
        List<Row> rows = new ArrayList<>();
        rows.add(Row.plain(
                basics.say("received", Map.of("on", arrived.on(), "way", arrived.way())), Shown.money(arrived.paid())));
        sums.forEach((id, sum) -> rows.add(new Row(
                basics.say("row-for", Map.of("document", named(about.get(id).document()))),
                "",
                false,
                Shown.money(sum),
                about.get(id).page())));
        rows.addAll(basics.topRows(arrived.onTop()));
        if (arrived.credit().isPositive()) {
            rows.add(Row.plain(basics.say("row-credit", Map.of()), Shown.money(arrived.credit())));
        }
        about.values().forEach(a -> rows.addAll(left(a, about.size() > 1)));
        return rows;
    }

    /** A payment did not come through. @param why as the bank says */
    public LetterFacts cameBack(Document invoice, String payer, Money amount, String why) {
        return wentAgain(invoice, payer, amount, why);
    }

    /** A receipt that was sent was a mistake. */
    public LetterFacts correction(Document invoice, String payer, Money amount) {
        return wentAgain(invoice, payer, amount, "");
    }

    private LetterFacts wentAgain(Document invoice, String payer, Money amount, String why) {
        About a = basics.about(invoice);
        String document = basics.document(List.of(invoice.number()));
        LetterFacts.Values values = basics.values(a, payer)
                .put(LetterField.PAID, Shown.money(amount))
                .put(LetterField.WHY_BACK, why)
                .put(LetterField.LEFT, basics.say("left-of-one", Map.of("open", a.open(), "document", document)));
        return facts(a, values, left(a, false));
    }

    /**
     * What a document's page says to whoever has paid, or has not.
     *
     * @param paid what came; null where nothing did
     * @param declined why the card was declined; empty where it was not
     */
    public LetterFacts onPage(Document invoice, Money paid, String declined) {
        About a = basics.about(invoice);
        String document = basics.document(List.of(invoice.number()));
        LetterFacts.Values values = basics.values(a, a.printed().to().under())
                .put(LetterField.PAID, paid == null ? null : Shown.money(paid))
                .put(LetterField.LEFT, basics.say("left-of-one", Map.of("open", a.open(), "document", document)))
                .put(LetterField.DECLINED, declined)
                .put(LetterField.OTHER_WAYS, basics.otherWays(a));
        return new LetterFacts(
                basics.from(a.open().getCurrencyUnit()), values.all(), List.of(), "", List.of(), List.of());
    }

    /** What is still to be paid, one by one. @param named whether each says of which document it is */
    private List<Row> left(About a, boolean named) {
        return a.parts().stream()
                .filter(p -> p.open().money().isPositive())
                .map(p -> {
                    Map<String, Object> about = new HashMap<>();
                    about.put("p", p);
                    about.put("number", named ? a.document().number() : "");
                    return Row.plain(
                            basics.say("part-left", about), Shown.money(p.open().money()));
                })
                .toList();
    }

    private LetterFacts facts(About a, LetterFacts.Values values, List<Row> rows) {
        return new LetterFacts(
                basics.from(a.open().getCurrencyUnit()),
                values.all(),
                rows,
                "",
                List.of(basics.drawn(a.document().number(), a.document().subject(), a.parts())),
                basics.payings(a));
    }
}
