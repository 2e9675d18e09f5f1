package quill.server.documents;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.Continuing;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.DocumentReckoning;
import quill.core.document.DraftReading;
import quill.core.document.DraftRules;
import quill.core.document.ExtraTotal;
import quill.core.document.LineTotal;
import quill.core.document.Taken;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.issued.Job;
import quill.core.latefee.LateFeePolicy;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.core.quote.Choices;
import quill.core.quote.InstallmentOffer;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleMaking;
import quill.core.tax.TaxTotal;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.business.DocumentSettings;
import quill.server.business.Rates;
import quill.server.catalogue.CatalogueService;
import quill.server.catalogue.Stock;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Figure;
import quill.server.common.Texts;
import quill.server.latefees.FeePolicies;

/** Hands what was typed to the core and its answer back. Reckons nothing itself. */
@Component
public class DraftReckoner {
    private static final Pattern COUNTED = Pattern.compile("(lines|discounts|charges)\\[(\\d+)](.*)");
    private final BusinessService business;
    private final DocumentSettings documents;
    private final Rates rates;
    private final ClientsService clients;
    private final FeePolicies policies;
    private final Stock stock;
    private final CatalogueService catalogue;
    private final Jobs jobs;

    DraftReckoner(
            BusinessService business,
            DocumentSettings documents,
            Rates rates,
            ClientsService clients,
            FeePolicies policies,
            Stock stock,
            CatalogueService catalogue,
            Jobs jobs) {
        this.business = business;
        this.documents = documents;
        this.rates = rates;
        this.clients = clients;
        this.policies = policies;
        this.stock = stock;
        this.catalogue = catalogue;
        this.jobs = jobs;
    }

    /** What the core made of a draft; totals and schedule are null or empty where they could not be reckoned. */
    public record Reckoned(
            DraftReading.Read read,
            Totals totals,
            List<Installment> schedule,
            LateFeePolicy lateFee,
            List<Problem> problems,
            List<String> notes,
            List<Reckoning.Understood> understood,
            List<Reckoning.ReckonedLine> left,
            Jobs.SoFar job,
            InstallmentOffer offer) {
        /** What it says of the job that it bills some of; null for what stands for itself. */
        Job said() {
            return job == null ? null : job.said(totals.total(), deducted());
        }

        /** What it offers before it is paid, in words; empty for nothing. */
        public String offered() {
            if (offer == null || totals == null || !totals.due().isPositive()) {
                return "";
            }
            Money off = offer.off(totals.due());
            Money none = Money.zero(off.getCurrencyUnit());
            if (!off.isPositive()) {
                return offer.words(totals.due(), none, none);
            }
            Creditable of = Creditable.of(totals, deducted());
            CreditTotals share = CreditReckoning.ofAmount(of, Taken.nothing(of), off);
            return offer.words(totals.due(), share.net(), share.tax());
        }

        /** What it takes off for deposit invoices, without tax, for each set of taxes; empty for nothing. */
        public List<Money> deducted() {
            return job == null ? List.of() : job.deductedNets(totals);
        }

        /** How much of the catalogue's items the lines sell. */
        public Map<Long, BigDecimal> sold() {
            return sold(read);
        }

        private static Map<Long, BigDecimal> sold(DraftReading.Read read) {
            Map<Long, BigDecimal> sold = new TreeMap<>();
            read.lines().stream()
                    .filter(l -> l.item() != null)
                    .forEach(l -> sold.merge(l.item(), l.quantity(), BigDecimal::add));
            return sold;
        }

        Reckoning view() {
            return totals == null
                    ? Reckoning.unreckoned(read.currency().getCode(), lateFee.words(), problems, notes, understood)
                    : whole();
        }

        private Reckoning whole() {
            return new Reckoning(
                    read.currency().getCode(),
                    Stream.concat(lines(read, totals).stream(), left.stream())
                            .sorted(Comparator.comparingInt(Reckoning.ReckonedLine::place))
                            .toList(),
                    extras(totals.discounts(), read.discountPlaces()),
                    extras(totals.charges(), read.chargePlaces()),
                    totals.taxes().stream().map(Reckoned::tax).toList(),
                    new Reckoning.ReckonedSums(
                            Figure.of(totals.net(), totals.netWhy()),
                            Figure.of(totals.tax(), totals.taxWhy()),
                            Figure.of(totals.total(), totals.totalWhy()),
                            totals.prepaid().isZero() ? null : Amount.of(totals.prepaid()),
                            totals.rounding().isZero() ? null : Figure.of(totals.rounding(), totals.roundingWhy()),
                            Figure.of(totals.due(), totals.dueWhy()),
                            Printing.inOwn(read.exchange(), totals.tax(), totals.total())),
                    schedule.stream().map(i -> installment(i, totals.due())).toList(),
                    lateFee.words(),
                    problems,
                    Stream.concat(notes.stream(), Stream.of(offered()).filter(o -> !o.isEmpty()))
                            .toList(),
                    understood,
                    totals.lines().stream()
                            .skip(read.places().size())
                            .map(l -> new Reckoning.ReckonedDeduction(
                                    l.line().description(), Amount.of(l.net()), l.why()))
                            .toList());
        }

        private static List<Reckoning.ReckonedExtra> extras(List<ExtraTotal> extras, List<Integer> places) {
            return IntStream.range(0, extras.size())
                    .mapToObj(i -> new Reckoning.ReckonedExtra(
                            places.get(i),
                            Amount.of(extras.get(i).amount()),
                            extras.get(i).why()))
                    .toList();
        }

        private static List<Reckoning.ReckonedLine> lines(DraftReading.Read read, Totals totals) {
            return IntStream.range(0, read.places().size())
                    .mapToObj(i -> line(read.places().get(i), totals.lines().get(i)))
                    .toList();
        }

        private static Reckoning.ReckonedLine line(int place, LineTotal line) {
            return new Reckoning.ReckonedLine(place, Amount.of(line.net()), line.why());
        }

        private static Reckoning.ReckonedTax tax(TaxTotal t) {
            return new Reckoning.ReckonedTax(
                    t.tax().name(), t.tax().rate().toString(), Amount.of(t.base()), Amount.of(t.amount()), t.why());
        }

        static Reckoning.ReckonedInstallment installment(Installment i, Money total) {
            return new Reckoning.ReckonedInstallment(
                    i.position(),
                    i.deposit(),
                    Amount.of(i.amount()),
                    i.dueOn(),
                    i.due().words(),
                    Amount.thousandths(i.amount(), total),
                    i.why());
        }
    }

