package quill.server.clearing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.NotFoundException;
import quill.server.payments.Payment;
import quill.server.payments.Payments;
import quill.server.processor.CardProcessor.Booked;

/** What processors paid out, and what they still hold, with what each is made of. */
@Service
@Transactional(readOnly = true)
public class Payouts {
    private static final int MOST = 100;
    private final EntryRepository entries;
    private final Payments payments;
    private final ClientsService clients;

    Payouts(EntryRepository entries, Payments payments, ClientsService clients) {
        this.entries = entries;
        this.payments = payments;
        this.clients = clients;
    }

    /**
     * One part of what is held, or was paid out.
     *
     * @param paymentId the payment, or the one that went; null for a mere cost
     * @param who whose payment it is; empty for a mere cost
     * @param words what it is
     * @param amount below zero for what went
     * @param cost what the processor keeps of it
     */
    public record PayoutPart(
            @Schema(nullable = true) Long paymentId,
            String who,
            String words,
            LocalDate on,
            Amount amount,
            Amount cost,
            Amount net,
            String why) {}

    /**
     * A sum of one currency.
     *
     * @param id the payout; null for what is still held
     * @param count of how many parts it is made
     * @param moved what came less what went
     * @param parts those that are shown: none in a list of payouts, else the first 2,000
     */
    public record Payout(
            @Schema(nullable = true) Long id,
            @Schema(nullable = true) LocalDate on,
            int count,
            Amount came,
            Amount went,
            Amount moved,
            Amount cost,
            Amount net,
            List<PayoutPart> parts) {}

    /** Payouts, newest first, without their parts. */
    public List<Payout> past() {
        List<EntryRepository.Kept> all = entries.payouts(MOST);
        Map<Long, EntryRepository.Sums> sums =
                entries
                        .sumsOf(all.stream()
                                .map(EntryRepository.Kept::movementId)
                                .filter(Objects::nonNull)
                                .toList())
                        .stream()
                        .collect(Collectors.toMap(EntryRepository.Sums::payoutId, x -> x));
        return all.stream()
                .map(k -> of(k, k.movementId() == null ? null : sums.get(k.movementId()), List.of()))
                .toList();
    }

    /** What is held, by currency, with its parts: the next payouts. */
    public List<Payout> held() {
        Map<CurrencyUnit, List<EntryRepository.Kept>> all = entries.of(null).stream()
                .collect(Collectors.groupingBy(k -> k.entry().amount().getCurrencyUnit()));
        return entries.heldSums().stream()
                .map(x -> of(null, null, x, parts(all.getOrDefault(x.came().getCurrencyUnit(), List.of()))))
                .toList();
    }

    /** One, with what it is made of. @throws NotFoundException where there is none */
    public Payout find(long id) {
        EntryRepository.Kept kept = kept(id);
        return of(kept, sums(id), parts(entries.of(id)));
    }

    /** The same, without its parts. @throws NotFoundException where there is none */
    public Payout withoutParts(long id) {
        return of(kept(id), sums(id), List.of());
    }

    private EntryRepository.Kept kept(long id) {
        return entries.ofMovements(List.of(id)).stream()
                .filter(k -> k.entry().kind() == Booked.PAID_OUT)
                .findFirst()
                .orElseThrow(() -> new NotFoundException("There is no payout " + id + "."));
    }

    private EntryRepository.Sums sums(long id) {
        return entries.sumsOf(List.of(id)).stream().findFirst().orElse(null);
    }

    /** @param sums null where it is made of nothing that is known here */
    private static Payout of(EntryRepository.Kept k, EntryRepository.Sums sums, List<PayoutPart> parts) {
        Money nothing = Money.zero(k.entry().amount().getCurrencyUnit());
        return of(
                k.movementId(),
                k.entry().on(),
                sums == null ? new EntryRepository.Sums(k.movementId(), 0, nothing, nothing, nothing) : sums,
                parts);
    }

    private static Payout of(Long id, LocalDate on, EntryRepository.Sums s, List<PayoutPart> parts) {
        Money moved = s.came().plus(s.went());
        return new Payout(
                id,
                on,
                s.count(),
                Amount.of(s.came()),
                Amount.of(s.went()),
                Amount.of(moved),
                Amount.of(s.cost()),
                Amount.of(moved.minus(s.cost())),
                parts);
    }

    private List<PayoutPart> parts(List<EntryRepository.Kept> kept) {
        Map<Long, Payment> behind = payments.behind(kept.stream()
                .map(EntryRepository.Kept::movementId)
                .filter(Objects::nonNull)
                .toList());
        Map<ClientId, Client> whose =
                clients.some(behind.values().stream().map(Payment::clientId).collect(Collectors.toSet()));
        return kept.stream()
                .map(k -> part(k, k.movementId() == null ? null : behind.get(k.movementId()), whose))
                .toList();
    }

    /** @param of the payment, or the one that went; null for a mere cost */
    private static PayoutPart part(EntryRepository.Kept k, Payment of, Map<ClientId, Client> whose) {
        var e = k.entry();
        return new PayoutPart(
                of == null ? null : of.id(),
                of == null ? "" : whose.get(of.clientId()).name(),
                e.kind() == null ? "Not known here" : words(e.kind()),
                e.on(),
                Amount.of(e.amount()),
                Amount.of(e.cost()),
                Amount.of(e.amount().minus(e.cost())),
                e.reason());
    }

    private static String words(Booked kind) {
        return switch (kind) {
            case TAKEN -> "Payment";
            case REFUSED -> "Bank debit that was refused";
            case RETURNED -> "Bank debit that came back";
            case REFUNDED -> "Given back";
            case REFUND_FAILED -> "Given back, did not arrive";
            case CONTESTED -> "Contested payment";
            case CONTEST_WON -> "Contest won";
            case CONTEST_LOST -> "Contest lost";
            case PAID_OUT -> "Payout";
        };
    }
}
