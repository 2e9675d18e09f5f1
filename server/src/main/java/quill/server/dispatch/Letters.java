package quill.server.dispatch;

import java.net.IDN;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.money.Amounts;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Texts;
import quill.server.creditnotes.CreditNote;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.links.Links;

/** Writes what clients are sent, as HTML and as text, from the figures of the books. */
@Component
public class Letters {
    private final ITemplateEngine templates;
    private final InvoicesService invoices;
    private final BusinessService business;
    private final Debts debts;
    private final WaysToPay waysToPay;
    private final BusinessClock clock;
    private final Links links;

    Letters(
            ITemplateEngine templates,
            InvoicesService invoices,
            BusinessService business,
            Debts debts,
            WaysToPay waysToPay,
            BusinessClock clock,
            Links links) {
        this.templates = templates;
        this.invoices = invoices;
        this.business = business;
        this.debts = debts;
        this.waysToPay = waysToPay;
        this.clock = clock;
        this.links = links;
    }

    /** A letter before it is queued. */
    record Written(String subject, String html, String text) {}

    /** A row of the small table in a letter. @param link to the page of what it is about, or null */
    public record Row(String what, String amount, String link) {
        private static Row of(String what, Amount amount) {
            return new Row(what, shown(amount.money()), null);
        }
    }

    /** A new Message-ID (RFC 5322, 3.6.4), in the domain that the business sends from. */
    String newMessageId() {
        String from = business.business().email();
        return "<" + UUID.randomUUID() + "@" + IDN.toASCII(from.substring(from.lastIndexOf('@') + 1)) + ">";
    }

    /** Money as a letter writes it: the code, then the figure. */
    public static String shown(Money money) {
        return symbol(money.getCurrencyUnit().getCode()) + Amounts.grouped(money);
    }

    private static String symbol(String code) {
        return switch (code) {
            case "EUR" -> "€";
            case "GBP" -> "£";
            case "USD" -> "$";
            default -> code + " ";
        };
    }

    /** A date as a letter writes it. */
    public static String day(LocalDate date) {
        return Texts.day(date);
    }

