package quill.server.dispatch;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.id.DocumentId;
import quill.core.ledger.Standing;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.core.money.Amounts;
import quill.server.clients.Client;
import quill.server.common.Amount;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.ReminderLetter.Row;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.letters.LetterFacts;

/** What a reminder says, from the act that sends it: what is true of each sum on the day on which it is written. */
@Component
class ReminderFacts {
    private static final int MOST_DRAWN = 6;
    private final LetterBasics basics;
    private final InvoicesService invoices;
    private final Debts debts;

    ReminderFacts(LetterBasics basics, InvoicesService invoices, Debts debts) {
        this.basics = basics;
        this.invoices = invoices;
        this.debts = debts;
    }

    /** All that goes into one. @param rows what it asks for, as its paper has it */
    record Reminded(LetterKind kind, LetterFacts facts, List<Row> rows, List<ReminderLetter.Drawn> measures) {}

    /** @param act with at least one item that asks for money */
    Reminded of(Act.Reminder act, Client client) {
        LocalDate today = basics.today();
        List<Act.Item> asked = act.asked();
        Map<DocumentId, Document> byId = new LinkedHashMap<>();
        asked.forEach(i -> byId.computeIfAbsent(i.debt().document(), invoices::invoice));
        Map<DocumentId, List<StoredInstallment>> schedules = debts.ofAll(byId.keySet());
        List<Row> rows = asked.stream().map(i -> row(i, byId, schedules, today)).toList();
        List<ReminderLetter.Drawn> measures = byId.values().stream()
                .limit(MOST_DRAWN)
                .map(i -> new ReminderLetter.Drawn(i.number(), i.subject(), Measure.of(schedules.get(i.id()), today)))
                .toList();
        List<Money> sums = act.sums();
        List<LetterFacts.Paying> payings = sums.stream()
                .map(sum -> paying(act.in(sum.getCurrencyUnit()), byId, sums.size() > 1))
                .toList();
        LetterFacts facts = new LetterFacts(
                basics.from(act.amount().getCurrencyUnit()),
                values(act, client, byId, today).all(),
                () -> own(byId.values()),
                rows.stream().map(this::shown).toList(),
                rows.size() > 1 ? basics.sums(sums) : "",
                measures.stream()
                        .map(m -> basics.drawn(m.number(), m.subject(), m.parts()))
                        .toList(),
                payings);
        return new Reminded(kind(act, today), facts, rows, measures);
    }

    /** Only where it is about one document: two may say different things. */
    private Map<String, String> own(Collection<Document> about) {
        return about.size() == 1 ? basics.own(invoices.document(about.iterator().next())) : Map.of();
    }

    private LetterFacts.Paying paying(Act.Reminder part, Map<DocumentId, Document> byId, boolean named) {
        Document main = byId.get(part.main().document());
        return basics.paying(part.amount(), main, basics.page(main.id()), named);
    }

    /** Which letter goes by how the debts stand today, also where it goes before its day. */
    private static LetterKind kind(Act.Reminder act, LocalDate today) {
        if (act.asked().stream().allMatch(i -> !Standing.isDue(i.debt().dueOn(), today))) {
            return LetterKind.AHEAD;
        }
        return switch (act.step().tone()) {
            case FRIENDLY -> LetterKind.FRIENDLY;
            case FIRM -> LetterKind.FIRM;
            case FINAL -> LetterKind.FINAL;
        };
    }

    private LetterFacts.Values values(
            Act.Reminder act, Client client, Map<DocumentId, Document> byId, LocalDate today) {
        List<Act.Item> asked = act.asked();
        List<String> numbers = byId.values().stream().map(Document::number).toList();
        String document = basics.document(numbers);
        boolean late = asked.stream().anyMatch(i -> Standing.isLate(i.debt().dueOn(), today));
        boolean all = asked.stream().allMatch(i -> Standing.isLate(i.debt().dueOn(), today));
        long fees = asked.stream().filter(i -> i.debt().fee()).count();
        LetterFacts.Values values = basics.values(
                        basics.from(act.amount().getCurrencyUnit()),
                        client.name(),
                        client.forReminders().name())
                .put(LetterField.DOCUMENT, document)
                .put(LetterField.DOCUMENTS_IN_SHORT, basics.say("how-many", Map.of("numbers", numbers)))
                .put(LetterField.OPEN, basics.sums(act.sums()))
                .put(LetterField.STANDING, standing(act, byId, today))
                .put(LetterField.OVERDUE, basics.say("overdue", Map.of("late", late)))
                .put(LetterField.WHAT_NOW, basics.say("what-now", Map.of("late", late, "all", all)))
                .put(LetterField.LATE_FEES_AGREED, basics.say("late-fees-agreed", Map.of("fees", fees)))
                .put(
                        LetterField.WAYS,
                        basics.waysSentence(act.amount(), byId.get(act.main().document())))
                .put(LetterField.PAGE, basics.page(act.main().document()));
        List<LocalDate> due =
                asked.stream().map(i -> i.debt().dueOn()).distinct().toList();
        if (due.size() == 1) {
            long days = ChronoUnit.DAYS.between(due.get(0), today);
            values.put(LetterField.DUE, Texts.day(due.get(0)))
                    .put(LetterField.DAYS_LATE, days > 0 ? basics.say("days", Map.of("days", days)) : null);
        }
        if (byId.size() == 1) {
            Document one = byId.values().iterator().next();
            values.put(
                    LetterField.WHAT_FOR,
                    one.isSubjectCut() ? invoices.document(one).matter().subject() : one.subject());
        }
        return values;
    }

