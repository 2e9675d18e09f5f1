package quill.standins.countinghouse;

/**
 * A card or a bank account that its holder lets the business use again.
 *
 * @param id the token by which the business knows it
 * @param way card or debit
 * @param standsFor the name of the test card or of the simulated account
 * @param expiry month and year of a card; null for an account
 */
record KeptMethod(String id, String way, String standsFor, String lastFour, String expiry, boolean removed) {
    boolean isDebit() {
        return "debit".equals(way);
    }

    TestCard card() {
        return TestCard.valueOf(standsFor);
    }

    BankAccount account() {
        return BankAccount.valueOf(standsFor);
    }

    /** As its holder knows it. */
    public String words() {
        return (isDebit() ? "bank account" : "card") + " ending " + lastFour;
    }
}