    /** @param slip what the person who sends it changes, this once */
    Written invoice(Document invoice, Slip slip) {
        PrintedDocument document = invoices.document(invoice);
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), clock.today());
        boolean single = parts.stream().filter(p -> !p.fee()).count() == 1;
        Money open = openOf(parts, document);
        List<Row> rows = parts.stream()
                .map(p -> Row.of(name(p, single) + standing(p), p.isPartly() ? p.open() : p.amount()))
                .toList();
        String first = "Here is invoice " + document.number()
                + (document.matter().subject().isEmpty()
                        ? ""
                        : " for " + document.matter().subject()) + ": "
                + shown(document.sums().total().money()) + ".";
        WaysToPay.Ways ways = waysToPay.of(open.getCurrencyUnit());
        String second = open.isZero()
                ? "It is settled by what you have paid already. There is nothing to pay."
                : ways.sentence();
        return write(
                slip.subjectOr(business.business().name() + ": invoice " + document.number()),
                document,
                slip.before(second.isEmpty() ? List.of(first) : List.of(first, second)),
                rows,
                open.isZero() ? "See the invoice" : ways.button(),
                invoice);
    }

    private static String name(Measure.Part p, boolean single) {
        if (p.deposit()) {
            return "Deposit";
        }
        return p.fee() ? noted("Late fee", p) : single ? "In all" : "Installment " + p.position();
    }

    /** How a part stands, after its name. */
    private static String standing(Measure.Part p) {
        return switch (p.standing()) {
            case SETTLED -> ", paid";
            case CREDITED -> p.fee() ? ", waived" : ", taken back";
            default ->
                (p.fee() ? ", charged " : ", due ")
                        + day(p.dueOn())
                        + (p.isPartly() ? ", open of " + shown(p.amount().money()) : "");
        };
    }

    Written creditNote(Document invoice, CreditNote note, Money credit, Money waiting) {
        PrintedDocument document = invoices.document(invoice);
        String what = "Credit note " + note.number() + " takes back "
                + note.extent(document.sums().total().money()) + " invoice " + document.number() + ", "
                + shown(note.total())
                + ": " + note.reason() + ".";
        Money open = Money.ofMinor(note.total().getCurrencyUnit(), invoice.openMinor());
        List<String> paragraphs = new ArrayList<>();
        paragraphs.add(what);
        paragraphs.add(
                open.isPositive()
                        ? shown(open) + " is still to be paid for invoice " + document.number() + "."
                        : "You owe nothing for invoice " + document.number() + ".");
        Money free = credit.minus(waiting);
        if (waiting.isPositive()) {
            paragraphs.add(shown(waiting) + " of yours is held for the invoice that replaces this one.");
        }
        if (free.isPositive()) {
            paragraphs.add(shown(free) + " of yours is held as credit and counts towards what comes next.");
        }
        return write(
                business.business().name() + ": credit note " + note.number(),
                document,
                paragraphs,
                List.of(),
                "See the invoice",
                invoice);
    }

    /**
     * Says that money arrived, and what for.
     *
     * @param invoice whose page the letter leads to
     * @param settled what the money settled, document by document
     * @param credit what of this payment no debt took
     */
    Written receipt(
            Document invoice,
            String payer,
            List<Appropriation.Part> settled,
            Money paid,
            String way,
            LocalDate on,
            Money credit) {
        PrintedDocument document = invoices.document(invoice);
        Map<DocumentId, Money> sums = new LinkedHashMap<>();
        settled.forEach(p -> sums.merge(p.debt().document(), p.amount(), Money::plus));
        Map<DocumentId, Document> about = new LinkedHashMap<>();
        sums.keySet().forEach(id -> about.put(id, invoices.invoice(id)));
        List<Row> rows = new ArrayList<>();
        rows.add(new Row("Received " + day(on) + ", " + way, shown(paid), null));
        sums.forEach(
                (id, sum) -> rows.add(new Row("For invoice " + about.get(id).number(), shown(sum), links.pageOf(id))));
        if (credit.isPositive()) {
            rows.add(new Row("Held as credit for you", shown(credit), null));
        }
        List<Row> left = new ArrayList<>();
        about.values().forEach(i -> left.addAll(stillToPay(i, about.size() > 1)));
        rows.addAll(left);
        String rest = about.isEmpty()
                ? "Nothing was open that it could settle. It is held as credit; tell us if you want it back."
                : left.isEmpty()
                        ? (about.size() == 1 ? "This invoice is settled." : "These invoices are settled.")
                        : "What is still to pay is listed below.";
        if (!about.isEmpty() && credit.isPositive()) {
            rest += " " + shown(credit) + " was not needed and is held as credit. Tell us if you want it back.";
        }
        return write(
                business.business().name() + ": receipt for " + shown(paid),
                document,
                payer,
                List.of("Thank you. Your payment of " + shown(paid) + arrived(sums, about, paid), rest),
                rows,
                about.size() > 1 ? "See invoice " + document.number() : "See the invoice",
                invoice);
    }

    private static String arrived(Map<DocumentId, Money> sums, Map<DocumentId, Document> about, Money paid) {
        if (about.isEmpty()) {
            return " has arrived.";
        }
        if (about.size() == 1 && sums.values().iterator().next().isEqual(paid)) {
            return " for invoice " + about.values().iterator().next().number() + " has arrived.";
        }
        return " has arrived: "
                + sums.entrySet().stream()
                        .map(e -> shown(e.getValue()) + " for invoice "
                                + about.get(e.getKey()).number())
                        .collect(Collectors.joining(", "))
                + ".";
    }

    /** Takes a receipt back that was sent by mistake, and says what is open. */
    Written correction(Document invoice, String payer, Money amount) {
        PrintedDocument document = invoices.document(invoice);
        List<Row> left = stillToPay(invoice, false);
        return write(
                business.business().name() + ": a receipt that was a mistake",
                document,
                payer,
                List.of(
                        "The receipt for " + shown(amount) + " that we sent you for invoice " + document.number()
                                + " was our mistake: that payment was not yours. Please leave it aside.",
                        left.isEmpty() ? "You owe nothing for this invoice." : "What is still to pay is listed below."),
                left,
                "See the invoice",
                invoice);
    }

    /** An invoice that deposits paid for whole has no installment. */
    private static Money openOf(List<Measure.Part> parts, PrintedDocument document) {
        return parts.stream()
                .map(p -> p.open().money())
                .reduce(Money.zero(document.sums().total().money().getCurrencyUnit()), Money::plus);
    }

    private List<Row> stillToPay(Document invoice, boolean named) {
        String of = named ? " for invoice " + invoice.number() : "";
        return Measure.of(debts.of(invoice.id()), clock.today()).stream()
                .filter(p -> p.open().money().isPositive())
                .map(p -> Row.of(
                        (p.fee() ? noted("Late fee of " + day(p.dueOn()), p) : "Still to pay, due " + day(p.dueOn()))
                                + of,
                        p.open()))
                .toList();
    }

    private static String noted(String what, Measure.Part part) {
        return part.note().isEmpty() ? what : what + ", " + part.note();
    }

    private Written write(
            String subject,
            PrintedDocument document,
            List<String> paragraphs,
            List<Row> rows,
            String button,
            Document invoice) {
        return write(subject, document, document.to().under(), paragraphs, rows, button, invoice);
    }

    /** @param dear who is greeted; the client itself where it is empty */
    private Written write(
            String subject,
            PrintedDocument document,
            String dear,
            List<String> paragraphs,
            List<Row> rows,
            String button,
            Document invoice) {
        Business own = business.business();
        String greeting = "Dear " + (dear.isEmpty() ? document.to().name() : dear) + ",";
        String link = links.pageOf(invoice.id());
        Context context = new Context(Locale.UK);
        context.setVariable("subject", subject);
        context.setVariable("business", own);
        context.setVariable("greeting", greeting);
        context.setVariable("paragraphs", paragraphs);
        context.setVariable("rows", rows);
        context.setVariable("button", button);
        context.setVariable("link", link);
        String table = rows.stream()
                .map(r -> "  " + r.what() + ": " + r.amount()
                        + (r.link() == null || r.link().equals(link) ? "" : "\n    " + r.link()))
                .collect(Collectors.joining("\n", "", rows.isEmpty() ? "" : "\n\n"));
        String text = greeting + "\n\n" + String.join("\n\n", paragraphs) + "\n\n" + table + button + ": " + link
                + "\n\n" + own.name() + "\n" + own.address() + "\n";
        return new Written(subject, templates.process("letter", context), text);
    }
}
