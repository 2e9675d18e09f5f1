package quill.server.chasing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.Why;
import quill.server.common.Amount;
import quill.server.latefees.LateFees;

/** A fee on an invoice. @param waived null while it stands */
public record FeeView(
        long id,
        LocalDate chargedOn,
        Amount amount,
        Why why,
        @Schema(nullable = true) LateFees.Waived waived) {
    /** As it stands now. */
    public static FeeView of(LateFees.StoredFee f) {
        return new FeeView(f.id(), f.chargedOn(), f.amount(), f.why(), f.waived());
    }
}
