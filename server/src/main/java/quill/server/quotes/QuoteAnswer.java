package quill.server.quotes;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;

/**
 * What became of a quote.
 *
 * @param accepted or declined
 * @param byHand noted by the business: by telephone, on paper
 * @param name as it was typed as a signature; by hand, who said so and how
 * @param address internet address from which it came; empty by hand
 * @param reason for declining; may be empty
 * @param ticked lines that were chosen, by their places
 * @param seal a hash of all that was accepted; null where it was declined
 */
public record QuoteAnswer(
        boolean accepted,
        boolean byHand,
        String name,
        LocalDate on,
        Instant at,
        String address,
        String reason,
        List<Integer> ticked,
        String seal) {}
