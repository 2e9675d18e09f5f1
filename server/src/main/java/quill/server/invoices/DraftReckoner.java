package quill.server.invoices;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.DocumentReckoning;
import quill.core.document.DraftReading;
import quill.core.document.Line;
import quill.core.document.LineTotal;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.latefee.LateFeePolicy;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleMaking;
import quill.core.tax.Tax;
import quill.core.tax.TaxTotal;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.Figure;
import quill.server.latefees.FeePolicies;

/** Hands what was typed to the core and its answer back. Reckons nothing itself. */
@Component
class DraftReckoner {
    private final BusinessService business;
    private final FeePolicies policies;

    DraftReckoner(BusinessService business, FeePolicies policies) {
        this.business = business;
        this.policies = policies;
    }

    /** What the core made of a draft; totals and schedule are null or empty where they could not be reckoned. */
    record Reckoned(
            DraftReading.Read read,
            Totals totals,
            List<Installment> schedule,
            LateFeePolicy lateFee,
            List<Problem> problems) {
        Reckoning view() {
            List<Reckoning.ReckonedLine> lines = totals == null
                    ? List.of()
                    : IntStream.range(0, totals.lines().size())
                            .mapToObj(i ->
                                    line(read.places().get(i), totals.lines().get(i)))
                            .toList();
            return new Reckoning(
                    read.currency().getCode(),
                    lines,
                    totals == null
                            ? List.of()
                            : totals.taxes().stream().map(Reckoned::tax).toList(),
                    totals == null ? null : Figure.of(totals.net(), totals.netWhy()),
                    totals == null ? null : Figure.of(totals.tax(), totals.taxWhy()),
                    totals == null ? null : Figure.of(totals.total(), totals.totalWhy()),
                    schedule.stream().map(i -> installment(i, totals.total())).toList(),
                    lateFee.words(),
                    problems);
        }

        private static Reckoning.ReckonedLine line(int place, LineTotal line) {
            return new Reckoning.ReckonedLine(place, Amount.of(line.net()), line.why());
        }

        private static Reckoning.ReckonedTax tax(TaxTotal t) {
            return new Reckoning.ReckonedTax(
                    t.tax().name(), t.tax().rate().toString(), Amount.of(t.base()), Amount.of(t.amount()), t.why());
        }

        private static Reckoning.ReckonedInstallment installment(Installment i, Money total) {
            return new Reckoning.ReckonedInstallment(
                    i.position(),
                    i.deposit(),
                    Amount.of(i.amount()),
                    i.dueOn(),
                    Measure.thousandthsOf(i.amount(), total),
                    i.why());
        }
    }

    Reckoned reckon(TypedDraft typed, LocalDate issuedOn) {
        Business own = business.business();
        DraftReading.Read read = DraftReading.read(typed, business.taxes(), own.currencyUnit());
        List<Problem> problems = new ArrayList<>(read.problems());
        Totals totals = null;
        List<Installment> schedule = List.of();
        try {
            totals = DocumentReckoning.reckon(read.currency(), read.lines(), typed.taxInside(), own.taxRounding());
            if (totals.total().isZero()) {
                problems.add(new Problem("total", "0", "must be above zero to be issued"));
            } else if (read.problems().stream().noneMatch(p -> p.field().startsWith("schedule"))) {
                schedule = ScheduleMaking.make(totals.total(), issuedOn, read.terms());
            }
        } catch (RefusedException e) {
            for (Problem p : e.problems()) {
                problems.add(inDraft(p, read.places()));
            }
        }
        LateFeePolicy lateFee = policies.forIssue(typed.clientId(), typed.lateFee(), problems);
        return new Reckoned(read, totals, schedule, lateFee, problems);
    }

    /** The core counts the lines that could be read; the draft has others between them. */
    private static Problem inDraft(Problem p, List<Integer> places) {
        var matcher = java.util.regex.Pattern.compile("lines\\[(\\d+)](.*)").matcher(p.field());
        return matcher.matches()
                ? new Problem(
                        "lines[" + places.get(Integer.parseInt(matcher.group(1))) + "]" + matcher.group(2),
                        p.value(),
                        p.message())
                : p;
    }

    /** Lines as they are printed. */
    static List<FixedDocument.PrintedLine> printed(TypedDraft typed, Reckoned reckoned) {
        List<FixedDocument.PrintedLine> lines = new ArrayList<>();
        for (int i = 0; i < reckoned.read().lines().size(); i++) {
            Line line = reckoned.read().lines().get(i);
            LineTotal total = reckoned.totals().lines().get(i);
            String discount = typed.lines().get(reckoned.read().places().get(i)).discount();
            lines.add(new FixedDocument.PrintedLine(
                    line.description(),
                    line.quantity().toPlainString(),
                    line.unit(),
                    line.unitPrice().toPlainString(),
                    discount == null ? "" : discount.strip(),
                    line.taxes().stream().map(DraftReckoner::shortName).collect(Collectors.joining(" + ")),
                    Amount.of(total.net()),
                    total.why()));
        }
        return lines;
    }

    private static String shortName(Tax tax) {
        return switch (tax.category()) {
            case S -> tax.rate().toString();
            case O -> "";
            default -> tax.category().name();
        };
    }
}
