package quill.core.document;

import org.joda.money.Money;
import quill.core.Why;

/** A line reckoned: gross = round(quantity x unit price); net = gross - discount, and it is what is printed. */
public record LineTotal(Money gross, Money discount, Money net, Why why) {}
