package quill.server.clearing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
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

    /** A sum of one currency. @param moved what came less what went @param id the payout; null for what is still held */
    public record Payout(
            @Schema(nullable = true) Long id,
            @Schema(nullable = true) LocalDate on,
            Amount came,
            Amount went,
            Amount moved,
            Amount cost,
            Amount net,
            List<PayoutPart> parts) {}

    /** Payouts, newest first, without their parts. */
    public List<Payout> past() {
        return entries.payouts(MOST).stream().map(this::payout).toList();
    }

    /** What is held, by currency, with its parts: the next payouts. */
    public List<Payout> held() {
        Map<CurrencyUnit, List<EntryRepository.Kept>> all = new LinkedHashMap<>();
        entries.of(null)
                .forEach(k -> all.computeIfAbsent(k.entry().amount().getCurrencyUnit(), c -> new ArrayList<>())
                        .add(k));
        return all.entrySet().stream()
                .map(e -> of(null, null, e.getKey(), e.getValue()))
                .toList();
    }

    /** One, with what it is made of. @throws NotFoundException where there is none */
    public Payout find(long id) {
        return entries.ofMovements(List.of(id)).stream()
                .filter(k -> k.entry().kind() == Booked.PAID_OUT)
                .findFirst()
                .map(this::payout)
                .orElseThrow(() -> new NotFoundException("There is no payout " + id + "."));
    }

    private Payout payout(EntryRepository.Kept k) {
        CurrencyUnit currency = k.entry().amount().getCurrencyUnit();
        return of(
                k.movementId(),
                k.entry().on(),
                currency,
                k.movementId() == null ? List.of() : entries.of(k.movementId()));
    }

    private Payout of(Long id, LocalDate on, CurrencyUnit currency, List<EntryRepository.Kept> kept) {
        List<PayoutPart> parts = kept.stream().map(this::part).toList();
        Money came = sum(currency, parts.stream().map(p -> p.amount().money()).filter(Money::isPositive));
        Money went = sum(currency, parts.stream().map(p -> p.amount().money()).filter(Money::isNegative));
        Money cost = sum(currency, parts.stream().map(p -> p.cost().money()));
        return new Payout(
                id,
                on,
                Amount.of(came),
                Amount.of(went),
                Amount.of(came.plus(went)),
                Amount.of(cost),
                Amount.of(came.plus(went).minus(cost)),
                parts);
    }

    private static Money sum(CurrencyUnit currency, Stream<Money> all) {
        return all.reduce(Money.zero(currency), Money::plus);
    }

    private PayoutPart part(EntryRepository.Kept k) {
        var e = k.entry();
        Optional<Payment> of = k.movementId() == null ? Optional.empty() : payments.behind(k.movementId());
        return new PayoutPart(
                of.map(Payment::id).orElse(null),
                of.map(p -> clients.client(p.clientId()).name()).orElse(""),
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
