package quill.core.letter;

import java.util.List;

/**
 * What a letter can have filled in. The set is closed: a letter knows these, the labels of the business's own fields,
 * and nothing else. What a field says comes from the books when the letter is written.
 */
public enum LetterField {
    CONTACT(
            "contact, or client",
            Group.WHO,
            Shape.WORDS,
            "the person who is written to, else the client’s name",
            "Ms Example"),
    CLIENT("client", Group.WHO, Shape.WORDS, "the client’s name, whoever is written to", "The Example Works"),
    BUSINESS("business", Group.WHO, Shape.WORDS, "your business’s name", "Your business"),
    OWN_LINE(
            "own line",
            Group.WHO,
            Shape.SENTENCE,
            "what you add when you send it; mostly nothing",
            "It was a pleasure."),
    DOCUMENT("document", Group.WHAT, Shape.WORDS, "its kind and number; of several, all numbers", "invoice 2027-0001"),
    DOCUMENT_FOR(
            "document, for what",
            Group.WHAT,
            Shape.WORDS,
            "the same, with what stands on it as For",
            "invoice 2027-0001 for the work of March"),
    DOCUMENTS_IN_SHORT(
            "document, or how many",
            Group.WHAT,
            Shape.WORDS,
            "its kind and number; of several, how many",
            "invoice 2027-0001"),
    WHAT_FOR(
            "what for",
            Group.WHAT,
            Shape.WORDS,
            "what stands on it as For; where it is about one document",
            "the work of March"),
    CREDIT_NOTE("credit note", Group.WHAT, Shape.WORDS, "its number", "C-2027-0001"),
    EXTENT(
            "how much of it",
            Group.WHAT,
            Shape.WORDS,
            "whether it takes back the whole, the rest or a part",
            "the whole of"),
    REASON("reason", Group.WHAT, Shape.WORDS, "why it was credited, as typed", "the wrong hours"),
    DECLINED("why declined", Group.WHAT, Shape.WORDS, "why the card was declined; nothing where it was not", ""),
    WHY_BACK(
            "why it came back",
            Group.WHAT,
            Shape.WORDS,
            "why a payment did not come through, as the bank says",
            "not enough money in the account"),
    LATE_FEES_AGREED("late fees agreed", Group.WHAT, Shape.SENTENCE, "says that a late fee in it was agreed", ""),
    WHAT_HAPPENED("what happened", Group.WHAT, Shape.SENTENCE, "what it tells you, in a sentence", "Money came."),
    IN_SHORT("in short", Group.WHAT, Shape.WORDS, "the same in a few words; of several, how many", "€100.00 came"),
    CHANGE(
            "what changed",
            Group.WHAT,
            Shape.SENTENCE,
            "what is agreed anew, in a sentence",
            "What is still open is to be paid on other days, as we agreed."),
    ASKED("amount asked for", Group.HOW_MUCH, Shape.WORDS, "what the letter asks for before it falls due", "€100.00"),
    ASKED_FOR("asked for what", Group.WHAT, Shape.WORDS, "what it is asked for, in a few words", "the deposit"),
    VALID_UNTIL(
            "valid until", Group.WHEN, Shape.WORDS, "the last day on which the quote can be accepted", "15 April 2027"),
    ACCEPTED_BY("accepted by", Group.WHO, Shape.WORDS, "who accepted the quote, as it was signed", "Ms Example"),
    WHAT_NEXT(
            "what comes next",
            Group.WHAT,
            Shape.SENTENCE,
            "what is asked for now that the quote is accepted; nothing where nothing is",
            ""),
    BEFORE(
            "as it was before",
            Group.WHAT,
            Shape.SENTENCE,
            "the sums and days that were agreed before; nothing where no day was set",
            "It was €100.00 on 15 March 2027 before."),
    SENT_BEFORE(
            "sent before", Group.WHEN, Shape.WORDS, "the day on which it was sent first; nothing the first time", ""),
    TOTAL("total", Group.HOW_MUCH, Shape.WORDS, "what it comes to, tax included", "€100.00"),
    CREDITED("credited", Group.HOW_MUCH, Shape.WORDS, "what the credit note comes to", "€100.00"),
    OPEN(
            "amount open",
            Group.HOW_MUCH,
            Shape.WORDS,
            "what is asked for and not paid; nothing where nothing is",
            "€100.00"),
    PAID("amount paid", Group.HOW_MUCH, Shape.WORDS, "the payment that the letter is about", "€100.00"),
    FREE_CREDIT(
            "credit", Group.HOW_MUCH, Shape.WORDS, "what you hold of the client’s; nothing where there is none", ""),
    WAITING_CREDIT(
            "credit that waits", Group.HOW_MUCH, Shape.WORDS, "what is held for the invoice that replaces one", ""),
    STANDING(
            "how it stands",
            Group.HOW_MUCH,
            Shape.SENTENCE,
            "what is open of what, and since or until when",
            "€100.00 on invoice 2027-0001 has been open since 15 March 2027."),
    ARRIVED(
            "what arrived",
            Group.HOW_MUCH,
            Shape.SENTENCE,
            "the payment, and which documents it settles",
            "Your payment of €100.00 for invoice 2027-0001 has arrived."),
    LEFT(
            "what is left",
            Group.HOW_MUCH,
            Shape.SENTENCE,
            "what is still to be paid, or that nothing is",
            "This invoice is settled."),
    SUMS("sums", Group.HOW_MUCH, Shape.BLOCK, "a small table: what is asked for or was paid, one by one", ""),
    MEASURE("measure", Group.HOW_MUCH, Shape.BLOCK, "the installments as a drawn bar, as they stand", ""),
    DUE("due date", Group.WHEN, Shape.WORDS, "where all of it has one due date", "15 March 2027"),
    DAYS_LATE(
            "days late",
            Group.WHEN,
            Shape.WORDS,
            "how many, such as 14 days; where all of it has one due date that has passed",
            "3 days"),
    OVERDUE(
            "overdue, or a reminder",
            Group.WHEN,
            Shape.WORDS,
            "overdue where anything is late, else a reminder",
            "overdue"),
    TODAY("today", Group.WHEN, Shape.WORDS, "the day on which it is written", "18 March 2027"),
    WHAT_NOW(
            "what to pay when", Group.HOW_TO_PAY, Shape.WORDS, "it now, it by its date, or what is late now", "it now"),
    OTHER_WAYS(
            "other ways",
            Group.HOW_TO_PAY,
            Shape.SENTENCE,
            "says how else to pay, now that a card did not",
            "Try another card, or pay by bank transfer."),
    WAYS(
            "ways to pay",
            Group.HOW_TO_PAY,
            Shape.SENTENCE,
            "names the ways that there are",
            "You can pay by bank transfer; account and reference are on its page."),
    HOW_TO_PAY(
            "how to pay", Group.HOW_TO_PAY, Shape.BLOCK, "its button, account and square code, while it is owed", ""),
    PAGE("page", Group.HOW_TO_PAY, Shape.WORDS, "the address of its page", "https://example.example/p/made-up");

