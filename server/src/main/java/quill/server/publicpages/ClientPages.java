package quill.server.publicpages;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.RefusedException;
import quill.core.document.CreditorReference;
import quill.core.money.Amounts;
import quill.core.pay.PageChoices;
import quill.core.pay.WayRule;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.OrderViews;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Shown;
import quill.server.debts.Debts;
import quill.server.dispatch.WaysToPay;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** What a client's page says of an invoice. */
@Service
class ClientPages {
    private final InvoicesService invoices;
    private final Debts debts;
    private final Payments payments;
    private final BooksService books;
    private final WaysToPay waysToPay;
    private final BusinessClock clock;
    private final PagePapers papers;
    private final SaidOnPages said;

    ClientPages(
            InvoicesService invoices,
            Debts debts,
            Payments payments,
            BooksService books,
            WaysToPay waysToPay,
            BusinessClock clock,
            PagePapers papers,
            SaidOnPages said) {
        this.invoices = invoices;
        this.debts = debts;
        this.payments = payments;
        this.books = books;
        this.waysToPay = waysToPay;
        this.clock = clock;
        this.papers = papers;
        this.said = said;
    }

    /**
     * One thing that can be paid now.
     *
     * @param what due now, all that is open, or some of it that the payer chose
     * @param by how it is paid on the card company's page, or tried: by card or bank debit; empty for not there
     * @param wallets those that show there where a device has them, by their names
     * @param debitCertainOn when a bank debit that is begun today is certain; null where none is taken
     */
    record Choice(
            String what,
            List<Long> installments,
            Amount amount,
            String by,
            List<String> wallets,
            @Schema(nullable = true) LocalDate debitCertainOn) {
        private boolean isOnline() {
            return !by.isEmpty();
        }
    }

    /** A bank debit that is on its way, or what is held on a card. @param on when it is certain, or the last day of what is held */
    record Coming(Amount amount, LocalDate on, boolean held) {}

    private record Offer(Choice choice, WaysToPay.Ways ways) {}

    /** A payment that arrived, without what it cost the business. */
    record Received(LocalDate on, String how, Amount amount) {}

    /** The page, whole. */
    record PublicPage(
            PrintedDocument document,
            LocalDate today,
            List<Measure.Part> measure,
            Amount open,
            PayingNow paying,
            Moving moving,
            Amount credit,
            List<PagePapers.TakenBack> creditNotes,
            List<Attachments.Attachment> files,
            @Schema(nullable = true) LocalDate voidedOn) {}

    /**
     * Money that moves, or moved.
     *
     * @param said to whoever has paid, or has not; null where there is nothing to say
     * @param coming bank debits that are on their way, and what is held on cards
     * @param tests what was paid on trial, as long as that goes on
     */
    record Moving(
            @Schema(nullable = true) SaidOnPages.Said said,
            List<Coming> coming,
            List<Received> received,
            List<Received> tests) {}

    /**
     * How it can be paid at once.
     *
     * @param iban for a transfer; empty where none is offered
     * @param test whether cards are taken on trial only: nothing is taken, nothing is settled
     * @param otherwise how else, such as in cash; may be empty
     * @param hold whether a card's money is only held, until the work is done
     * @param receipts whether whoever pays is sent a receipt
     * @param plan what can be picked, accepted, or paid early
     */
    record PayingNow(
            List<Choice> choices,
            boolean cards,
            boolean test,
            boolean hold,
            boolean receipts,
            String iban,
            String reference,
            List<String> otherwise,
            Picking.PickView plan) {}

    /** What the page of an issued invoice says. */
    PublicPage of(Document invoice) {
        return of(invoice, CardOrders.Outcome.NOTHING_OPEN);
    }

