package quill.core.acts;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import quill.core.reminder.ReminderStep;
import quill.core.reminder.ReminderStep.Tone;

/** What a letter leaves out, since it would be milder than the last one about it. */
final class Apart {
    private Apart() {}

    /**
     * Late debts that a letter of the steps that are due does not list, since their last letter was sterner than it: they
     * wait for a step of their own as stern, or for somebody's decision. What steps of theirs are due is passed over, and
     * no longer counts for how stern the letter is.
     */
    static Set<Long> of(List<ActsToCome.Debt> debts, Map<Long, ReminderStep> steps, LocalDate day) {
        Set<Long> apart = new HashSet<>();
        boolean more;
        do {
            Tone sternest = steps.entrySet().stream()
                    .filter(e -> !apart.contains(e.getKey()))
                    .map(e -> e.getValue().tone())
                    .max(Comparator.naturalOrder())
                    .orElse(null);
            more = false;
            for (ActsToCome.Debt d : debts) {
                // A fee goes with its installment: it is not asked for in a milder letter than that was.
                boolean waits = d.isLateOn(day) && isMilder(sternest, d.lastTone()) || apart.contains(d.feeOf());
                more |= waits && apart.add(d.open().id());
            }
        } while (more);
        return apart;
    }

    private static boolean isMilder(Tone tone, Tone than) {
        return than != null && (tone == null || tone.compareTo(than) < 0);
    }
}
