package quill.core.ledger;

/** The accounts that entries are posted to. A debit is positive, a credit negative. */
public enum Account {
    RECEIVABLE("Receivable"),
    CLIENT_CREDIT("Client credit"),
    CLIENT_DEPOSITS("Client deposits"),
    /** Net of deposit invoices: no income until the invoice of the work deducts them. */
    DEPOSITS_INVOICED("Deposits invoiced"),
    BANK("Bank"),
    CASH("Cash"),
    PROCESSOR_CLEARING("Processor clearing"),
    INCOME("Income"),
    LATE_FEE_INCOME("Late-fee income"),
    TAX("Tax"),
    ROUNDING("Cash rounding"),
    PROCESSING_FEES("Processing fees"),
    EXCHANGE_DIFFERENCES("Exchange differences"),
    /** Between two currencies, where money of one settles a debt of another. */
    EXCHANGE_CLEARING("Exchange clearing"),
    BAD_DEBTS("Bad debts"),
    DISCOUNTS_GIVEN("Discounts given"),
    TIPS("Tips"),
    SURCHARGES("Surcharges");

    private final String words;

    Account(String words) {
        this.words = words;
    }

    /** The account's name, for people. */
    public String words() {
        return words;
    }
}
