package quill.server.clearing;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.common.Amount;

/** What of the processors' accounts waits for a person. */
@Service
@Transactional(readOnly = true)
public class ClearingWaits {
    private final Disputes disputes;
    private final RefundOrders refunds;
    private final EntryRepository entries;

    ClearingWaits(Disputes disputes, RefundOrders refunds, EntryRepository entries) {
        this.disputes = disputes;
        this.refunds = refunds;
        this.entries = entries;
    }

    /** Contested payments without an answer, whichever must be answered first at the top. */
    public List<Dispute> disputes() {
        return disputes.open();
    }

    /** Refunds that did not arrive. */
    public List<RefundOrders.NotArrived> notArrived() {
        return refunds.notArrived();
    }

    /** Something that a processor booked and that could not be booked here. */
    public record Unbooked(long number, Amount amount, String why) {}

    /** All of it. */
    public List<Unbooked> unbooked() {
        return entries.troubled().stream()
                .map(k -> new Unbooked(
                        k.entry().number(),
                        Amount.of(k.entry().amount().minus(k.entry().cost())),
                        k.trouble()))
                .toList();
    }
}