    /** The same, for somebody who comes back from paying. @param outcome what came of it */
    PublicPage of(Document invoice, CardOrders.Outcome outcome) {
        PrintedDocument document = invoices.document(invoice).forClient();
        List<Measure.Part> parts = Measure.of(debts.of(invoice.id()), clock.today());
        CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
        boolean open = invoice.openMinor() > 0;
        List<OrderViews.Seen> coming = said.coming(invoice.id());
        Set<Long> underway =
                coming.stream().flatMap(u -> u.parts().keySet().stream()).collect(Collectors.toSet());
        List<Offer> offers = offers(
                invoice, parts.stream().filter(p -> !underway.contains(p.id())).toList(), currency);
        List<Choice> choices = offers.stream().map(Offer::choice).toList();
        WaysToPay.Ways ways =
                offers.isEmpty() ? WaysToPay.Ways.NONE : offers.get(0).ways();
        List<Payment> came = payments.ofInvoice(invoice.id()).stream()
                .filter(p -> p.undone() == null && p.isHere())
                .toList();
        return new PublicPage(
                document,
                clock.today(),
                parts,
                Amount.ofMinor(invoice.currency(), invoice.openMinor()),
                new PayingNow(
                        choices,
                        open && choices.stream().anyMatch(Choice::isOnline),
                        open && offers.stream().anyMatch(o -> o.ways().test()),
                        ways.hold(),
                        waysToPay.areReceipted(),
                        ways.iban(),
                        CreditorReference.grouped(document.paying().reference()),
                        ways.otherwise(),
                        ways.hold() ? papers.offered(invoice).withoutEarly() : papers.offered(invoice)),
                new Moving(
                        said.of(invoice, outcome, came),
                        coming.stream()
                                .map(u -> new Coming(
                                        Amount.of(u.amount()),
                                        u.brings().until(),
                                        u.brings().holds()))
                                .toList(),
                        came.stream()
                                .map(p -> new Received(p.valueOn(), how(p), p.amount()))
                                .toList(),
                        said.tests(invoice.id()).stream()
                                .map(t -> new Received(t.on(), t.how(), t.amount()))
                                .toList()),
                Amount.of(books.creditOf(invoice.clientId(), currency)),
                papers.creditNotes(invoice.id()),
                papers.files(invoice.id()),
                invoice.voidedOn());
    }

    private static String how(Payment p) {
        Money back = p.back().amount().money();
        return back.isPositive() ? p.words() + "; " + Shown.money(back) + " of it was given back" : p.words();
    }

    private List<Offer> offers(Document invoice, List<Measure.Part> parts, CurrencyUnit currency) {
        List<Measure.Part> open =
                parts.stream().filter(p -> p.open().money().isPositive()).toList();
        return PageChoices.of(open, Measure.Part::dueOn, clock.today()).stream()
                .map(c -> offer(c.what(), c.parts(), invoice, currency))
                .toList();
    }

    /**
     * What these open installments and fees come to, to be paid together.
     *
     * @throws RefusedException naming {@code installments}, for one that is not open on this invoice
     */
    Choice choose(Document invoice, List<Long> ids) {
        List<Measure.Part> open = Measure.of(debts.of(invoice.id()), clock.today()).stream()
                .filter(p -> p.open().money().isPositive())
                .toList();
        List<Measure.Part> chosen =
                open.stream().filter(p -> ids.contains(p.id())).toList();
        if (chosen.isEmpty() || chosen.size() != Set.copyOf(ids).size()) {
            throw new RefusedException(
                    "installments",
                    ids,
                    "must be among what is open: "
                            + open.stream().map(Measure.Part::id).toList());
        }
        return offer("some", chosen, invoice, CurrencyUnit.of(invoice.currency()))
                .choice();
    }

    private Offer offer(String what, List<Measure.Part> parts, Document invoice, CurrencyUnit currency) {
        Money sum =
                Amounts.sum(currency, parts.stream().map(p -> p.open().money()).toList());
        WaysToPay.Ways ways = waysToPay.of(sum, invoice.clientId(), invoice.id());
        List<Long> ids = parts.stream().map(Measure.Part::id).toList();
        return new Offer(
                new Choice(
                        what,
                        ids,
                        Amount.of(sum),
                        ways.byPage(),
                        ways.wallets(),
                        ways.debit() ? WayRule.workingDaysAfter(clock.today(), WayRule.DEBIT_DAYS) : null),
                ways);
    }
}
