package quill.server.dispatch;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Sends receipts to whoever paid as well. */
@Service
public class ReceiptCopies {
    private final MessageCopies copies;

    ReceiptCopies(MessageCopies copies) {
        this.copies = copies;
    }

    /** The receipt of a payment goes to another address too; nothing happens for an empty one, or without a receipt. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void to(String email, long paymentId) {
        if (!email.isEmpty()) {
            copies.copyTo("receipt:" + paymentId, email);
        }
    }
}