    /** As it is issued: each line under its category of income, which only the books say. */
    public Reckoned toIssue(TypedDraft typed, LocalDate issuedOn) {
        return reckon(catalogue.categorised(typed), issuedOn);
    }

    Reckoned reckon(TypedDraft asTyped, LocalDate issuedOn) {
        TypedDraft typed = asTyped.plain();
        Client client = typed.clientId() == null ? null : clients.client(typed.clientId());
        DraftRules rules = rules(client, issuedOn);
        DraftReading.Read all = DraftReading.read(typed, rules);
        // Of a quote that counts which its client has chosen to begin with.
        boolean choices = !Choices.optional(typed).isEmpty();
        DraftReading.Read read = choices ? DraftReading.read(Choices.chosen(typed), rules) : all;
        List<Problem> problems = new ArrayList<>(all.problems());
        refuseUnprintable(typed, client, problems);
        Totals totals = null;
        List<Installment> schedule = List.of();
        Jobs.SoFar job = jobs.of(typed, read.currency().getCode(), problems).orElse(null);
        try {
            totals = DocumentReckoning.reckon(read.body());
            if (job != null) {
                totals = Continuing.of(totals, job.values(), read.body().cash());
                refuse(job, totals);
            }
            if (totals.total().isZero() && (job == null || job.deducted().isEmpty())) {
                problems.add(new Problem("total", "0", "must be above zero to be issued"));
            } else if (totals.due().isPositive()
                    && read.problems().stream().noneMatch(p -> p.field().startsWith("schedule"))) {
                schedule = ScheduleMaking.make(totals.due(), issuedOn, read.terms());
            }
        } catch (RefusedException e) {
            boolean named = all.problems().stream().anyMatch(p -> p.field().startsWith("lines["));
            // Where a line could not be read, that is what is wrong, not that there is none.
            e.problems().stream()
                    .filter(p -> !named || !p.field().equals("lines"))
                    .forEach(p -> problems.add(inDraft(p, read)));
        }
        LateFeePolicy lateFee =
                policies.forIssue(typed.clientId(), typed.lateFee(), read.currency(), read.exchange(), problems);
        InstallmentOffer offer = offer(typed, read, totals, issuedOn, problems);
        List<String> notes = new ArrayList<>(read.notes());
        notes.addAll(stock.shortOf(Reckoned.sold(read)));
        return new Reckoned(
                read,
                totals,
                schedule,
                lateFee,
                problems,
                notes,
                understood(asTyped, typed),
                choices && totals != null ? left(all, read) : List.of(),
                job,
                offer);
    }

    /** What it offers its client before it is paid; null for nothing. */
    private static InstallmentOffer offer(
            TypedDraft typed, DraftReading.Read read, Totals totals, LocalDate issuedOn, List<Problem> problems) {
        InstallmentOffer offer = InstallmentOffer.read(typed.plan(), read.currency(), issuedOn, problems);
        if (offer != null && totals != null && totals.due().isPositive()) {
            offer.check(totals.due(), problems);
        }
        return offer;
    }