    /** What a field tells of. */
    public enum Group {
        /** Whom and from whom. */
        WHO("who"),
        /** What it is about. */
        WHAT("what"),
        /** Sums. */
        HOW_MUCH("how much"),
        /** Days. */
        WHEN("when"),
        /** The ways to pay. */
        HOW_TO_PAY("how to pay"),
        /** A field of the business's own. */
        OWN("your own fields");

        private final String words;

        Group(String words) {
            this.words = words;
        }

        /** For people. */
        public String words() {
            return words;
        }
    }

    /** How a field stands in a letter. */
    public enum Shape {
        /** Within a sentence; where it is empty, the sentence is left out. */
        WORDS,
        /** A sentence of its own; where it is empty, only it is left out. */
        SENTENCE,
        /** A table or a drawing, on a line of its own. */
        BLOCK
    }

    /** The fields of every letter. */
    static final List<LetterField> EVERYWHERE = List.of(CONTACT, CLIENT, BUSINESS, TODAY);

    private final String title;
    private final Group group;
    private final Shape shape;
    private final String meaning;
    private final String example;

    LetterField(String title, Group group, Shape shape, String meaning, String example) {
        this.title = title;
        this.group = group;
        this.shape = shape;
        this.meaning = meaning;
        this.example = example;
    }

    /** As it is written between braces. */
    public String title() {
        return title;
    }

    /** What it tells of. */
    public Group group() {
        return group;
    }

    /** How it stands in a letter. */
    public Shape shape() {
        return shape;
    }

    /** What it might say; empty for what often says nothing. */
    public String example() {
        return example;
    }

    /** Whether it is there to say nothing on most occasions, so that its sentence is meant to be left out. */
    public boolean oftenEmpty() {
        return shape == Shape.WORDS && example.isEmpty();
    }

    /** What it says, for whoever picks it. */
    public String meaning() {
        return meaning;
    }
}
