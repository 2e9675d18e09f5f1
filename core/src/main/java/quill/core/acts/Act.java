package quill.core.acts;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.TypedDate;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.money.Amounts;
import quill.core.reminder.ReminderStep;

/** Something that the daily run will do by itself on a day, unless a person keeps it back. */
public sealed interface Act {
    /** What keeps an act from being done. */
    enum Stop {
        NOTHING(""),
        KEPT_BACK("kept back"),
        CLIENT_KEPT_BACK("everything for this client is kept back"),
        ALL_KEPT_BACK("everything is kept back"),
        MUTED("the client is muted"),
        NO_ADDRESS("the client has no e-mail address"),
        CAME_BACK("the last letter to the client’s address came back"),
        NO_NUMBER("the client has no telephone number"),
        NO_GATEWAY("no gateway for text messages is set up"),
        REVIEW("late fees wait for your review");

        private final String words;

        Stop(String words) {
            this.words = words;
        }

        /** The reason, for people. */
        public String words() {
            return words;
        }
    }

    /** Reads what a kind of act is, kind by kind: whoever implements it is told by the compiler of another kind. */
    interface Kinds<R> {
        /** A late fee. */
        R fee(Fee act);

        /** A reminder. */
        R reminder(Reminder act);
    }

    /** Its kind's answer. */
    <R> R as(Kinds<R> kinds);

    /** The same act has the same key in every plan; an act is done once under its key. */
    ActKey key();

    /** Which it is. */
    default ActKind kind() {
        return key().kind();
    }

    /** The invoice that it is mainly about. */
    DocumentId document();

    /** Whether it is about an invoice, be it among others. */
    boolean concerns(DocumentId document);

    /** The day on which it is done. */
    LocalDate on();

    /** Whose it is. */
    ClientId client();

    /** What is charged, or asked for; of several currencies the first. */
    Money amount();

    /** The same, a sum for each currency. */
    default List<Money> sums() {
        return List.of(amount());
    }

    /**
     * Whether a day's list has it: what is done, or would be but for a person who kept it back, and nothing that only goes
     * on waiting. What is not done late lapses with its day; kept back on that day, it uses up its steps all the same.
     */
    default boolean isListedOn(LocalDate today) {
        boolean counts = kind().isDoneLate() || !on().isBefore(today) || stop() == Stop.KEPT_BACK;
        return counts && (stop() == Stop.NOTHING || isNew());
    }

    /** What keeps it from being done, or {@link Stop#NOTHING}. */
    Stop stop();

    /** Whether it first came up on its day; one that waits since an earlier day is not new. */
    boolean isNew();

    /** How its amount and its day came about. */
    Why why();

    /** A late fee is charged. */
    record Fee(LocalDate on, ClientId client, ActsToCome.Debt debt, LateFee fee, Stop stop) implements Act {
        @Override
        public <R> R as(Kinds<R> kinds) {
            return kinds.fee(this);
        }

        @Override
        public ActKey key() {
            return key(debt, fee);
        }

        static ActKey key(ActsToCome.Debt debt, LateFee fee) {
            return ActKey.fee(debt.open().id(), debt.open().dueOn(), fee.sequence());
        }

        @Override
        public DocumentId document() {
            return debt.open().document();
        }

        @Override
        public boolean concerns(DocumentId document) {
            return document().equals(document);
        }

        @Override
        public Money amount() {
            return fee.amount();
        }

        @Override
        public boolean isNew() {
            return fee.occasion().equals(on);
        }

        @Override
        public Why why() {
            return fee.why();
        }
    }

    /**
     * A reminder is sent: one letter for all that a client owes by that day.
     *
     * @param step the sternest that is due
     * @param items what it asks for, in the order in which money settles it; of every currency in which something is owed
     */
    record Reminder(LocalDate on, ClientId client, ReminderStep step, List<Item> items, Stop stop, boolean isNew)
            implements Act {
        /** Copies the items. */
        public Reminder {
            items = List.copyOf(items);
        }

        @Override
        public <R> R as(Kinds<R> kinds) {
            return kinds.reminder(this);
        }

        @Override
        public ActKey key() {
            return ActKey.reminder(client, on);
        }

        @Override
        public DocumentId document() {
            return main().document();
        }

        @Override
        public boolean concerns(DocumentId document) {
            return asked().stream().anyMatch(i -> i.debt().document().equals(document));
        }

        /** What it asks for in the currency of its first step; {@link #sums} has all. */
        @Override
        public Money amount() {
            List<Item> asked = asked();
            return sumIn(
                    (asked.isEmpty() ? items.get(0) : mainOf(asked)).asked().getCurrencyUnit(), asked);
        }

        /** The first whose step is due; where none is, the first. */
        private static Item mainOf(List<Item> asked) {
            return asked.stream().filter(i -> i.step() != null).findFirst().orElseGet(() -> asked.get(0));
        }

        /** The same without fees that are not charged yet: what can be sent before its day. */
        public Reminder withoutForecast() {
            return with(items.stream().filter(i -> i.debt().id() > 0).toList());
        }

        private Reminder with(List<Item> some) {
            return new Reminder(on, client, step, some, stop, isNew);
        }

        private static Money sumIn(CurrencyUnit currency, List<Item> of) {
            return Amounts.sum(
                    currency,
                    of.stream()
                            .map(Item::asked)
                            .filter(m -> m.getCurrencyUnit().equals(currency))
                            .toList());
        }

        /** What it asks for, a sum for each currency, its own first. */
        @Override
        public List<Money> sums() {
            List<Item> asked = asked();
            return Stream.concat(
                            Stream.of(amount().getCurrencyUnit()),
                            asked.stream().map(i -> i.asked().getCurrencyUnit()))
                    .distinct()
                    .map(c -> sumIn(c, asked))
                    .filter(Money::isPositive)
                    .toList();
        }

        /** The part of it that asks in one currency: what a sum, its sentence and its way to pay are made of. */
        public Reminder in(CurrencyUnit currency) {
            return with(items.stream()
                    .filter(i -> i.asked().getCurrencyUnit().equals(currency))
                    .toList());
        }

        /** The items that money is asked for; the others only have a step that is used up. */
        public List<Item> asked() {
            return items.stream().filter(i -> i.asked().isPositive()).toList();
        }

        /** What the letter is mainly about: the first debt whose step is due. */
        public quill.core.ledger.OpenDebt main() {
            return mainOf(asked()).debt();
        }

        /** How many invoices it asks for money for. */
        public long documents() {
            return asked().stream().map(i -> i.debt().document()).distinct().count();
        }

        @Override
        public Why why() {
            return new Why(
                    "one letter a day lists what is open by then, in the tone of the sternest step that is due; what was"
                            + " asked for more sternly before waits for its own next step",
                    asked().stream().map(Item::words).toList());
        }
    }

    /**
     * One debt in a reminder.
     *
     * @param asked what is open of it, less what is in transit and covered by client credit
     * @param step the step of the plan that is due for it, or null where it is only listed
     */
    record Item(quill.core.ledger.OpenDebt debt, Money asked, long daysLate, ReminderStep step) {
        private String words() {
            String what = debt.number() + (debt.fee() ? " late fee of " : " due ") + TypedDate.inWords(debt.dueOn())
                    + ": " + Amounts.grouped(asked);
            return step == null ? what : what + " (step " + step.words() + ")";
        }
    }
}
