package quill.server.collections;

import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.cardorders.CardOrders;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.MoneyLetters;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;

/** Takes open sums from what is kept of a client: as the client says, as the business may, or as it was planned. */
@Service
public class TakingFromSaved {
    private static final Logger LOG = LoggerFactory.getLogger(TakingFromSaved.class);
    /** So many days a planned payment is tried where nobody says why it could not be taken. */
    private static final int DAYS_TRIED = 3;

    private final CardOrders orders;
    private final SavedMethods methods;
    private final PlannedPayments planned;
    private final Documents documents;
    private final MoneyLetters letters;
    private final TransactionTemplate transaction;
    private final BusinessClock clock;

    TakingFromSaved(
            CardOrders orders,
            SavedMethods methods,
            PlannedPayments planned,
            Documents documents,
            MoneyLetters letters,
            TransactionTemplate transaction,
            BusinessClock clock) {
        this.orders = orders;
        this.methods = methods;
        this.planned = planned;
        this.documents = documents;
        this.letters = letters;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** An issued invoice. @throws NotFoundException for what is none */
    Document invoice(DocumentId id) {
        return documents
                .find(id)
                .filter(d -> !d.isDraft() && d.kind() != DocumentKind.QUOTE)
                .orElseThrow(() -> new NotFoundException("There is no issued invoice " + id + "."));
    }

    /** What is open of these installments, together. */
    private static Money sum(Document invoice, List<StoredInstallment> parts) {
        return Amounts.sum(
                CurrencyUnit.of(invoice.currency()),
                parts.stream().map(StoredInstallment::open).toList());
    }

    /** The client pays from what is kept of it. @param shown the sum that it saw @param top what it saw on top of that */
    CardOrders.Taken pay(Document invoice, List<Long> installments, Money shown, SavedMethod from, OnTop top) {
        return take(invoice, planned.open(invoice, installments), shown, from, top);
    }

    private CardOrders.Taken take(
            Document invoice, List<StoredInstallment> parts, Money shown, SavedMethod from, OnTop top) {
        return orders.takeFrom(
                invoice, parts.stream().map(StoredInstallment::id).collect(Collectors.toSet()), shown, from, top);
    }

    /**
     * The business takes what is open, within what was agreed.
     *
     * @param installments which; all that is open where there are none
     * @param seen the sum that the person saw, in plain decimal digits
     * @throws RefusedException naming {@code method}, where it was not agreed
     */
    CardOrders.Taken collect(DocumentId id, List<Long> installments, String seen, long method) {
        Document invoice = invoice(id);
        SavedMethod from = methods.usable(invoice.clientId(), method);
        List<StoredInstallment> parts = planned.open(invoice, installments);
        Money sum = sum(invoice, parts);
        if (!Amounts.plain(sum).equals(seen)) {
            throw new ConflictException(
                    "What is open has changed: it is " + Amounts.grouped(sum) + " now. Nothing was taken; look again.");
        }
        String refusal = from.agreed().agreement().refusal(sum);
        if (!refusal.isEmpty()) {
            throw new RefusedException("method", from.with().words(), refusal);
        }
        return take(invoice, parts, sum, from, null);
    }

    /** Takes what is planned and whose day has come. What nobody answers about is tried again. */
    public void takeDue(BooleanSupplier stop) {
        for (PlannedPayment p : planned.due()) {
            if (stop.getAsBoolean()) {
                return;
            }
            Happenings.byItself(() -> {
                takeOne(p);
                return null;
            });
        }
    }

    private void takeOne(PlannedPayment p) {
        try {
            Document invoice = invoice(p.documentId());
            SavedMethod from = methods.find(p.methodId());
            if (!from.isUsable(clock.today())) {
                failed(p, from.with().words() + " has expired");
                return;
            }
            orders.takeFrom(invoice, p.parts().keySet(), p.amount(), from, null);
            planned.taken(p.id());
        } catch (CardOrders.NotTaken e) {
            failed(p, e.why());
        } catch (RefusedException e) {
            failed(p, e.problems().get(0).message());
        } catch (ConflictException e) {
            LOG.debug("planned payment {} was not taken yet", p.id(), e);
            if (clock.today().isAfter(p.on().plusDays(DAYS_TRIED))) {
                failed(p, e.getMessage());
            }
        } catch (RuntimeException e) {
            LOG.error("planned payment {} could not be taken; it is tried again", p.id(), e);
        }
    }

    /** The business hears of it, and whoever wanted it so. */
    private void failed(PlannedPayment p, String why) {
        transaction.executeWithoutResult(s -> {
            planned.failed(p, why);
            letters.cameBack("planned:" + p.id(), 0, p.documentId(), p.amount(), why);
        });
    }
}
