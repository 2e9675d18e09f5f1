package quill.core.letter;

import java.util.List;
import java.util.stream.Stream;

/** The letters there are, each with the fields that it knows. */
public enum LetterKind {
    /** It brings a quote. */
    QUOTE(
            Group.OFFERED,
            "A quote goes out",
            "Goes with a quote, the first time and each time it is sent again.",
            false,
            Fields.of(
                    LetterField.WHAT_FOR,
                    LetterField.DOCUMENT,
                    LetterField.DOCUMENT_FOR,
                    LetterField.TOTAL,
                    LetterField.VALID_UNTIL,
                    LetterField.SENT_BEFORE,
                    LetterField.OWN_LINE,
                    LetterField.PAGE,
                    LetterField.SUMS)),
    /** It says that a quote was accepted. */
    ACCEPTED(
            Group.OFFERED,
            "A quote is accepted",
            "Goes to the client when a quote is accepted, with the record of that, and asks for its deposit.",
            true,
            Fields.of(
                    LetterField.WHAT_FOR,
                    LetterField.DOCUMENT,
                    LetterField.DOCUMENT_FOR,
                    LetterField.TOTAL,
                    LetterField.ACCEPTED_BY,
                    LetterField.WHAT_NEXT,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.HOW_TO_PAY)),
    /** It brings an invoice. */
    INVOICE(
            Group.BILLED,
            "An invoice goes out",
            "Goes with an invoice, the first time and each time it is sent again.",
            true,
            Fields.of(
                    LetterField.WHAT_FOR,
                    LetterField.DOCUMENT,
                    LetterField.DOCUMENT_FOR,
                    LetterField.TOTAL,
                    LetterField.OPEN,
                    LetterField.DUE,
                    LetterField.SENT_BEFORE,
                    LetterField.OWN_LINE,
                    LetterField.WAYS,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.MEASURE,
                    LetterField.HOW_TO_PAY)),
    /** It brings a credit note. */
    CREDIT_NOTE(
            Group.BILLED,
            "A credit note goes out",
            "Goes with a credit note, when it is written.",
            false,
            Fields.of(
                    LetterField.CREDIT_NOTE,
                    LetterField.EXTENT,
                    LetterField.DOCUMENT,
                    LetterField.WHAT_FOR,
                    LetterField.CREDITED,
                    LetterField.REASON,
                    LetterField.OPEN,
                    LetterField.LEFT,
                    LetterField.FREE_CREDIT,
                    LetterField.WAITING_CREDIT,
                    LetterField.PAGE,
                    LetterField.MEASURE,
                    LetterField.HOW_TO_PAY)),
    /** It asks for money before it falls due: a deposit on an accepted quote, a part of an invoice. */
    REQUEST(
            Group.BILLED,
            "A request for money",
            "Goes when you ask for a deposit on an accepted quote, or for a part of an invoice before it is due.",
            true,
            Fields.of(
                    LetterField.WHAT_FOR,
                    LetterField.DOCUMENT,
                    LetterField.DOCUMENT_FOR,
                    LetterField.TOTAL,
                    LetterField.ASKED,
                    LetterField.ASKED_FOR,
                    LetterField.OWN_LINE,
                    LetterField.WAYS,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.HOW_TO_PAY)),
    /** It asks for a card or mandate that can be kept, before anything is due. */
    ASK_TO_KEEP(
            Group.BILLED,
            "A card or mandate is asked for",
            "Goes when you ask a client to let a card or a bank debit mandate be kept, before anything is due.",
            false,
            Fields.of(LetterField.OWN_LINE, LetterField.PAGE)),
    /** It says that installments are agreed anew, or that the work has reached a milestone. */
    ARRANGED(
            Group.BILLED,
            "Installments change",
            "Goes when installments are rearranged, or a milestone is reached.",
            false,
            Fields.of(
                    LetterField.CHANGE,
                    LetterField.BEFORE,
                    LetterField.WHAT_FOR,
                    LetterField.DOCUMENT,
                    LetterField.DOCUMENT_FOR,
                    LetterField.OPEN,
                    LetterField.OWN_LINE,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.MEASURE,
                    LetterField.HOW_TO_PAY)),
    /** It asks before anything is due. */
    AHEAD(
            Group.UNPAID,
            "Before the due date",
            "Any reminder while nothing that it lists is due yet.",
            true,
            Fields.REMINDER),
    /** It asks kindly. */
    FRIENDLY(
            Group.UNPAID,
            "Friendly reminder",
            "A friendly step, once something that it lists is due.",
            true,
            Fields.REMINDER),
    /** It asks firmly. */
    FIRM(Group.UNPAID, "Firm reminder", "A firm step, once something that it lists is due.", true, Fields.REMINDER),
    /** It is the last to ask. */
    FINAL(Group.UNPAID, "Final reminder", "A final step, once something that it lists is due.", true, Fields.REMINDER),
    /** It says that money came. */
    RECEIPT(
            Group.PAID,
            "Receipt",
            "Goes when money has come.",
            false,
            Fields.of(
                    LetterField.DOCUMENT,
                    LetterField.WHAT_FOR,
                    LetterField.PAID,
                    LetterField.ARRIVED,
                    LetterField.LEFT,
                    LetterField.OPEN,
                    LetterField.FREE_CREDIT,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.MEASURE,
                    LetterField.HOW_TO_PAY)),
    /** It says that a receipt was a mistake. */
    CORRECTION(
            Group.PAID,
            "A receipt was a mistake",
            "Goes when a payment is undone whose receipt was sent.",
            false,
            Fields.of(
                    LetterField.DOCUMENT,
                    LetterField.WHAT_FOR,
                    LetterField.PAID,
                    LetterField.LEFT,
                    LetterField.OPEN,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.MEASURE,
                    LetterField.HOW_TO_PAY)),
    /** It says that a payment did not come through. */
    CAME_BACK(
            Group.PAID,
            "A payment came back",
            "Goes when a bank debit or a cheque does not come through, so that what it was to pay is not paid.",
            false,
            Fields.of(
                    LetterField.DOCUMENT,
                    LetterField.WHAT_FOR,
                    LetterField.PAID,
                    LetterField.WHY_BACK,
                    LetterField.LEFT,
                    LetterField.OPEN,
                    LetterField.PAGE,
                    LetterField.SUMS,
                    LetterField.MEASURE,
                    LetterField.HOW_TO_PAY)),
    /** An invoice as a text message. */
    TEXT_INVOICE(
            Group.ON_PHONE,
            "An invoice goes out",
            "Goes instead of the letter where you send an invoice by text message.",
            true,
            Fields.TEXT_INVOICE),
    /** A text message before anything is due. */
    TEXT_AHEAD(
            Group.ON_PHONE,
            "Before the due date",
            "Goes by text message while nothing that it lists is due yet.",
            true,
            Fields.TEXT_REMINDER),
    /** A text message that asks kindly. */
    TEXT_FRIENDLY(Group.ON_PHONE, "Friendly reminder", "A friendly step by text message.", true, Fields.TEXT_REMINDER),
    /** A text message that asks firmly. */
    TEXT_FIRM(Group.ON_PHONE, "Firm reminder", "A firm step by text message.", true, Fields.TEXT_REMINDER),
    /** The last text message to ask. */
    TEXT_FINAL(Group.ON_PHONE, "Final reminder", "A final step by text message.", true, Fields.TEXT_REMINDER),
    /** It tells the business itself what happened. */
    NOTICE(
            Group.TO_ONESELF,
            "What happened",
            "Goes to you when money comes, a card is declined or a letter comes back: each time, or of an evening.",
            false,
            Fields.of(LetterField.WHAT_HAPPENED, LetterField.IN_SHORT, LetterField.SUMS)),
    /** What the client's page says once a payment came. */
    PAGE_PAID(
            Group.ON_PAGE,
            "After paying",
            "What the client’s page says above the rest on the day on which a card payment came.",
            false,
            Fields.of(LetterField.DOCUMENT, LetterField.WHAT_FOR, LetterField.PAID, LetterField.LEFT)),
    /** What it says while nobody knows yet. */
    PAGE_WAITING(
            Group.ON_PAGE,
            "While a payment is on its way",
            "What the page says to somebody who comes back from paying before it is known what came of it.",
            false,
            Fields.of(LetterField.DOCUMENT, LetterField.WHAT_FOR, LetterField.OPEN)),
    /** What it says to somebody who did not pay. */
    PAGE_GIVEN_UP(
            Group.ON_PAGE,
            "After giving up",
            "What the page says to somebody whose card was declined, or who comes back without having paid.",
            false,
            Fields.of(
                    LetterField.DOCUMENT,
                    LetterField.WHAT_FOR,
                    LetterField.OPEN,
                    LetterField.DECLINED,
                    LetterField.OTHER_WAYS));

