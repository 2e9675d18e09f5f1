package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.core.acts.Act;
import quill.core.document.CreditorReference;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.clients.Client;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.Letters.Written;
import quill.server.dispatch.ReminderLetter.Addressee;
import quill.server.dispatch.ReminderLetter.Drawn;
import quill.server.dispatch.ReminderLetter.Row;
import quill.server.dispatch.ReminderLetter.Transfer;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.links.Links;

/** Writes reminders in three tones, as HTML, as text and for paper, from the act that sends them. */
@Component
class ReminderLetters {
    private static final int MOST_DRAWN = 6;
    private final ITemplateEngine templates;
    private final InvoicesService invoices;
    private final BankAccounts accounts;
    private final Debts debts;
    private final WaysToPay waysToPay;
    private final BusinessClock clock;
    private final Links links;

    ReminderLetters(
            ITemplateEngine templates,
            InvoicesService invoices,
            BankAccounts accounts,
            Debts debts,
            WaysToPay waysToPay,
            BusinessClock clock,
            Links links) {
        this.templates = templates;
        this.invoices = invoices;
        this.accounts = accounts;
        this.debts = debts;
        this.waysToPay = waysToPay;
        this.clock = clock;
        this.links = links;
    }

    /** @param act with at least one item that asks for money */
    ReminderLetter letter(Act.Reminder act, Client client) {
        LocalDate today = clock.today();
        Business own = accounts.business(act.amount().getCurrencyUnit());
        List<Act.Item> asked = act.asked();
        Map<DocumentId, Document> byId = new LinkedHashMap<>();
        asked.forEach(i -> byId.computeIfAbsent(i.debt().document(), invoices::invoice));
        Document main = byId.get(act.main().document());
        WaysToPay.Ways ways = waysToPay.of(act.amount().getCurrencyUnit());
        List<Row> rows = asked.stream().map(i -> row(i, byId, today)).toList();
        String reference = CreditorReference.of(main.number());
        String link = links.pageOf(main.id());
        List<Drawn> measures = byId.values().stream()
                .limit(MOST_DRAWN)
                .map(i -> new Drawn(i.number(), i.subject(), Measure.of(debts.of(i.id()), today)))
                .toList();
        return new ReminderLetter(
                own,
                new Addressee(client.name(), client.forReminders().name(), client.address()),
                today,
                subject(act, asked, own, byId, today),
                paragraphs(act, asked, byId, today),
                rows,
                Amount.of(act.amount()),
                link,
                new Transfer(
                        ways.iban(),
                        ways.bic(),
                        CreditorReference.grouped(reference),
                        SquareCode.payload(own, act.amount(), reference, link)),
                ways.button(),
                measures);
    }

    private Row row(Act.Item item, Map<DocumentId, Document> byId, LocalDate today) {
        Document invoice = byId.get(item.debt().document());
        String what = item.debt().fee() ? "late fee" : installment(item.debt().id(), invoice);
        long late = java.time.temporal.ChronoUnit.DAYS.between(item.debt().dueOn(), today);
        return new Row(
                item.debt().id(),
                item.step() == null ? null : item.step().days(),
                item.debt().fee(),
                invoice.number(),
                what,
                item.debt().dueOn(),
                Math.max(0, late),
                Amount.of(item.asked()),
                links.pageOf(invoice.id()));
    }

    /** What the client knows an installment as. */
    private String installment(long id, Document invoice) {
        List<StoredInstallment> all =
                debts.of(invoice.id()).stream().filter(d -> !d.fee()).toList();
        StoredInstallment one =
                all.stream().filter(d -> d.id() == id).findFirst().orElseThrow();
        return one.deposit() ? "deposit" : all.size() == 1 ? invoice.subject() : "installment " + one.position();
    }

    /** What the subject says goes by how the debts stand today, also where the letter goes before its day. */
    private static String subject(
            Act.Reminder act, List<Act.Item> asked, Business own, Map<DocumentId, Document> byId, LocalDate today) {
        String numbers =
                byId.size() == 1 ? "invoice " + byId.values().iterator().next().number() : byId.size() + " invoices";
        boolean ahead = asked.stream().allMatch(i -> i.debt().dueOn().isAfter(today));
        boolean late = asked.stream().anyMatch(i -> i.debt().dueOn().isBefore(today));
        String kind = ahead
                ? "a note ahead of time, "
                : switch (act.step().tone()) {
                    case FRIENDLY -> "a friendly reminder, ";
                    case FIRM -> late ? "overdue, " : "a reminder, ";
                    case FINAL -> "final reminder, ";
                };
        return own.name() + ": " + kind + numbers + ", " + Letters.shown(act.amount());
    }

