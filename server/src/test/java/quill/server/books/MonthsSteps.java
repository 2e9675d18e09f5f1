package quill.server.books;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.core.ledger.OpenDebt;
import quill.server.BookingProcessor;
import quill.server.Server;
import quill.server.books.MonthsModel.Paid;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.HowPaid;
import quill.server.clearing.RefundOrders;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.payments.ByHand;
import quill.server.payments.Payer;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;
import quill.server.payments.PaymentsService;
import quill.server.payments.Undoing;

/** What happens in a month of one client, with its money too. */
final class MonthsSteps extends MonthsDocuments {
    private static final int TRIES = 6;
    final Map<String, Integer> done = new TreeMap<>();
    private final Map<String, Paid> refundsAsked = new HashMap<>();
    private final BookingProcessor processor;
    /** Whether something went that had settled debts: exactly those are open again, and credit settles them with what comes next. */
    boolean opened;

    MonthsSteps(Server server, BookingProcessor processor, Random random) {
        super(server, random);
        this.processor = processor;
    }

    void begin(ClientId of) {
        client = of;
        invoices = new ArrayList<>();
        opened = false;
    }

    /** One that could be done; or the last that was tried. */
    String step() {
        String what = "";
        for (int i = 0; i < TRIES && what.isEmpty(); i++) {
            what = tried();
        }
        return what;
    }

    private String tried() {
        String what;
        try {
            what = switch (random.nextInt(24)) {
                case 0, 1, 2 -> issue();
                case 3, 4 -> pay();
                case 5, 6 -> payByCard();
                case 7, 8 -> refund();
                case 9 -> sendBack();
                case 10 -> contest();
                case 11 -> decide();
                case 12 -> writeOff();
                case 13 -> oweAgain();
                case 14 -> credit();
                case 15 -> move();
                case 16 -> rearrange();
                case 17 -> fine();
                case 18 -> voided();
                case 19, 20 -> waive();
                case 21 -> revise();
                case 22 -> move();
                default -> random.nextBoolean() ? takeBack() : payOut();
            };
        } catch (RefusedException | ConflictException e) {
            // Whatever is refused has changed nothing: the check that follows says so.
            what = "";
            done.merge("refused", 1, Integer::sum);
        }
        if (!what.isEmpty()) {
            done.merge(what, 1, Integer::sum);
        }
        return what;
    }