    /** Where a letter is listed. */
    public enum Group {
        /** Something is offered. */
        OFFERED("Work is offered"),
        /** Something is billed. */
        BILLED("Work is billed"),
        /** Something is open. */
        UNPAID("It is not paid"),
        /** Money came. */
        PAID("Money comes"),
        /** It goes to a telephone. */
        ON_PHONE("By text message"),
        /** It goes to the business itself. */
        TO_ONESELF("To yourself"),
        /** It is said on the client's page, and sent to nobody. */
        ON_PAGE("On the client’s page");

        private final String words;

        Group(String words) {
            this.words = words;
        }

        /** For people. */
        public String words() {
            return words;
        }
    }

    private final Group group;
    private final String title;
    private final String goes;
    private final boolean asksForMoney;
    private final List<LetterField> fields;

    LetterKind(Group group, String title, String goes, boolean asksForMoney, List<LetterField> fields) {
        this.group = group;
        this.title = title;
        this.goes = goes;
        this.asksForMoney = asksForMoney;
        this.fields = fields;
    }

    /** Where it is listed. */
    public Group group() {
        return group;
    }

    /** What it is called. */
    public String title() {
        return title;
    }

    /** When it goes, in a sentence. */
    public String goes() {
        return goes;
    }

    /** Whether it is said on the client's page: it has no subject then, and is no message. */
    public boolean isOnPage() {
        return group == Group.ON_PAGE;
    }