    private static List<String> paragraphs(
            Act.Reminder act, List<Act.Item> asked, Map<DocumentId, Document> byId, LocalDate today) {
        boolean ahead = asked.stream().allMatch(i -> i.debt().dueOn().isAfter(today));
        boolean late = asked.stream().anyMatch(i -> i.debt().dueOn().isBefore(today));
        boolean all = asked.stream().allMatch(i -> i.debt().dueOn().isBefore(today));
        String lead = ahead
                ? "A note ahead of time: "
                : switch (act.step().tone()) {
                    case FRIENDLY -> "A friendly reminder: ";
                    case FIRM -> "";
                    case FINAL -> "A final reminder: ";
                };
        String pay = !late ? "Please pay it by its date" : all ? "Please pay it now" : "Please pay what is late now";
        List<String> out = new ArrayList<>();
        out.add(lead + standing(act, asked, byId, today) + ".");
        out.add(
                switch (act.step().tone()) {
                    case FRIENDLY -> "If your payment is on its way, please leave this letter aside.";
                    case FIRM -> pay + ", or answer this letter if something stands in the way.";
                    case FINAL -> pay + ", or answer today so that we can find a way together.";
                });
        long fees = asked.stream().filter(i -> i.debt().fee()).count();
        if (fees > 0) {
            out.add(
                    fees == 1
                            ? "The late fee was agreed on the invoice."
                            : "The late fees were agreed on the invoice.");
        }
        return out;
    }

    /** The sum and how it stands: since when is said of one debt only, never of a sum of several. */
    private static String standing(
            Act.Reminder act, List<Act.Item> asked, Map<DocumentId, Document> byId, LocalDate today) {
        String whole = Letters.shown(act.amount())
                + (byId.size() == 1 ? " on invoice " : " on invoices ")
                + byId.values().stream().map(Document::number).collect(Collectors.joining(", "));
        List<Act.Item> debts = asked.stream().filter(i -> !i.debt().fee()).toList();
        List<Clause> clauses = new ArrayList<>();
        clause(
                clauses,
                debts.stream().filter(i -> i.debt().dueOn().isBefore(today)).toList(),
                n -> n.size() == 1
                        ? " has been open since " + Letters.day(n.get(0))
                        : " is late, the oldest of it since " + Letters.day(n.get(0)));
        clause(
                clauses,
                debts.stream().filter(i -> i.debt().dueOn().equals(today)).toList(),
                n -> " is due today");
        clause(
                clauses,
                debts.stream().filter(i -> i.debt().dueOn().isAfter(today)).toList(),
                n -> n.size() == 1
                        ? " falls due on " + Letters.day(n.get(0))
                        : " falls due from " + Letters.day(n.get(0)) + " on");
        clause(
                clauses,
                asked.stream().filter(i -> i.debt().fee()).toList(),
                n -> n.size() == 1 ? " is for the late fee of " + Letters.day(n.get(0)) : " is for late fees");
        if (clauses.size() == 1) {
            return whole + clauses.get(0).standing();
        }
        List<String> words = clauses.stream().map(Clause::words).toList();
        return whole + " is open: " + String.join(", ", words.subList(0, words.size() - 1)) + ", and "
                + words.get(words.size() - 1);
    }

    /** A sum that is a part of what a letter asks for, and how that part stands. */
    private record Clause(Money sum, String standing) {
        private String words() {
            return Letters.shown(sum) + standing;
        }
    }

    /** Adds the sum of some items and how it stands, which goes by their due dates, earliest first. */
    private static void clause(List<Clause> to, List<Act.Item> items, Function<List<LocalDate>, String> standing) {
        if (!items.isEmpty()) {
            Money sum = Amounts.sum(
                    items.get(0).asked().getCurrencyUnit(),
                    items.stream().map(Act.Item::asked).toList());
            to.add(new Clause(
                    sum,
                    standing.apply(
                            items.stream().map(i -> i.debt().dueOn()).sorted().toList())));
        }
    }

    Written written(ReminderLetter letter) {
        String greeting = "Dear "
                + (letter.to().contact().isEmpty()
                        ? letter.to().name()
                        : letter.to().contact()) + ",";
        Context context = new Context(Locale.UK);
        context.setVariable("l", letter);
        context.setVariable("greeting", greeting);
        context.setVariable("button", letter.button());
        context.setVariable("words", new PdfMaking.Words());
        return new Written(letter.subject(), templates.process("reminder", context), text(letter, greeting));
    }

    private static String text(ReminderLetter l, String greeting) {
        StringBuilder out = new StringBuilder(greeting + "\n\n" + String.join("\n\n", l.paragraphs()) + "\n\n");
        for (Row r : l.rows()) {
            out.append("  ")
                    .append(r.number())
                    .append(", ")
                    .append(r.what())
                    .append(", ")
                    .append(standing(r));
            out.append(": ").append(Letters.shown(r.amount().money())).append("\n    ");
            out.append(r.link()).append('\n');
        }
        Money total = l.total().money();
        out.append("  In all: ")
                .append(Letters.shown(total))
                .append("\n\n")
                .append(l.button())
                .append(": ")
                .append(l.link());
        if (!l.transfer().iban().isEmpty()) {
            out.append("\nBy bank transfer: IBAN ").append(l.transfer().iban());
            out.append(", reference ").append(l.transfer().reference());
        }
        return out.append("\n\n")
                .append(l.from().name())
                .append('\n')
                .append(l.from().address())
                .append('\n')
                .toString();
    }

    /** How a row stands, in words; the templates use it too. */
    static String standing(Row r) {
        if (r.fee()) {
            return "charged " + Letters.day(r.dueOn());
        }
        return "due " + Letters.day(r.dueOn())
                + (r.daysLate() == 0 ? "" : ", " + r.daysLate() + (r.daysLate() == 1 ? " day late" : " days late"));
    }
}