    private LetterFacts.Row shown(Row r) {
        return new LetterFacts.Row(
                basics.say("asked-for", Map.of("number", r.number(), "what", r.what())),
                r.stands(),
                r.daysLate() > 0,
                Shown.money(r.amount().money()),
                r.link());
    }

    private Row row(
            Act.Item item,
            Map<DocumentId, Document> byId,
            Map<DocumentId, List<StoredInstallment>> schedules,
            LocalDate today) {
        Document invoice = byId.get(item.debt().document());
        long late = Math.max(0, Standing.daysLate(item.debt().dueOn(), today));
        return new Row(
                item.debt().id(),
                item.step() == null ? null : item.step().days(),
                item.debt().fee(),
                invoice.number(),
                what(item, invoice, schedules.get(invoice.id())),
                item.debt().dueOn(),
                late,
                basics.say(
                        "asked-stands",
                        Map.of("fee", item.debt().fee(), "dueOn", item.debt().dueOn(), "daysLate", late)),
                Amount.of(item.asked()),
                basics.page(invoice.id()));
    }

    /** What the client knows an installment as; a late fee so. */
    private String what(Act.Item item, Document invoice, List<StoredInstallment> schedule) {
        List<StoredInstallment> all = schedule.stream().filter(d -> !d.fee()).toList();
        StoredInstallment one =
                all.stream().filter(d -> d.id() == item.debt().id()).findFirst().orElse(null);
        return basics.say(
                "asked-what",
                Map.of(
                        "fee",
                        one == null,
                        "deposit",
                        one != null && one.deposit(),
                        "single",
                        all.size() == 1,
                        "subject",
                        invoice.subject(),
                        "position",
                        one == null ? 0 : one.position()));
    }

    /** A sum that is a part of what a letter asks for, and how that part stands. */
    record Clause(Money sum, String stands) {}

    /** What is open in one currency, on which documents, and how the parts of it stand. */
    record Owed(Money sum, String document, List<Clause> clauses) {}

    private String standing(Act.Reminder act, Map<DocumentId, Document> byId, LocalDate today) {
        List<Owed> parts = act.sums().stream()
                .map(sum -> owed(act.in(sum.getCurrencyUnit()), byId, today))
                .toList();
        return basics.say("standing", Map.of("parts", parts));
    }

    /** The sum and how it stands: since when is said of one debt only, never of a sum of several. */
    private Owed owed(Act.Reminder act, Map<DocumentId, Document> byId, LocalDate today) {
        List<Clause> clauses = new ArrayList<>();
        Predicate<Act.Item> fee = i -> i.debt().fee();
        clause(
                clauses,
                act,
                "LATE",
                fee.negate().and(i -> Standing.isLate(i.debt().dueOn(), today)));
        clause(clauses, act, "TODAY", fee.negate().and(i -> i.debt().dueOn().equals(today)));
        clause(
                clauses,
                act,
                "AHEAD",
                fee.negate().and(i -> !Standing.isDue(i.debt().dueOn(), today)));
        clause(clauses, act, "FEES", fee);
        List<String> numbers = act.asked().stream()
                .map(i -> byId.get(i.debt().document()).number())
                .distinct()
                .toList();
        return new Owed(act.amount(), basics.document(numbers), clauses);
    }

    private void clause(List<Clause> to, Act.Reminder act, String kind, Predicate<Act.Item> which) {
        List<Act.Item> items = act.asked().stream().filter(which).toList();
        if (!items.isEmpty()) {
            Money sum = Amounts.sum(
                    act.amount().getCurrencyUnit(),
                    items.stream().map(Act.Item::asked).toList());
            LocalDate first = items.stream()
                    .map(i -> i.debt().dueOn())
                    .sorted()
                    .findFirst()
                    .orElseThrow();
            to.add(new Clause(
                    sum, basics.say("standing-clause", Map.of("kind", kind, "count", items.size(), "first", first))));
        }
    }
}