    /** Whether it goes to a telephone: words only, without a subject, and nothing is drawn in it. */
    public boolean isText() {
        return group == Group.ON_PHONE;
    }

    /** Whether it has a subject. */
    public boolean hasSubject() {
        return !isOnPage() && !isText();
    }

    /** The same as a text message. @throws IllegalArgumentException for a letter that goes by mail only */
    public LetterKind asText() {
        return switch (this) {
            case INVOICE -> TEXT_INVOICE;
            case AHEAD -> TEXT_AHEAD;
            case FRIENDLY -> TEXT_FRIENDLY;
            case FIRM -> TEXT_FIRM;
            case FINAL -> TEXT_FINAL;
            default -> throw new IllegalArgumentException("no text message says " + this);
        };
    }

    /** Whether it asks for money, so that it should say how to pay. */
    public boolean asksForMoney() {
        return asksForMoney;
    }

    /** What it can have filled in, in the order in which it is offered. */
    public List<LetterField> fields() {
        return fields;
    }

    /** Sets of fields, apart from the letters that they belong to, since those are made first. */
    private static final class Fields {
        private static final List<LetterField> REMINDER = of(
                LetterField.DOCUMENT,
                LetterField.DOCUMENTS_IN_SHORT,
                LetterField.WHAT_FOR,
                LetterField.LATE_FEES_AGREED,
                LetterField.OPEN,
                LetterField.STANDING,
                LetterField.DUE,
                LetterField.DAYS_LATE,
                LetterField.OVERDUE,
                LetterField.WHAT_NOW,
                LetterField.OWN_LINE,
                LetterField.WAYS,
                LetterField.PAGE,
                LetterField.SUMS,
                LetterField.MEASURE,
                LetterField.HOW_TO_PAY);

        private static final List<LetterField> TEXT_INVOICE = of(
                LetterField.WHAT_FOR,
                LetterField.DOCUMENT,
                LetterField.TOTAL,
                LetterField.OPEN,
                LetterField.DUE,
                LetterField.SENT_BEFORE,
                LetterField.OWN_LINE,
                LetterField.PAGE);
        private static final List<LetterField> TEXT_REMINDER = of(
                LetterField.DOCUMENT,
                LetterField.DOCUMENTS_IN_SHORT,
                LetterField.WHAT_FOR,
                LetterField.LATE_FEES_AGREED,
                LetterField.OPEN,
                LetterField.STANDING,
                LetterField.DUE,
                LetterField.DAYS_LATE,
                LetterField.WHAT_NOW,
                LetterField.OWN_LINE,
                LetterField.PAGE);

        private static List<LetterField> of(LetterField... own) {
            return Stream.concat(LetterField.EVERYWHERE.stream(), Stream.of(own))
                    .sorted()
                    .toList();
        }
    }
}
