package quill.server.payments;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OpenDebt;
import quill.core.money.TypedNumber;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;

/** Says what a payment would settle, before it is recorded. */
@Service
public class Outlooks {
    private final RecordedReading reading;
    private final Debts debts;
    private final ClientsService clients;

    Outlooks(RecordedReading reading, Debts debts, ClientsService clients) {
        this.reading = reading;
        this.debts = debts;
        this.clients = clients;
    }

    /**
     * What a payment would settle.
     *
     * @param debts everything that is open, in the order in which money settles it, with what it would take
     * @param credit what no debt would take
     * @param receiptTo where a receipt would go; empty where none can
     */
    public record Outlook(List<Taking> debts, Amount credit, String receiptTo) {}

    /** A debt and what it would take. */
    public record Taking(
            long id, String number, int position, boolean fee, LocalDate dueOn, Amount open, Amount takes) {}

    /** Says what a payment would settle, without recording it. A sum that cannot be read yet settles nothing. */
    @Transactional(readOnly = true)
    public Outlook outlook(PaymentsService.Recorded r) {
        CurrencyUnit currency = reading.currency(r, new ArrayList<>());
        Money typed = TypedNumber.amount("amount", r.amount(), currency, new ArrayList<>());
        Document named = reading.paidFor(r);
        // What comes on a quote settles the deposit invoice that is made with it.
        boolean ahead = r.held() || named != null && named.kind() == DocumentKind.QUOTE;
        Money amount = typed == null || ahead ? Money.zero(currency) : typed;
        List<OpenDebt> open = debts.open(r.clientId(), currency);
        Appropriation to = Appropriation.of(
                amount, open, reading.named(r, named == null || ahead ? null : named.id(), open), debts.order());
        Map<Long, Money> takes =
                to.parts().stream().collect(Collectors.toMap(p -> p.debt().id(), Appropriation.Part::amount));
        // Money that settles nothing at all has no invoice to write of, and a deposit is receipted by the invoice.
        boolean receipted = !r.held() && (r.invoiceId() != null || !open.isEmpty());
        return new Outlook(
                open.stream()
                        .sorted(debts.order())
                        .map(d -> new Taking(
                                d.id(),
                                d.number(),
                                d.position(),
                                d.fee(),
                                d.dueOn(),
                                Amount.of(d.open()),
                                Amount.of(takes.getOrDefault(d.id(), Money.zero(currency)))))
                        .toList(),
                Amount.of(to.credit()),
                receipted ? clients.client(r.clientId()).forReceipts().email() : "");
    }
}
