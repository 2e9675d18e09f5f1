package quill.server.moneyin;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.HowPaid;
import quill.server.collections.SavedViews;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.SquareCode;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.payments.Payer;
import quill.server.requests.Requests;

/**
 * A card that is at hand, in person or by telephone: the processor's own page is opened for the business, or shown as a code
 * for the client's own telephone. The number never reaches us.
 */
@Service
class Collecting {
    private final Documents documents;
    private final Debts debts;
    private final Requests requests;
    private final CardOrders orders;
    private final SavedViews saved;

    Collecting(Documents documents, Debts debts, Requests requests, CardOrders orders, SavedViews saved) {
        this.saved = saved;
        this.documents = documents;
        this.debts = debts;
        this.requests = requests;
        this.orders = orders;
    }

    /** Where it is paid. @param code the same as a square code, an image */
    record PayPage(String address, String code) {}

    /** What the client says while its card is at hand. @param said as noted, when and by whom */
    record Keep(SavedViews.TypedKeep typed, String said) {}

    /**
     * Opens the page.
     *
     * @param installments which of an invoice; all that is open where there are none; of a quote, what is asked for
     * @param hold whether the money is only held until the work is done
     * @param keep null where nothing is kept for later
     * @throws ConflictException where nothing is open, or the processor does not answer
     */
    PayPage open(DocumentId id, List<Long> installments, boolean hold, Keep keep) {
        Document document = documents
                .find(id)
                .filter(d -> !d.isDraft())
                .orElseThrow(() -> new NotFoundException("There is no issued document " + id + "."));
        HowPaid how = saved.atHand(document, hold, keep == null ? null : keep.typed(), keep == null ? "" : keep.said());
        String address;
        if (document.kind() == DocumentKind.QUOTE) {
            Money missing = requests.missing(document);
            if (!missing.isPositive()) {
                throw new ConflictException("Nothing is asked for on this quote. Ask for money first.");
            }
            address = orders.payAt(document, Set.of(), missing, Payer.NONE, how);
        } else {
            List<StoredInstallment> open = debts.of(id).stream()
                    .filter(d -> d.open().isPositive())
                    .filter(d -> installments == null || installments.isEmpty() || installments.contains(d.id()))
                    .toList();
            if (open.isEmpty()) {
                throw new RefusedException("installments", installments, "nothing of this is open any more");
            }
            Money sum = Amounts.sum(
                    CurrencyUnit.of(document.currency()),
                    open.stream().map(StoredInstallment::open).toList());
            address = orders.payAt(
                    document,
                    open.stream().map(StoredInstallment::id).collect(Collectors.toSet()),
                    sum,
                    Payer.NONE,
                    how);
        }
        return new PayPage(address, SquareCode.inline(address));
    }
}
