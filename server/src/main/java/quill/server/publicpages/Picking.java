package quill.server.publicpages;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.money.Amounts;
import quill.core.quote.InstallmentOffer;
import quill.core.schedule.Installment;
import quill.server.arranging.Arrangements;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.ConflictException;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Plans;

/** A client picks how it pays, once, and accepts what is to be accepted before. */
@Service
public class Picking {
    private final Plans plans;
    private final Arrangements arrangements;
    private final InvoicesService invoices;
    private final ClientsService clients;

    Picking(Plans plans, Arrangements arrangements, InvoicesService invoices, ClientsService clients) {
        this.plans = plans;
        this.arrangements = arrangements;
        this.invoices = invoices;
        this.clients = clients;
    }

    /** One installment of a choice. */
    record PickPart(Amount amount, LocalDate dueOn) {}

    /** So many installments, the first of them first. @param sum of all of them */
    record PickChoice(int count, Amount sum, List<PickPart> parts) {}

    /**
     * What an invoice offers before it is paid.
     *
     * @param most the largest number of installments that can still be picked; 0 where none can
     * @param until the last day on which it can be picked, or all be paid at once
     * @param off what is off for that; null where nothing is, or not any more
     * @param early what would be paid at once then; null where nothing is off
     * @param picked how many installments were picked; null for none
     * @param other whether another amount may be paid
     * @param acceptance what is to be accepted first; null where nothing is
     */
    record PickView(
            int most,
            @Schema(nullable = true) LocalDate until,
            @Schema(nullable = true) Amount off,
            @Schema(nullable = true) Amount early,
            @Schema(nullable = true) Integer picked,
            boolean other,
            @Schema(nullable = true) AcceptanceView acceptance) {
        /** The same where it is only held now, and taken on another day. */
        PickView withoutEarly() {
            return new PickView(most, until, null, null, picked, other, acceptance);
        }
    }

    /** @param name who accepted; null until somebody does @param seal of exactly what is accepted, to be given back */
    record AcceptanceView(
            @Schema(nullable = true) String name,
            @Schema(nullable = true) LocalDate on,
            String seal) {}

    /** What the page says of it. */
    PickView view(Document invoice) {
        Optional<InstallmentOffer> open = plans.open(invoice);
        Optional<Money> early = plans.early(invoice);
        boolean payable = invoice.openMinor() > 0 && invoice.voidedOn() == null;
        return new PickView(
                open.filter(o -> o.most() >= InstallmentOffer.FEWEST)
                        .map(InstallmentOffer::most)
                        .orElse(0),
                open.map(InstallmentOffer::first).orElse(null),
                early.map(e -> Amount.of(open.orElseThrow().off(plans.due(invoice))))
                        .orElse(null),
                early.map(Amount::of).orElse(null),
                plans.picked(invoice).map(Plans.Picked::installments).orElse(null),
                payable && plans.otherAmounts(),
                acceptance(invoice));
    }

    private AcceptanceView acceptance(Document invoice) {
        if (!plans.asksForAcceptance(invoice) || invoice.voidedOn() != null) {
            return null;
        }
        Optional<Plans.Accepted> accepted = plans.accepted(invoice);
        return new AcceptanceView(
                accepted.map(Plans.Accepted::name).orElse(null),
                accepted.map(Plans.Accepted::on).orElse(null),
                plans.sealOf(invoice));
    }

    /** Each number of installments that can be picked, with all its days and sums. */
    @Transactional(readOnly = true)
    List<PickChoice> choices(Document invoice) {
        return plans.open(invoice)
                .map(o -> IntStream.rangeClosed(InstallmentOffer.FEWEST, o.most())
                        .mapToObj(n -> choice(n, arrangements.look(invoice, o, n)))
                        .toList())
                .orElse(List.of());
    }

    private static PickChoice choice(int count, List<Installment> schedule) {
        Money sum = Amounts.sum(
                schedule.get(0).amount().getCurrencyUnit(),
                schedule.stream().map(Installment::amount).toList());
        return new PickChoice(count, Amount.of(sum), parts(schedule));
    }

    private static List<PickPart> parts(List<Installment> schedule) {
        return schedule.stream()
                .map(i -> new PickPart(Amount.of(i.amount()), i.dueOn()))
                .toList();
    }

    /**
     * Fixes the schedule.
     *
     * @throws quill.core.RefusedException naming {@code count}
     * @throws ConflictException where it was picked before, is offered no more, or something else is open by now
     */
    @Transactional
    public void pick(Document found, int count, Money seen, String address) {
        clients.lock(found.clientId());
        Document invoice = invoices.invoice(found.id());
        plans.checkAccepted(invoice);
        plans.picked(invoice).ifPresent(p -> {
            throw new ConflictException(
                    p.installments() + " installments were picked already; to change that, please ask.");
        });
        InstallmentOffer offer = plans.open(invoice)
                .orElseThrow(() -> new ConflictException("No installments can be picked on this page any more."));
        offer.terms(count);
        if (!plans.pick(invoice, count, address)) {
            throw new ConflictException("Installments were picked already; to change that, please ask.");
        }
        arrangements.pick(invoice.id(), offer, count, seen);
    }

    @Transactional
    void accept(Document found, String name, String seen, String address) {
        clients.lock(found.clientId());
        plans.accept(invoices.invoice(found.id()), name, seen, address);
    }
}
