package quill.core.reminder;

import java.math.BigDecimal;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import quill.core.Problem;
import quill.core.TypedDate;
import quill.core.TypedWord;
import quill.core.letter.Channel;
import quill.core.money.TypedNumber;
import quill.core.reminder.ReminderStep.Tone;

/**
 * The steps by which clients are reminded.
 *
 * @param steps in the order of their days, no two on one day, none milder than the one before it
 * @param on whether anything is sent at all
 * @param hour at which the day's run begins, where the business is
 * @param offRestDays whether a step is moved off weekends and holidays, to the next working day
 * @param since steps that fell before this day lapse, so that a changed plan writes to nobody about the past
 */
public record ReminderPlan(
        List<ReminderStep> steps,
        boolean on,
        LocalTime hour,
        boolean offRestDays,
        Set<LocalDate> holidays,
        LocalDate since) {
    private static final int MOST_BEFORE = 60;
    private static final int MOST_AFTER = 365;
    private static final int MOST_STEPS = 12;
    private static final int MOST_MOVES = 60;

    /**
     * A step as typed.
     *
     * @param days from the due date, zero for the day itself
     * @param before whether they lie before it; left out, they lie after it
     * @param way MAIL or TEXT; left out, it goes by mail
     * @param copy whether a copy goes to the business; left out, none does
     */
    public record TypedStep(String days, Boolean before, String tone, String way, Boolean copy) {
        /** Left out is no, and by mail. */
        public TypedStep {
            before = before != null && before;
            way = way == null || way.isBlank() ? Channel.MAIL.name() : way;
            copy = copy != null && copy;
        }

        /** By mail, without a copy. */
        public TypedStep(String days, Boolean before, String tone) {
            this(days, before, tone, null, null);
        }
    }

    /**
     * A plan as typed.
     *
     * @param holidays days of one's own, as ISO dates separated by blanks, commas or lines
     * @param holidaysOf the country whose public holidays are none to write on either, by its two letters; may be empty
     */
    public record TypedPlan(
            List<TypedStep> steps, boolean on, String hour, boolean offRestDays, String holidays, String holidaysOf) {
        /** Left out, no country is named. */
        public TypedPlan {
            holidaysOf = holidaysOf == null ? "" : holidaysOf.strip();
        }

        /** One with holidays of one's own only. */
        public TypedPlan(List<TypedStep> steps, boolean on, String hour, boolean offRestDays, String holidays) {
            this(steps, on, hour, offRestDays, holidays, "");
        }

        /** Three days before, on the day, 3 and 14 days after (common practice), at nine. */
        public static TypedPlan usual() {
            return new TypedPlan(
                    List.of(
                            new TypedStep("3", true, "FRIENDLY"),
                            new TypedStep("0", false, "FRIENDLY"),
                            new TypedStep("3", false, "FIRM"),
                            new TypedStep("14", false, "FINAL")),
                    true,
                    "09:00",
                    false,
                    "");
        }
    }

    /** The steps as they are typed, in the order of their days. */
    public List<TypedStep> typedSteps() {
        return steps.stream()
                .map(s -> new TypedStep(
                        String.valueOf(Math.abs(s.days())),
                        s.days() < 0,
                        s.tone().name(),
                        s.way().name(),
                        s.copy()))
                .toList();
    }

    /** Sorts the steps. */
    public ReminderPlan {
        steps = steps.stream()
                .sorted(Comparator.comparingInt(ReminderStep::days))
                .toList();
        holidays = Set.copyOf(holidays);
    }

    /** Reads a plan as typed; null where a problem was added. */
    public static ReminderPlan read(TypedPlan typed, LocalDate since, List<Problem> problems) {
        int before = problems.size();
        Map<Integer, String> paths = new HashMap<>();
        ReminderPlan plan = read(typed, since, paths, problems);
        if (plan != null) {
            refuseMilder(plan.steps(), paths, problems);
        }
        return problems.size() > before ? null : plan;
    }

    /** @param paths takes where each step was typed, by its day */
    private static ReminderPlan read(
            TypedPlan typed, LocalDate since, Map<Integer, String> paths, List<Problem> problems) {
        int before = problems.size();
        List<ReminderStep> steps = new ArrayList<>();
        Set<Integer> days = new HashSet<>();
        List<TypedStep> given = typed.steps() == null ? List.of() : typed.steps();
        if (given.size() > MOST_STEPS) {
            problems.add(new Problem("steps", String.valueOf(given.size()), "at most 12 steps"));
        }
        for (int i = 0; i < given.size(); i++) {
            String path = "steps[" + i + "].";
            Integer day = dayOf(path + "days", given.get(i), problems);
            Tone tone = TypedWord.read(path + "tone", given.get(i).tone(), Tone.class, problems);
            Channel way = TypedWord.read(path + "way", given.get(i).way(), Channel.class, problems);
            if (day != null && !days.add(day)) {
                problems.add(new Problem(
                        path + "days", given.get(i).days(), "another step has this day; each needs its own"));
            } else if (day != null && tone != null && way != null) {
                steps.add(new ReminderStep(day, tone, way, given.get(i).copy()));
                paths.put(day, path);
            }
        }
        LocalTime hour = hourOf(typed.hour(), problems);
        Set<LocalDate> holidays = holidaysOf(typed.holidays(), problems);
        return problems.size() > before
                ? null
                : new ReminderPlan(steps, typed.on(), hour, typed.offRestDays(), holidays, since);
    }

    /** A step is never milder than the one before it: whoever was asked sternly is not asked kindly again. */
    private static void refuseMilder(List<ReminderStep> inOrder, Map<Integer, String> paths, List<Problem> problems) {
        for (int i = 1; i < inOrder.size(); i++) {
            ReminderStep before = inOrder.get(i - 1);
            ReminderStep step = inOrder.get(i);
            if (step.tone().compareTo(before.tone()) < 0) {
                problems.add(new Problem(
                        paths.get(step.days()) + "tone",
                        step.tone().words(),
                        "is milder than the step " + before.words() + ", which is "
                                + before.tone().words()));
            }
        }
    }

    private static Integer dayOf(String field, TypedStep step, List<Problem> problems) {
        BigDecimal days = TypedNumber.read(field, step.days(), 0, true, problems);
        if (days == null) {
            return null;
        }
        int most = step.before() ? MOST_BEFORE : MOST_AFTER;
        if (days.signum() < 0 || days.compareTo(BigDecimal.valueOf(most)) > 0) {
            problems.add(new Problem(
                    field,
                    step.days().strip(),
                    "must be from 0 to " + most + " days " + (step.before() ? "before" : "after") + " the due date"));
            return null;
        }
        return step.before() ? -days.intValue() : days.intValue();
    }

    private static LocalTime hourOf(String text, List<Problem> problems) {
        try {
            String typed = text == null ? "" : text.strip();
            return LocalTime.parse(typed.matches("\\d:\\d\\d") ? "0" + typed : typed);
        } catch (DateTimeParseException e) {
            problems.add(new Problem("hour", text, "write a time of day from 00:00 to 23:59, such as 09:00"));
            return null;
        }
    }

    private static Set<LocalDate> holidaysOf(String text, List<Problem> problems) {
        Set<LocalDate> dates = new TreeSet<>();
        for (String part : text == null ? new String[0] : text.strip().split("[\\s,;]+")) {
            LocalDate day = TypedDate.read("holidays", part, problems);
            if (day != null) {
                dates.add(day);
            }
        }
        return dates;
    }

    /** The same, with further days on which nothing goes. */
    public ReminderPlan withHolidays(Set<LocalDate> more) {
        Set<LocalDate> all = new HashSet<>(holidays);
        all.addAll(more);
        return new ReminderPlan(steps, on, hour, offRestDays, all, since);
    }

    /**
     * The same with other steps, of which those that fell before a day lapse.
     *
     * @param from the day from which they hold
     */
    public ReminderPlan with(List<ReminderStep> others, LocalDate from) {
        return new ReminderPlan(others, on, hour, offRestDays, holidays, from);
    }

    /** Where a step of a plan stands for one debt. */
    public enum StepState {
        /** It went, or a later one took its place. */
        USED,
        /** It was over before it could go: before the issue, or before the plan held. */
        LAPSED,
        /** It is to come, or overdue after an outage. */
        COMING
    }

    /** A step on its day. */
    public record StepDay(ReminderStep step, LocalDate on, StepState state) {}

    /** Every step on its day for a due date, in order, with what became of it. Nothing of it says that anything is owed. */
    public List<StepDay> days(LocalDate dueOn, LocalDate after, Integer usedThrough) {
        return steps.stream()
                .map(s -> new StepDay(s, dayOf(s, dueOn), stateOf(s, dueOn, after, usedThrough)))
                .toList();
    }

    private StepState stateOf(ReminderStep step, LocalDate dueOn, LocalDate after, Integer usedThrough) {
        if (usedThrough != null && step.days() <= usedThrough) {
            return StepState.USED;
        }
        return isWaiting(step, dueOn, after, usedThrough) ? StepState.COMING : StepState.LAPSED;
    }

    /** The day on which a step goes for a due date: moved off weekends and holidays where the business wants it. */
    public LocalDate dayOf(ReminderStep step, LocalDate dueOn) {
        LocalDate day = dueOn.plusDays(step.days());
        for (int i = 0; offRestDays && isRestDay(day) && i < MOST_MOVES; i++) {
            day = day.plusDays(1);
        }
        return day;
    }

    private boolean isRestDay(LocalDate day) {
        return day.getDayOfWeek() == DayOfWeek.SATURDAY
                || day.getDayOfWeek() == DayOfWeek.SUNDAY
                || holidays.contains(day);
    }

    /**
     * The step to send about an installment on a day: of those that fell due and were not used up only the latest.
     *
     * @param after steps that fell on or before this day are used up: the day the invoice was issued
     * @param usedThrough days of the latest step used up, or null
     */
    public Optional<ReminderStep> dueOn(LocalDate day, LocalDate dueOn, LocalDate after, Integer usedThrough) {
        return steps.stream()
                .filter(s -> isWaiting(s, dueOn, after, usedThrough)
                        && !dayOf(s, dueOn).isAfter(day))
                .reduce((a, b) -> b);
    }

    /** The next day on which a step falls that is not used up; it may lie in the past. */
    public Optional<LocalDate> nextDay(LocalDate dueOn, LocalDate after, Integer usedThrough) {
        return steps.stream()
                .filter(s -> isWaiting(s, dueOn, after, usedThrough))
                .map(s -> dayOf(s, dueOn))
                .findFirst();
    }

    private boolean isWaiting(ReminderStep step, LocalDate dueOn, LocalDate after, Integer usedThrough) {
        LocalDate day = dayOf(step, dueOn);
        return on && (usedThrough == null || step.days() > usedThrough) && day.isAfter(after) && !day.isBefore(since);
    }
}
