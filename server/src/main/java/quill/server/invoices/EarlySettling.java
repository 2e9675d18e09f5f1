package quill.server.invoices;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.ledger.Step;
import quill.core.money.Amounts;
import quill.core.quote.InstallmentOffer;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.debts.Debts;
import quill.server.debts.Settling;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;

/**
 * Takes the early settlement discount off an invoice once the rest of it was paid in time, by whatever way; and asks for it
 * again once what was paid goes back, so that the whole is open. The client's own invoice states net and tax of the discount,
 * so that no further document is needed (value from memory: the practice of HMRC since 2015).
 */
@Component
@Transactional(propagation = Propagation.MANDATORY)
public class EarlySettling {
    private final Plans plans;
    private final Documents documents;
    private final Jobs jobs;
    private final Debts debts;
    private final Settling settling;
    private final BooksService books;
    private final BusinessService business;
    private final Happenings happenings;

    EarlySettling(
            Plans plans,
            Documents documents,
            Jobs jobs,
            Debts debts,
            Settling settling,
            BooksService books,
            BusinessService business,
            Happenings happenings) {
        this.plans = plans;
        this.documents = documents;
        this.jobs = jobs;
        this.debts = debts;
        this.settling = settling;
        this.books = books;
        this.business = business;
        this.happenings = happenings;
    }

    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        Document invoice = documents.find(change.invoiceId()).orElseThrow();
        Optional<InstallmentOffer> offer =
                invoice.isDraft() || invoice.voidedOn() != null ? Optional.empty() : plans.offer(invoice);
        if (offer.filter(InstallmentOffer::hasDiscount).isEmpty()) {
            return;
        }
        Money off = settling.letOff(invoice.id(), invoice.currency());
        List<StoredInstallment> installments =
                debts.of(invoice.id()).stream().filter(i -> !i.fee()).toList();
        Money open = sum(off, installments.stream().map(StoredInstallment::open).toList());
        if (off.isPositive()) {
            if (open.isPositive()) {
                askAgain(invoice, "what was paid early went back", false);
            }
            return;
        }
        Money settled =
                sum(off, installments.stream().map(StoredInstallment::settled).toList());
        Money most = offer.get().off(plans.due(invoice));
        boolean early = open.isPositive()
                && !open.isGreaterThan(most)
                && settled.isPositive()
                && plans.picked(invoice).isEmpty()
                && settling.paidBy(invoice.id()).filter(offer.get()::holdsOn).isPresent();
        if (early) {
            letOff(invoice, installments, open);
        }
    }

    private static Money sum(Money like, List<Money> amounts) {
        return Amounts.sum(like.getCurrencyUnit(), amounts);
    }

    private void letOff(Document invoice, List<StoredInstallment> installments, Money off) {
        Set<Long> ids = installments.stream().map(StoredInstallment::id).collect(Collectors.toSet());
        IssuedDocument said = documents.issued(invoice);
        settling.letOff(
                invoice.clientId(),
                invoice.id(),
                ids,
                totals(said, invoice.id(), off),
                step -> book(step, "Early settlement discount", invoice, said));
        happenings.tell(
                invoice.id(),
                invoice.clientId(),
                "Paid early: the discount of " + Amounts.grouped(off) + " is taken off");
    }

    private long book(Step step, String what, Document invoice, IssuedDocument said) {
        return books.book(
                step.entry(),
                what + " · " + invoice.number(),
                new BooksService.About(invoice.clientId(), invoice.id(), null),
                null,
                said.exchangeInto(business.business().currencyUnit()));
    }

    /** The share of each tax in what is taken off. */
    private CreditTotals totals(IssuedDocument said, DocumentId invoice, Money off) {
        return CreditReckoning.ofAmount(said.creditable(), jobs.takenBack(invoice, said.creditable()), off);
    }

    /** Whether a discount was taken off an invoice, and stands. */
    public boolean stands(Document invoice) {
        return settling.letOff(invoice.id(), invoice.currency()).isPositive();
    }

    /** An invoice is taken back whole: what was taken off is owed again before. Nothing happens where nothing was. */
    public void beforeTakingBack(Document invoice) {
        askAgain(invoice, "it is taken back", true);
    }

    private void askAgain(Document invoice, String why, boolean more) {
        Money off = settling.letOff(invoice.id(), invoice.currency());
        if (!off.isPositive()) {
            return;
        }
        IssuedDocument said = documents.issued(invoice);
        settling.askAgain(
                invoice.clientId(),
                invoice.id(),
                totals(said, invoice.id(), off),
                more,
                step -> book(step, "Early settlement discount withdrawn", invoice, said));
        happenings.tell(
                invoice.id(),
                invoice.clientId(),
                "The early settlement discount of " + Amounts.grouped(off) + " is owed again: " + why);
    }
}
