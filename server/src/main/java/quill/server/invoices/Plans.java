package quill.server.invoices;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.TypedInstallmentOffer;
import quill.core.money.Amounts;
import quill.core.quote.InstallmentOffer;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Hashes;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;

/** What an invoice offers its client before it is paid: installments to pick from, a discount for paying early, a text to accept. */
@Service
public class Plans {
    private static final int MOST_NAME = 200;

    private final PickedRepository repository;
    private final Documents documents;
    private final Attachments attachments;
    private final Debts debts;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    Plans(
            PickedRepository repository,
            Documents documents,
            Attachments attachments,
            Debts debts,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.documents = documents;
        this.attachments = attachments;
        this.debts = debts;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /** What was picked. */
    public record Picked(int installments, LocalDate on) {}

    /** Who accepted. @param address internet address of whoever did */
    public record Accepted(String name, LocalDate on, Instant at, String address, String seal) {}

    private TypedInstallmentOffer typed(Document invoice) {
        return invoice.kind() == DocumentKind.INVOICE && !invoice.isDraft()
                ? documents.typed(invoice).plain().plan()
                : null;
    }

    /** What an issued invoice offers, whatever became of it. */
    public Optional<InstallmentOffer> offer(Document invoice) {
        return Optional.ofNullable(InstallmentOffer.read(
                typed(invoice), CurrencyUnit.of(invoice.currency()), invoice.issuedOn(), new ArrayList<>()));
    }

    /** What was picked of it. */
    public Optional<Picked> picked(Document invoice) {
        return repository.picked(invoice.id());
    }

    /** What can still be picked of it today: nothing once something was picked, or its first day has passed. */
    public Optional<InstallmentOffer> open(Document invoice) {
        return offer(invoice)
                .filter(o -> o.holdsOn(clock.today())
                        && invoice.openMinor() > 0
                        && picked(invoice).isEmpty());
    }

    /** What would be paid now, all at once, with the discount off; empty where none is to be had any more. */
    public Optional<Money> early(Document invoice) {
        return open(invoice).filter(InstallmentOffer::hasDiscount).flatMap(o -> {
            Money due = due(invoice);
            Money open = installmentsOpen(invoice);
            Money asked = open.minus(o.off(due));
            return asked.isPositive() && asked.isLessThan(open) ? Optional.of(asked) : Optional.empty();
        });
    }

    /** What its installments come to, less what credit notes took off. */
    public Money due(Document invoice) {
        return sum(
                invoice,
                installments(invoice).stream()
                        .map(i -> i.amount().minus(i.credited()))
                        .toList());
    }

    private Money installmentsOpen(Document invoice) {
        return sum(
                invoice,
                installments(invoice).stream().map(StoredInstallment::open).toList());
    }

    private static Money sum(Document invoice, List<Money> amounts) {
        return Amounts.sum(CurrencyUnit.of(invoice.currency()), amounts);
    }

    private List<StoredInstallment> installments(Document invoice) {
        return debts.of(invoice.id()).stream().filter(i -> !i.fee()).toList();
    }

    /** Whether its text is to be accepted first, and was not yet. */
    public boolean waitsForAcceptance(Document invoice) {
        return asksForAcceptance(invoice) && repository.accepted(invoice.id()).isEmpty();
    }

    /** Whether its text is to be accepted before anything is picked or paid on its page. */
    public boolean asksForAcceptance(Document invoice) {
        TypedInstallmentOffer plan = typed(invoice);
        return plan != null && plan.acceptance();
    }

    /** Who accepted it. */
    public Optional<Accepted> accepted(Document invoice) {
        return repository.accepted(invoice.id());
    }

    /** @throws ConflictException where its text is to be accepted first */
    public void checkAccepted(Document invoice) {
        if (waitsForAcceptance(invoice)) {
            throw new ConflictException(
                    "Please accept what stands on this page first, with your name. Nothing was done.");
        }
    }

    /** A hash of what is accepted: the text of the invoice, its terms, and its files. */
    public String sealOf(Document invoice) {
        StringBuilder all =
                new StringBuilder(documents.document(invoice).forClient().toString());
        attachments
                .sentWith(invoice.id())
                .forEach(f ->
                        all.append('\n').append(f.file().name()).append(' ').append(Hashes.of(f.bytes())));
        return Hashes.of(all.toString());
    }

    /**
     * Somebody accepts on its page. The caller has locked the client.
     *
     * @param seen the seal of what was on screen
     * @throws RefusedException naming {@code name}
     * @throws ConflictException where it was accepted, or says something else by now
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void accept(Document invoice, String name, String seen, String address) {
        List<Problem> problems = new ArrayList<>();
        String signed = Texts.name("name", name, MOST_NAME, true, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (!asksForAcceptance(invoice) || invoice.voidedOn() != null) {
            throw new ConflictException("Nothing is to be accepted on this page.");
        }
        String seal = sealOf(invoice);
        if (!seal.equals(seen)) {
            throw new ConflictException("What is to be accepted was changed. Look at it again; nothing was accepted.");
        }
        if (!repository.accept(invoice.id(), new Accepted(signed, clock.today(), clock.instant(), address, seal))) {
            throw new ConflictException("This was accepted already.");
        }
        happenings.tell(
                invoice.id(),
                invoice.clientId(),
                "Accepted by " + signed + (address.isEmpty() ? "" : ", from " + address));
        changes.say(invoice.id(), invoice.clientId());
    }

    /** Notes what was picked. @return whether nothing was before */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean pick(Document invoice, int installments, String address) {
        return repository.pick(invoice.id(), installments, clock.today(), clock.instant(), address);
    }

    /** Whether clients may pay another amount on their pages than the installments that are open. */
    public boolean otherAmounts() {
        return repository.otherAmounts();
    }

    /** Allows it, or not. */
    @Transactional
    public void allowOtherAmounts(boolean allowed) {
        repository.allowOtherAmounts(allowed);
    }

    @EventListener
    void leaves(Debts.DebtsLeaving leaving) {
        repository.forget(leaving.invoiceId());
    }
}
