package quill.core.ledger;

import org.joda.money.Money;

/**
 * Money that came.
 *
 * @param movement its key
 * @param where the account that it reached
 */
public record Receipt(long movement, Account where, Money amount) {}
