package quill.core.reminder;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongFunction;
import org.joda.money.Money;

/**
 * A reminder that was written and has not left, since the mail server did not answer.
 *
 * @param byHand whether a person sends it: who does decides about its day, not about money that has come
 * @param asked what it asks for of each debt
 */
public record WaitingLetter(LocalDate writtenOn, boolean byHand, Map<Long, Money> asked) {
    /** What becomes of it. */
    public enum Fate {
        /** It is still true, and leaves. */
        LEAVES(""),
        /** Its day has passed: it is set aside, and its steps are due again. */
        DAY_HAS_PASSED("It could not leave on its day; the next letter says what is open."),
        /** Less is open than it asks for: it is set aside. */
        PAID_MEANWHILE("What it asks for was paid before it could leave.");

        private final String why;

        Fate(String why) {
            this.why = why;
        }

        /** For people; empty where it leaves. */
        public String why() {
            return why;
        }
    }

    /** Copies what it asks for. */
    public WaitingLetter {
        asked = Map.copyOf(asked);
    }

    /** Just before it leaves. @param open what is open of a debt now; empty where there is no such debt any more */
    public Fate on(LocalDate today, LongFunction<Optional<Money>> open) {
        if (!byHand && writtenOn.isBefore(today)) {
            return Fate.DAY_HAS_PASSED;
        }
        boolean isTrue = asked.entrySet().stream()
                .allMatch(a -> open.apply(a.getKey())
                        .filter(sum -> !sum.isLessThan(a.getValue()))
                        .isPresent());
        return isTrue ? Fate.LEAVES : Fate.PAID_MEANWHILE;
    }
}