    /** @throws RefusedException where more deposits are invoiced than it, or what it leaves, comes to */
    private static void refuse(Jobs.SoFar job, Totals totals) {
        if (totals.total().isNegative()) {
            throw new RefusedException(
                    "lines",
                    Amounts.plain(totals.total()),
                    "is less than the deposit invoices that this final invoice deducts; credit what is too much of them");
        }
        Money left = job.left().minus(totals.total());
        if (job.deducted().isEmpty() && left.isNegative() && job.undeducted().isPositive()) {
            throw new RefusedException(
                    "lines",
                    Amounts.plain(totals.total()),
                    "at most " + Amounts.grouped(job.left()) + " is left of quote "
                            + job.quote().number() + ", since " + Amounts.grouped(job.undeducted())
                            + " is invoiced as a deposit; the final invoice deducts that");
        }
    }

    /** What the lines would cost that are not chosen. */
    private static List<Reckoning.ReckonedLine> left(DraftReading.Read all, DraftReading.Read chosen) {
        return Reckoned.lines(all, DocumentReckoning.figures(all.body())).stream()
                .filter(l -> !chosen.places().contains(l.place()))
                .toList();
    }

    /** What could have meant two numbers, with the one that was understood. */
    private static List<Reckoning.Understood> understood(TypedDraft asTyped, TypedDraft plain) {
        List<Reckoning.Understood> all = new ArrayList<>();
        for (int i = 0; i < plain.lines().size(); i++) {
            TypedDraft.TypedLine a = asTyped.lines().get(i);
            TypedDraft.TypedLine p = plain.lines().get(i);
            String path = "lines[" + i + "].";
            understood(path + "quantity", a.quantity(), p.quantity(), all);
            understood(path + "unitPrice", a.unitPrice(), p.unitPrice(), all);
            understood(path + "discount", a.discount(), p.discount(), all);
        }
        for (int i = 0; i < plain.schedule().size(); i++) {
            understood(
                    "schedule[" + i + "].share",
                    asTyped.schedule().get(i).share(),
                    plain.schedule().get(i).share(),
                    all);
        }
        return all;
    }

    private static void understood(String field, String typed, String plain, List<Reckoning.Understood> all) {
        String words = typed == null ? "" : TypedNumber.understood(typed, plain);
        if (!words.isEmpty()) {
            all.add(new Reckoning.Understood(field, words));
        }
    }

    /** What no font can print is named beside its field before it is issued. */
    private static void refuseUnprintable(TypedDraft typed, Client client, List<Problem> problems) {
        if (client != null) {
            Texts.printable(
                    "clientId", client.name() + client.contact() + client.address() + client.taxNumber(), problems);
        }
        Texts.printable("subject", typed.subject(), problems);
        Texts.printable("reference", typed.reference(), problems);
        Texts.printable("project", typed.project(), problems);
        Texts.printable("notes", typed.notes(), problems);
        Texts.printable("terms", typed.terms(), problems);
        for (int i = 0; i < typed.lines().size(); i++) {
            TypedDraft.TypedLine line = typed.lines().get(i);
            Texts.printable("lines[" + i + "].description", line.description(), problems);
            Texts.printable("lines[" + i + "].unit", line.unit(), problems);
            Texts.printable("lines[" + i + "].note", line.note(), problems);
            Texts.printable("lines[" + i + "].serial", line.serial(), problems);
            Texts.printable("lines[" + i + "].category", line.category(), problems);
        }
        refuseUnprintable("discounts", typed.discounts(), problems);
        refuseUnprintable("charges", typed.charges(), problems);
        typed.fields().forEach((label, value) -> Texts.printable("fields." + label, value, problems));
    }

    private static void refuseUnprintable(String list, List<TypedDraft.TypedExtra> extras, List<Problem> problems) {
        for (int i = 0; i < extras.size(); i++) {
            Texts.printable(list + "[" + i + "].description", extras.get(i).description(), problems);
        }
    }

    private DraftRules rules(Client client, LocalDate issuedOn) {
        Business own = business.business();
        DraftRules.Buyer buyer = null;
        if (client != null) {
            buyer = new DraftRules.Buyer(client.taxNumber(), client.country(), client.exemption());
        }
        return new DraftRules(
                business.taxes(),
                own.currencyUnit(),
                own.habits().taxRounding(),
                rates.on(issuedOn),
                documents.setting().rounding(),
                own.registered() ? own.taxNumber() : "",
                buyer,
                issuedOn);
    }

    /** The core counts the lines, discounts and charges that could be read; the draft has others between them. */
    private static Problem inDraft(Problem p, DraftReading.Read read) {
        Matcher matcher = COUNTED.matcher(p.field());
        if (!matcher.matches()) {
            return p;
        }
        List<Integer> places = switch (matcher.group(1)) {
            case "discounts" -> read.discountPlaces();
            case "charges" -> read.chargePlaces();
            default -> read.places();
        };
        int place = places.get(Integer.parseInt(matcher.group(2)));
        return p.at(matcher.group(1) + "[" + place + "]" + matcher.group(3));
    }
}
