package quill.core.ledger;

/** What is owed: a part of what a document asks for, or what lateness has added to it. */
public enum DebtKind {
    INSTALLMENT,
    /** The first part, asked for whole before the work begins. */
    DEPOSIT,
    LATE_FEE,
    INTEREST;

    /** Whether lateness added it. */
    public boolean isAdded() {
        return this == LATE_FEE || this == INTEREST;
    }
}