    private String pay() {
        boolean cheque = random.nextBoolean();
        long amount = 100 + random.nextInt(40_000);
        DocumentId named = random.nextBoolean() ? any() : null;
        long id = server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        key(), client, named, cheque ? "CHEQUE" : "TRANSFER", euros(amount), "", ""))
                .id();
        model.came(new Paid(id, client, "BANK", null, amount));
        return "paid";
    }

    private String payByCard() {
        DocumentId invoice = any();
        List<StoredInstallment> open = invoice == null
                ? List.of()
                : debts(invoice).stream().filter(d -> d.open().isPositive()).toList();
        if (open.isEmpty()) {
            return "";
        }
        Money sum =
                open.stream().map(StoredInstallment::open).reduce(Money::plus).orElseThrow();
        OnTop top =
                random.nextBoolean() ? OnTop.nothing(EUR) : new OnTop(cents(300), cents(200), cents(40), "some-tax");
        Set<String> before = processor.orders();
        server.bean(CardOrders.class)
                .payAt(
                        stored(invoice),
                        open.stream().map(StoredInstallment::id).collect(Collectors.toSet()),
                        sum,
                        Payer.NONE,
                        HowPaid.PLAIN.with(null, top));
        String order = processor.orders().stream()
                .filter(o -> !before.contains(o))
                .findFirst()
                .orElseThrow();
        processor.pay(order);
        server.bean(CardOrders.class).askAboutAll(() -> false);
        Paid p = new Paid(
                server.bean(Payments.class).byKey(order).orElseThrow().id(),
                client,
                "PROCESSOR_CLEARING",
                order,
                sum.getAmountMinorLong());
        p.tip = top.tip().getAmountMinorLong();
        p.surcharge = top.surcharge().getAmountMinorLong();
        p.tax = top.tax().getAmountMinorLong();
        model.came(p);
        model.costs("PROCESSOR_CLEARING", minor(processor.fee(order)));
        return "by card";
    }

    private Money cents(int most) {
        return Money.ofMinor(EUR, random.nextInt(most));
    }

    private Paid anyPayment(boolean online) {
        List<Paid> some = model.payments.stream()
                .filter(p -> p.client.equals(client) && !p.gone && p.left > 0 && (p.order != null) == online)
                .toList();
        return some.isEmpty() ? null : some.get(random.nextInt(some.size()));
    }

    /** By the processor: booked when it is asked for. */
    private String refund() {
        Paid p = anyPayment(true);
        if (p == null || refundsAsked.containsValue(p)) {
            return "";
        }
        long amount = random.nextBoolean() ? p.left : 1 + random.nextInt((int) p.left);
        boolean owedAgain = random.nextBoolean();
        boolean allowed = owedAgain || amount <= creditHeld();
        opened |= owedAgain;
        String key = key();
        boolean given;
        String why = "";
        try {
            server.bean(RefundOrders.class)
                    .give(new PaymentRefunds.Given(key, p.id, "", euros(amount), "", "", owedAgain, false));
            given = true;
        } catch (RefusedException e) {
            given = false;
            why = e.getMessage();
        }
        assertThat(given)
                .as("a refund of %s of %s, owed again %s: %s", euros(amount), euros(p.left), owedAgain, why)
                .isEqualTo(allowed);
        if (given) {
            model.goes(p, amount, false);
            p.refunded = true;
            refundsAsked.put("refund-" + key, p);
        }
        return given ? "refunded" : "refund refused";
    }

    private String sendBack() {
        boolean arrives = random.nextInt(3) != 0;
        Set<String> before = Set.copyOf(refundsAsked.keySet());
        BigDecimal amount = processor.sendBack(arrives);
        if (amount == null) {
            return "";
        }
        // One is asked of each payment at a time, and the processor sends them in an order of its own.
        Paid p = before.stream()
                .filter(k -> !processor.isAsked(k))
                .findFirst()
                .map(refundsAsked::remove)
                .orElseThrow();
        if (!arrives) {
            model.comesAgain(p, amount.movePointRight(2).longValueExact(), false);
        }
        return arrives ? "refund sent" : "refund failed";
    }

    private String contest() {
        Paid p = anyPayment(true);
        if (p == null || p.refunded) {
            return "";
        }
        processor.contest(p.order);
        opened = true;
        model.goes(p, p.left, true);
        model.costs("PROCESSOR_CLEARING", 1_500);
        p.gone = true;
        return "contested";
    }

    private String decide() {
        boolean won = random.nextInt(3) != 0;
        String order = processor.decide(won);
        if (order == null) {
            return "";
        }
        Paid p = model.payments.stream()
                .filter(one -> order.equals(one.order))
                .findFirst()
                .orElseThrow();
        if (won) {
            model.comesAgain(p, minor(processor.amountOf(order)) - p.top(), true);
            // A payment is contested once.
            p.refunded = true;
            p.gone = false;
        }
        return won ? "won" : "lost";
    }

    private String payOut() {
        BigDecimal all = processor.payOut();
        if (all == null) {
            return "";
        }
        long amount = all.movePointRight(2).longValueExact();
        model.book("BANK", amount);
        model.book("PROCESSOR_CLEARING", -amount);
        return "paid out";
    }

    private String move() {
        Paid p = anyPayment(random.nextBoolean());
        if (p == null) {
            return "";
        }
        var settled = locked(() -> server.bean(Debts.class).settledBy(p.id));
        List<OpenDebt> open = locked(() -> server.bean(Debts.class).open(client, EUR));
        if (settled.isEmpty() || open.isEmpty()) {
            return "";
        }
        opened = true;
        var from = settled.get(random.nextInt(settled.size()));
        OpenDebt to = open.get(random.nextInt(open.size()));
        server.bean(ByHand.class)
                .move(
                        key(),
                        p.id,
                        from.debt().id(),
                        to.id(),
                        euros(1 + random.nextInt((int) from.amount().getAmountMinorLong())));
        return "moved";
    }

    /** What came by hand was recorded wrongly, or was a cheque that bounced. */
    private String takeBack() {
        Paid p = anyPayment(false);
        if (p == null) {
            return "";
        }
        boolean cheque =
                server.bean(Payments.class).find(p.id).means().way().name().equals("CHEQUE");
        long all = p.left;
        opened = true;
        if (cheque && random.nextBoolean()) {
            server.bean(ByHand.class).chequeCameBack(key(), p.id, "", "4.50", "no money");
            model.goes(p, all, false);
            model.costs("BANK", 450);
            p.gone = true;
            return "cheque back";
        }
        server.bean(Undoing.class).undo(p.id, "another client’s");
        model.goes(p, all, false);
        p.gone = true;
        return "undone";
    }
}
