package quill.server.debts;

/** What is owed: a part of what a document asks for, or what lateness has added to it. */
public enum DebtKind {
    INSTALLMENT,
    /** The first part, asked for whole before the work begins. */
    DEPOSIT,
    LATE_FEE;

    static DebtKind of(boolean deposit, boolean fee) {
        return fee ? LATE_FEE : deposit ? DEPOSIT : INSTALLMENT;
    }
}
