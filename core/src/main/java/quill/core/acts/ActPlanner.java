package quill.core.acts;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/** What comes up of one kind of act. */
interface ActPlanner {
    /** The acts of a day, in their order; what they would change is in the forecast afterwards. */
    List<? extends Act> on(LocalDate day, Forecast ahead);

    /** The next day on which anything of this kind may come up about an installment. */
    Optional<LocalDate> nextDay(ActsToCome.Debt debt, Forecast ahead);

    /** Whoever plans a kind. */
    static ActPlanner of(ActKind kind) {
        return switch (kind) {
            case FEE -> new FeePlanner();
            case REMINDER -> new ReminderPlanner();
        };
    }
}
