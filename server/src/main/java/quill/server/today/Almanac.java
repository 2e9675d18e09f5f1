package quill.server.today;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Standing;
import quill.server.chasing.ActView;
import quill.server.common.Amount;
import quill.server.debts.OpenSums;
import quill.server.dispatch.Message;
import quill.server.documents.Document;
import quill.server.invoices.InvoiceIndex;
import quill.server.invoices.Measure;
import quill.server.quotes.QuoteWaits;

/** Clients as lanes over time: what fell due, what is late, what comes, and what was and will be done by itself. */
final class Almanac {
    static final int MOST_LANES = 40;

    private Almanac() {}

    /**
     * A mark.
     *
     * @param kind installment, fee, reminder; milestone for an installment without a day, at the end of the lane; quote, on the
     *     last day on which one can be accepted; asked, on the day on which a deposit was asked for that did not come
     * @param invoiceId of a quote its own
     * @param standing how an installment stands; a fee or a reminder that is still to come is COMING
     * @param size thousandths of the largest amount shown, for drawing only
     */
    record Mark(
            String kind,
            DocumentId invoiceId,
            String what,
            LocalDate on,
            @Schema(nullable = true) Amount amount,
            Standing standing,
            long daysLate,
            int size) {}

    /** A client's lane. */
    record Lane(ClientId clientId, String client, Amount open, Amount late, List<Mark> marks) {}

    /** Whose lanes are shown: those who owe most of what is late, then most, then those who paid last. */
    static List<ClientId> whoIsShown(List<OpenSums.ClientSum> owed, List<ClientId> settled) {
        return Stream.concat(
                        owed.stream()
                                .sorted(Comparator.comparing((OpenSums.ClientSum s) ->
                                                s.late().getAmount())
                                        .thenComparing(s -> s.open().getAmount())
                                        .reversed()
                                        .thenComparing(OpenSums.ClientSum::client)
                                        .thenComparing(OpenSums.ClientSum::clientId))
                                .map(OpenSums.ClientSum::clientId),
                        settled.stream())
                .distinct()
                .limit(MOST_LANES)
                .toList();
    }

    /** The lanes of those who owe most of what is late, then most. */
    static List<Lane> lanes(Collection<InvoiceIndex.Row> rows, CurrencyUnit currency, LocalDate from, LocalDate to) {
        Money largest = rows.stream()
                .flatMap(r -> r.measure().stream())
                .filter(p -> !p.fee())
                .map(p -> p.amount().money())
                .max(Comparator.comparing(Money::getAmount))
                .orElse(Money.zero(currency));
        Map<String, Sums> byClient = new LinkedHashMap<>();
        for (InvoiceIndex.Row row : rows) {
            // What a client owes in another currency has a lane of its own: amounts of two currencies have no sum.
            CurrencyUnit owedIn =
                    row.total() == null ? currency : row.total().money().getCurrencyUnit();
            Sums sums = byClient.computeIfAbsent(
                    row.clientId() + " " + owedIn, k -> new Sums(row.clientId(), row.clientName(), owedIn));
            for (Measure.Part p : row.measure()) {
                sums.add(p);
                if (p.dueOn() == null && p.open().money().isPositive()) {
                    sums.marks.add(noDay(row, p, to));
                }
                boolean inside = Standing.isDue(p.dueOn(), to) && !Standing.isLate(p.dueOn(), from);
                if ((inside || p.standing() == Standing.LATE)
                        && p.standing() != Standing.CREDITED
                        && p.standing() != Standing.WRITTEN_OFF) {
                    sums.marks.add(mark(row, p, largest));
                }
            }
        }
        return byClient.values().stream()
                .filter(s -> !s.marks.isEmpty() || s.open.isPositive())
                .map(Sums::lane)
                .sorted(Comparator.comparing((Lane l) -> l.late().money().getAmount())
                        .thenComparing(l -> l.open().money().getAmount())
                        .reversed()
                        .thenComparing(Lane::client))
                .toList();
    }

    private static final class Sums {
        private final ClientId clientId;
        private final String client;
        private final List<Mark> marks = new ArrayList<>();
        private Money open;
        private Money late;

