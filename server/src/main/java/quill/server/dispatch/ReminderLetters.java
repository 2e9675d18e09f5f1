package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.core.acts.Act;
import quill.core.document.CreditorReference;
import quill.core.reminder.ReminderStep.Tone;
import quill.server.QuillSettings;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.debts.Debts;
import quill.server.dispatch.Letters.Written;
import quill.server.dispatch.ReminderLetter.Drawn;
import quill.server.dispatch.ReminderLetter.Row;
import quill.server.dispatch.ReminderLetter.Transfer;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;

/** Writes reminders in three tones, as HTML, as text and for paper, from the act that sends them. */
@Component
class ReminderLetters {
    private static final int MOST_DRAWN = 6;
    private final ITemplateEngine templates;
    private final InvoicesService invoices;
    private final BusinessService business;
    private final Debts debts;
    private final BusinessClock clock;
    private final QuillSettings settings;

    ReminderLetters(
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

    /** @param act with at least one item that asks for money */
    ReminderLetter letter(Act.Reminder act, Client client) {
        LocalDate today = clock.today();
        Business own = business.business();
        List<Act.Item> asked = act.asked();
        Map<Long, Invoice> byId = new LinkedHashMap<>();
        asked.forEach(i -> byId.computeIfAbsent(i.debt().document(), invoices::invoice));
        Invoice main = byId.get(act.main().document());
        List<Row> rows = asked.stream().map(i -> row(i, byId, today)).toList();
        String reference = CreditorReference.of(main.number());
        String link = link(main);
        List<Drawn> measures = byId.values().stream()
                .limit(MOST_DRAWN)
                .map(i -> new Drawn(i.number(), i.subject(), Measure.of(debts.of(i.id()), today)))
                .toList();
        return new ReminderLetter(
                own,
                client.name(),
                client.contact(),
                client.address(),
                today,
                subject(act, own, byId),
                paragraphs(act, asked, byId, today),
                rows,
                Amount.of(act.amount()),
                link,
                new Transfer(
                        CreditorReference.grouped(own.iban()),
                        own.bic(),
                        CreditorReference.grouped(reference),
                        SquareCode.payload(own, act.amount(), reference, link)),
                measures);
    }

    private Row row(Act.Item item, Map<Long, Invoice> byId, LocalDate today) {
        Invoice invoice = byId.get(item.debt().document());
        boolean single = debts.of(invoice.id()).stream().filter(d -> !d.fee()).count() == 1;
        String what = item.debt().fee()
                ? "late fee"
                : single ? invoice.subject() : "installment " + item.debt().position();
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
                link(invoice));
    }

    private String link(Invoice invoice) {
        return settings.publicUrl() + "/p/" + invoice.token();
    }

    private static String subject(Act.Reminder act, Business own, Map<Long, Invoice> byId) {
        String numbers =
                byId.size() == 1 ? "invoice " + byId.values().iterator().next().number() : byId.size() + " invoices";
        boolean ahead = act.items().stream().allMatch(i -> i.debt().dueOn().isAfter(act.on()));
        String kind = ahead
                ? "a note ahead of time, "
                : act.step().tone() == Tone.FINAL
                        ? "final reminder, "
                        : act.step().tone() == Tone.FIRM ? "overdue, " : "a friendly reminder, ";
        return own.name() + ": " + kind + numbers + ", " + Letters.shown(act.amount());
    }

    private static List<String> paragraphs(
            Act.Reminder act, List<Act.Item> asked, Map<Long, Invoice> byId, LocalDate today) {
        String sum = Letters.shown(act.amount());
        String numbers = byId.values().stream().map(Invoice::number).collect(Collectors.joining(", "));
        boolean one = byId.size() == 1;
        LocalDate first = asked.stream()
                .map(i -> i.debt().dueOn())
                .min(LocalDate::compareTo)
                .orElse(today);
        String since = first.isBefore(today)
                ? "has been open since " + Letters.day(first)
                : first.equals(today) ? "is due today" : "falls due on " + Letters.day(first);
        List<String> out = new ArrayList<>();
        String what = sum + (one ? " on invoice " : " on invoices ") + numbers;
        boolean fees = asked.stream().anyMatch(i -> i.debt().fee());
        switch (act.step().tone()) {
            case FRIENDLY -> {
                out.add((first.isAfter(today) ? "A note ahead of time: " : "A friendly reminder: ") + what + " "
                        + (asked.size() > 1 && first.isBefore(today)
                                ? "is open; the oldest of it since " + Letters.day(first)
                                : since)
                        + ".");
                out.add("If your payment is on its way, please leave this letter aside.");
            }
            case FIRM -> {
                out.add(what + " " + since + ".");
                out.add("Please pay it now, or answer this letter if something stands in the way.");
            }
            default -> {
                out.add("This is the last reminder: " + what + " " + since + ".");
                out.add("Please pay at once, or answer today so that we can find a way together.");
            }
        }
        if (fees) {
            out.add("It includes the late fee that was agreed on the invoice.");
        }
        return out;
    }

    Written written(ReminderLetter letter) {
        String greeting = "Dear " + (letter.contact().isEmpty() ? letter.to() : letter.contact()) + ",";
        Context context = new Context(Locale.UK);
        context.setVariable("l", letter);
        context.setVariable("greeting", greeting);
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
            out.append(": ").append(Letters.shown(r.amount().money())).append('\n');
        }
        Money total = l.total().money();
        out.append("  In all: ")
                .append(Letters.shown(total))
                .append("\n\nSee and pay: ")
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
