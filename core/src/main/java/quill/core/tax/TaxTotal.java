package quill.core.tax;

import org.joda.money.Money;
import quill.core.Why;

/** One tax of a document: what it was reckoned on, what it comes to, and why. */
public record TaxTotal(Tax tax, Money base, Money amount, Why why) {}
