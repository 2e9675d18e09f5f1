package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.core.money.Amounts;
import quill.server.QuillSettings;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.invoices.CreditNote;
import quill.server.invoices.FixedDocument;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;

/** Writes what clients are sent, as HTML and as text, from the figures of the books. */
@Component
public class Letters {
    private final ITemplateEngine templates;
    private final InvoicesService invoices;
    private final BusinessService business;
    private final Debts debts;
    private final BusinessClock clock;
    private final QuillSettings settings;

    Letters(
            ITemplateEngine templates,
            InvoicesService invoices,
            BusinessService business,
            Debts debts,
            BusinessClock clock,
            QuillSettings settings) {
        this.templates = templates;
        this.invoices = invoices;
        this.business = business;
        this.debts = debts;
        this.clock = clock;
        this.settings = settings;
    }

    /** A letter before it is queued. */
    record Written(String subject, String html, String text) {}

    /** A row of the small table in a letter. */
    public record Row(String what, String amount) {}

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

    Written invoice(Invoice invoice) {
        FixedDocument document = invoices.document(invoice);
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), clock.today());
        boolean single = parts.stream().filter(p -> !p.fee()).count() == 1;
        Money open = openOf(parts, document);
        List<Row> rows = parts.stream()
                .map(p -> new Row(
                        (p.deposit()
                                        ? "Deposit"
                                        : p.fee()
                                                ? noted("Late fee", p)
                                                : single ? "In all" : "Installment " + p.position())
                                + (p.open().money().isZero() ? ", paid" : ", due " + day(p.dueOn())),
                        shown(p.amount().money())))
                .toList();
        String first = "Here is invoice " + document.number()
                + (document.subject().isEmpty() ? "" : " for " + document.subject()) + ": "
                + shown(document.total().money()) + ".";
        String second = open.isZero()
                ? "It is settled by what you have paid already. There is nothing to pay."
                : "You can pay by card on its page, or by bank transfer.";
        return write(
                business.business().name() + ": invoice " + document.number(),
                document,
                List.of(first, second),
                rows,
                open.isZero() ? "See the invoice" : "See and pay",
                invoice);
    }

    Written creditNote(Invoice invoice, CreditNote note, Money credit) {
        FixedDocument document = invoices.document(invoice);
        String what = "Credit note " + note.number() + " takes back "
                + (note.whole() ? "the whole of invoice " : "a part of invoice ") + document.number() + ", "
                + shown(note.total()) + ": " + note.reason() + ".";
        Money open = Money.ofMinor(note.total().getCurrencyUnit(), invoice.openMinor());
        String owes = open.isPositive() ? shown(open) + " of it is still to pay." : "You owe nothing on it.";
        String rest = credit.isPositive()
                ? shown(credit) + " of yours is held as credit and counts towards what comes next."
                : owes;
        return write(
                business.business().name() + ": credit note " + note.number(),
                document,
                List.of(what, rest),
                List.of(),
                "See the invoice",
                invoice);
    }

    /** @param credit what of this payment no debt took */
    Written receipt(Invoice invoice, Money paid, String way, LocalDate on, Money credit) {
        FixedDocument document = invoices.document(invoice);
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), clock.today());
        List<Row> rows = new java.util.ArrayList<>();
        rows.add(new Row("Received " + day(on) + ", " + way, shown(paid)));
        if (credit.isPositive()) {
            rows.add(new Row("Held as credit for you", shown(credit)));
        }
        rows.addAll(stillToPay(parts));
        Money open = openOf(parts, document);
        String rest = open.isZero()
                ? "This invoice is settled."
                        + (credit.isPositive()
                                ? " " + shown(credit)
                                        + " was not needed and is held as credit. Tell us if you want it back."
                                : "")
                : "What is still to pay is listed below.";
        return write(
                business.business().name() + ": receipt for " + shown(paid),
                document,
                List.of(
                        "Thank you. Your payment of " + shown(paid) + " for invoice " + document.number()
                                + " has arrived.",
                        rest),
                rows,
                "See the invoice",
                invoice);
    }

    /** Takes a receipt back that was sent by mistake, and says what is open. */
    Written correction(Invoice invoice, Money amount) {
        FixedDocument document = invoices.document(invoice);
        return write(
                business.business().name() + ": a receipt that was a mistake",
                document,
                List.of(
                        "The receipt for " + shown(amount) + " that we sent you for invoice " + document.number()
                                + " was our mistake: that payment was not yours. Please leave it aside.",
                        "What is still to pay is listed below."),
                stillToPay(Measure.of(debts.of(invoice.id()), clock.today())),
                "See the invoice",
                invoice);
    }

    /** An invoice that deposits paid for whole has no installment. */
    private static Money openOf(List<Measure.Part> parts, FixedDocument document) {
        return parts.stream()
                .map(p -> p.open().money())
                .reduce(Money.zero(document.total().money().getCurrencyUnit()), Money::plus);
    }

    private static List<Row> stillToPay(List<Measure.Part> parts) {
        return parts.stream()
                .filter(p -> p.open().money().isPositive())
                .map(p -> new Row(
                        p.fee() ? noted("Late fee of " + day(p.dueOn()), p) : "Still to pay, due " + day(p.dueOn()),
                        shown(p.open().money())))
                .toList();
    }

    private static String noted(String what, Measure.Part part) {
        return part.note().isEmpty() ? what : what + ", " + part.note();
    }

    private Written write(
            String subject,
            FixedDocument document,
            List<String> paragraphs,
            List<Row> rows,
            String button,
            Invoice invoice) {
        Business own = business.business();
        String greeting = "Dear "
                + (document.to().under().isEmpty()
                        ? document.to().name()
                        : document.to().under()) + ",";
        String link = settings.publicUrl() + "/p/" + invoice.token();
        Context context = new Context(Locale.UK);
        context.setVariable("subject", subject);
        context.setVariable("business", own);
        context.setVariable("greeting", greeting);
        context.setVariable("paragraphs", paragraphs);
        context.setVariable("rows", rows);
        context.setVariable("button", button);
        context.setVariable("link", link);
        String table = rows.stream()
                .map(r -> "  " + r.what() + ": " + r.amount())
                .collect(Collectors.joining("\n", "", rows.isEmpty() ? "" : "\n\n"));
        String text = greeting + "\n\n" + String.join("\n\n", paragraphs) + "\n\n" + table + button + ": " + link
                + "\n\n" + own.name() + "\n" + own.address() + "\n";
        return new Written(subject, templates.process("letter", context), text);
    }
}
