package quill.server.payments;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.ledger.OpenDebt;
import quill.core.money.TypedNumber;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.common.BusinessClock;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;

/** Reads what a person recorded: in which currency it is, and what it is for. */
@Component
class RecordedReading {
    private final Documents documents;
    private final Debts debts;
    private final BusinessService business;
    private final Rates rates;
    private final BusinessClock clock;

    RecordedReading(Documents documents, Debts debts, BusinessService business, Rates rates, BusinessClock clock) {
        this.documents = documents;
        this.debts = debts;
        this.business = business;
        this.rates = rates;
        this.clock = clock;
    }

    /** What the payer named. A debt that is not open any more needs nothing, and the money is there all the same. */
    Set<Long> named(PaymentsService.Recorded r, DocumentId paidFor, List<OpenDebt> open) {
        if (r.debts() == null || r.debts().isEmpty()) {
            return paidFor == null ? Set.of() : installmentsOf(paidFor);
        }
        Set<Long> theirs = open.stream().map(OpenDebt::id).collect(Collectors.toSet());
        theirs.retainAll(r.debts());
        return theirs;
    }

    /**
     * The invoice that was named, if it still stands: one that was voided or taken back to a draft meanwhile takes no
     * money, but the money is there all the same.
     */
    Document paidFor(PaymentsService.Recorded r) {
        if (r.invoiceId() == null) {
            return null;
        }
        Document invoice = document(r.invoiceId());
        if (!r.clientId().equals(invoice.clientId())) {
            throw new RefusedException("invoiceId", r.invoiceId(), "is not an invoice of this client");
        }
        return invoice.isDraft() || invoice.voidedOn() != null ? null : invoice;
    }

    private Document document(DocumentId id) {
        return documents
                .find(id)
                .filter(d -> d.kind().asksForMoney() || d.kind() == DocumentKind.QUOTE)
                .orElseThrow(() -> new NotFoundException("There is no invoice " + id + "."));
    }

    CurrencyUnit currency(PaymentsService.Recorded r, List<Problem> problems) {
        CurrencyUnit own = business.business().currencyUnit();
        String code = r.currency();
        if (code == null || code.isBlank()) {
            code = r.invoiceId() == null
                    ? own.getCode()
                    : document(r.invoiceId()).currency();
        }
        CurrencyUnit currency = TypedNumber.currency("currency", code, problems);
        if (currency != null && rates.exchange(currency, clock.today()).isEmpty()) {
            problems.add(new Problem("currency", code, "has no rate to " + own + " yet; note one in Settings"));
        }
        return currency == null ? own : currency;
    }

    /** Of one invoice. */
    Set<Long> installmentsOf(DocumentId invoiceId) {
        return debts.of(invoiceId).stream().map(i -> i.id()).collect(Collectors.toSet());
    }

    /** Whether an amount is more than the books take, in their own currency. */
    boolean beyondBooks(Money amount) {
        return rates.exchange(amount.getCurrencyUnit(), clock.today())
                .filter(e -> amount.getAmount().multiply(e.rate()).compareTo(TypedNumber.LARGEST) >= 0)
                .isPresent();
    }
}
