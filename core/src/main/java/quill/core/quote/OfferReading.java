package quill.core.quote;

import java.time.LocalDate;
import java.util.List;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.TypedDate;
import quill.core.document.TypedOffer;

/** Reads until when a quote can be accepted. */
public final class OfferReading {
    /** Common practice: a quote holds for 30 days. */
    public static final int USUAL_DAYS = 30;

    private static final int MOST_DAYS = 3650;

    private OfferReading() {}

    /**
     * The last day on which it can be accepted; null where a problem was added.
     *
     * @param offer null, or without a day, for the usual one
     */
    public static LocalDate validUntil(TypedOffer offer, LocalDate issuedOn, List<Problem> problems) {
        String typed = offer == null || offer.validUntil() == null
                ? ""
                : offer.validUntil().strip();
        if (typed.isEmpty()) {
            return issuedOn.plusDays(USUAL_DAYS);
        }
        LocalDate day = LooseDate.read("offer.validUntil", typed, issuedOn, LooseDate.Lean.COMING, problems);
        if (day == null) {
            return null;
        }
        if (day.isBefore(issuedOn) || day.isAfter(issuedOn.plusDays(MOST_DAYS))) {
            problems.add(new Problem(
                    "offer.validUntil",
                    typed,
                    "must be from " + TypedDate.inWords(issuedOn) + ", the day of issue, to 3,650 days after"));
            return null;
        }
        return day;
    }
}
