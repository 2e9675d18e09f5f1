package quill.server.documents;

import java.time.LocalDate;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/**
 * A document of any kind, without its text. A draft has no day of issue; whatever was issued has a number, a client and a
 * total.
 *
 * @param version counts every change of a draft, and issuing, voiding, taking back
 * @param number a draft has one only if it was issued under it and taken back before it was sent
 * @param issue null for a draft
 */
public record Document(
        DocumentId id, int version, DocumentKind kind, DocumentState state, Head head, String number, Issue issue) {
    /** So much of a subject stands in lists. */
    static final int MOST_SUBJECT = 200;

    /** @throws IllegalStateException for a state that its kind does not have, or one without what it has to have */
    public Document {
        if (!kind.states().contains(state)) {
            throw new IllegalStateException("no " + kind.word() + " is ever " + state.word());
        }
        if (state == DocumentState.DRAFT != (issue == null)) {
            throw new IllegalStateException("a draft has no day of issue, and all else has one: " + id);
        }
        if (issue != null && (number == null || head.clientId() == null || head.totalMinor() == null)) {
            throw new IllegalStateException("what was issued has a number, a client and a total: " + id);
        }
        if (issue != null && state == DocumentState.VOID != (issue.voidedOn() != null)) {
            throw new IllegalStateException("what is void has its day, and nothing else: " + id);
        }
    }

    /**
     * What lists show of it.
     *
     * @param clientId null while a draft names none
     * @param totalMinor null while a draft cannot be reckoned
     */
    public record Head(ClientId clientId, String clientName, String subject, String currency, Long totalMinor) {}

    /**
     * What it has since it was issued.
     *
     * @param version under which its text is kept
     * @param openMinor what is owed of it still
     * @param nextDueOn when the next of that falls due, or null
     * @param voidedOn null unless it is void
     */
    public record Issue(LocalDate on, int version, long openMinor, LocalDate nextDueOn, LocalDate voidedOn) {}

    /** Whether it can still be written. */
    public boolean isDraft() {
        return state == DocumentState.DRAFT;
    }

    /** Whose it is; null while a draft names nobody. */
    public ClientId clientId() {
        return head.clientId();
    }

    /** The client's name, as lists show it. */
    public String clientName() {
        return head.clientName();
    }

    /** What it is for, in a few words. */
    public String subject() {
        return head.subject();
    }

    /** Whether its subject may be longer than that: a list has room for so much. */
    public boolean isSubjectCut() {
        return subject().length() >= MOST_SUBJECT;
    }

    /** The code of its currency. */
    public String currency() {
        return head.currency();
    }

    /** What it comes to; null while a draft cannot be reckoned. */
    public Long totalMinor() {
        return head.totalMinor();
    }

    /** The same as an amount. @throws NullPointerException while a draft cannot be reckoned */
    public Money total() {
        return money(totalMinor());
    }

    /** What is owed of it still, as an amount. */
    public Money open() {
        return money(openMinor());
    }

    private Money money(long minor) {
        return Money.ofMinor(CurrencyUnit.of(currency()), minor);
    }

    /** Null for a draft. */
    public LocalDate issuedOn() {
        return issue == null ? null : issue.on();
    }

    /** What is owed of it still; nothing for a draft. */
    public long openMinor() {
        return issue == null ? 0 : issue.openMinor();
    }

    /** When the next of what is open falls due, or null. */
    public LocalDate nextDueOn() {
        return issue == null ? null : issue.nextDueOn();
    }

    /** Null unless it is void. */
    public LocalDate voidedOn() {
        return issue == null ? null : issue.voidedOn();
    }
}
