package quill.server.publicpages;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.OrderViews;
import quill.server.common.BusinessClock;
import quill.server.dispatch.OnTrial;
import quill.server.dispatch.PageWords;
import quill.server.documents.Document;
import quill.server.payments.Payment;

/** What a client's page says above the rest to whoever has paid, or has not. */
@Component
class SaidOnPages {
    private final CardOrders orders;
    private final OrderViews views;
    private final OnTrial tests;
    private final PageWords words;
    private final BusinessClock clock;

    SaidOnPages(CardOrders orders, OrderViews views, OnTrial tests, PageWords words, BusinessClock clock) {
        this.orders = orders;
        this.tests = tests;
        this.views = views;
        this.words = words;
        this.clock = clock;
    }

    /** What was paid on trial, as long as that goes on. */
    List<OnTrial.Tried> tests(DocumentId invoiceId) {
        return tests.of(invoiceId);
    }

    /** Bank debits that are on their way, and what is held on cards. */
    List<OrderViews.Seen> coming(DocumentId invoiceId) {
        return views.coming(invoiceId);
    }

    /** As the business words it. @param refused whether nothing came */
    record Said(String text, boolean refused) {}

    /**
     * Null where there is nothing to say.
     *
     * @param outcome what came of paying, for somebody who comes back from it
     * @param came payments that stand, newest first
     */
    Said of(Document invoice, CardOrders.Outcome outcome, List<Payment> came) {
        if (invoice.voidedOn() != null) {
            return null;
        }
        String declined =
                invoice.openMinor() > 0 ? orders.declinedOn(invoice.id()).orElse("") : "";
        if (!declined.isEmpty() || outcome == CardOrders.Outcome.NOT_PAID) {
            return new Said(words.givenUp(invoice, declined), true);
        }
        if (outcome == CardOrders.Outcome.UNKNOWN) {
            return new Said(words.waiting(invoice), false);
        }
        return came.stream()
                .filter(p -> !p.means().way().isByHand())
                .filter(p -> p.valueOn().equals(clock.today()))
                .findFirst()
                .map(p -> new Said(words.paid(invoice, p.amount().money()), false))
                .orElse(null);
    }
}