        private Sums(ClientId clientId, String client, CurrencyUnit currency) {
            this.clientId = clientId;
            this.client = client;
            this.open = Money.zero(currency);
            this.late = Money.zero(currency);
        }

        private void add(Measure.Part p) {
            open = open.plus(p.open().money());
            late = p.standing() == Standing.LATE ? late.plus(p.open().money()) : late;
        }

        private Lane lane() {
            return new Lane(clientId, client, Amount.of(open), Amount.of(late), marks);
        }
    }

    private static Mark mark(InvoiceIndex.Row row, Measure.Part p, Money largest) {
        String subject = row.subject().isEmpty() ? row.number() : row.number() + " · " + row.subject();
        return new Mark(
                p.fee() ? "fee" : "installment",
                row.id(),
                subject,
                p.dueOn(),
                p.standing() == Standing.SETTLED ? p.amount() : p.open(),
                // A fee of today is charged though it is not late yet; only one that is to be charged is COMING.
                p.fee() && p.standing() == Standing.COMING ? Standing.LATE : p.standing(),
                p.daysLate(),
                p.fee() || largest.isZero() ? 1 : Amount.thousandths(p.amount().money(), largest));
    }

    private static Mark noDay(InvoiceIndex.Row row, Measure.Part p, LocalDate to) {
        return new Mark("milestone", row.id(), row.number() + " · " + p.note(), to, p.open(), Standing.COMING, 0, 1);
    }

    /** Adds to the lanes what quotes wait for; whoever has no lane yet gets one, as long as there is room. */
    static List<Lane> withQuotes(List<Lane> lanes, List<QuoteWaits.QuoteDay> days) {
        Map<String, Lane> all = new LinkedHashMap<>();
        lanes.forEach(l -> all.put(l.clientId() + " " + l.open().currency(), l));
        for (QuoteWaits.QuoteDay day : days) {
            Document quote = day.quote();
            Money none = Money.zero(CurrencyUnit.of(quote.currency()));
            String key = quote.clientId() + " " + quote.currency();
            Lane lane = all.getOrDefault(
                    key, new Lane(quote.clientId(), quote.clientName(), Amount.of(none), Amount.of(none), List.of()));
            List<Mark> marks = new ArrayList<>(lane.marks());
            String what = quote.number() + (quote.subject().isEmpty() ? "" : " · " + quote.subject());
            marks.add(new Mark(day.kind(), quote.id(), what, day.on(), day.amount(), Standing.COMING, 0, 1));
            marks.sort(Comparator.comparing(Mark::on));
            if (all.containsKey(key) || all.size() < MOST_LANES) {
                all.put(key, new Lane(lane.clientId(), lane.client(), lane.open(), lane.late(), marks));
            }
        }
        return List.copyOf(all.values());
    }

    /** Adds to the lanes what was sent, and what will be sent and charged. */
    static List<Lane> withActs(List<Lane> lanes, List<Message> sent, List<ActView> acts) {
        Map<ClientId, List<Mark>> more = new LinkedHashMap<>();
        for (Message m : sent) {
            more.computeIfAbsent(m.clientId(), k -> new ArrayList<>())
                    .add(new Mark("reminder", m.documentId(), m.subject(), m.madeOn(), null, Standing.SETTLED, 0, 1));
        }
        for (ActView a : acts) {
            more.computeIfAbsent(a.about().clientId(), k -> new ArrayList<>())
                    .add(new Mark(
                            a.kind(),
                            a.about().invoiceId(),
                            a.about().what(),
                            a.on(),
                            a.amount(),
                            Standing.COMING,
                            0,
                            1));
        }
        return lanes.stream()
                .map(l -> {
                    List<Mark> marks = new ArrayList<>(l.marks());
                    more.getOrDefault(l.clientId(), List.of()).stream()
                            .filter(m -> m.amount() == null
                                    || m.amount().currency().equals(l.open().currency()))
                            .forEach(marks::add);
                    marks.sort(Comparator.comparing(Mark::on));
                    return new Lane(l.clientId(), l.client(), l.open(), l.late(), marks);
                })
                .toList();
    }
}
