package quill.core.reminder;

import quill.core.letter.Channel;

/**
 * One step of a plan.
 *
 * @param days after the due date; below zero before it
 * @param way by which it goes
 * @param copy whether a copy goes to the business
 */
public record ReminderStep(int days, Tone tone, Channel way, boolean copy) {
    /** By mail, without a copy. */
    public ReminderStep(int days, Tone tone) {
        this(days, tone, Channel.MAIL, false);
    }

    /** The tone of a letter, from mild to stern. */
    public enum Tone {
        FRIENDLY("friendly"),
        FIRM("firm"),
        FINAL("final");

        private final String words;

        Tone(String words) {
            this.words = words;
        }

        /** The tone, for people. */
        public String words() {
            return words;
        }
    }

    /** When it goes, for people: {@code 3 days before}, {@code on the due date}, {@code 14 days after}. */
    public String words() {
        int count = Math.abs(days);
        String plain = count == 1 ? "1 day" : count + " days";
        return days == 0 ? "on the due date" : plain + (days < 0 ? " before" : " after");
    }
}
