package quill.server.cardorders;

import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.server.payments.Payment;

/** What orders need to know of money that comes through a payment link, for no document. */
public interface ForLinks {
    /** Whoever pays, as typed. @param linkPayment what was begun on the link's page */
    String nameOf(long linkPayment);

    /** The client that whoever pays is, made where none is known yet; within the caller's transaction. */
    ClientId clientOf(long linkPayment);

    /** The address of the link's page, for whoever is back from paying. */
    String pageOf(long linkPayment);

    /** The money came, and is booked; within the caller's transaction. @param again whether the link was paid before */
    void arrived(long linkPayment, Payment payment, boolean again);

    /**
     * The money did not come through, and whoever paid is told; within the caller's transaction.
     *
     * @param key of what happened
     * @param paymentId 0 where none was booked
     */
    void cameBack(long linkPayment, String key, long paymentId, Money amount, String why);
}
