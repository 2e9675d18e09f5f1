package quill.server.payments;

import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.OnTop;
import quill.core.money.Amounts;
import quill.server.books.BooksService;

/** Tips and surcharges: they come and go beside payments, settle nothing, and are booked by entries of their own. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class OnTops {
    private final TopRepository repository;
    private final BooksService books;

    OnTops(TopRepository repository, BooksService books) {
        this.repository = repository;
        this.books = books;
    }

    /** It came with a payment. */
    void came(Payment p, OnTop top) {
        if (top.isAny()) {
            repository.insert(p.id(), p.id(), top, false);
            book(p, p.id(), Entry.Event.ON_TOP, top);
        }
    }

    /** What of a payment's is still here. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public OnTop left(Payment p) {
        return repository.left(p.id(), p.amount().money().getCurrencyUnit());
    }

    /** It goes with what is given back or taken back. @param movement that it goes with */
    void goes(Payment p, long movement, OnTop top) {
        if (top.isAny()) {
            repository.insert(p.id(), movement, top, true);
            book(p, movement, Entry.Event.ON_TOP_BACK, top);
        }
    }

    /** What went with a movement. */
    OnTop wentWith(long movement, Money like) {
        return repository.wentWith(movement, like.getCurrencyUnit());
    }

    /** What went with the latest movement of a kind because of a payment. */
    OnTop wentWithLatest(Payment p, String kind) {
        return wentWith(repository.latest(p.id(), kind), p.amount().money());
    }

    /** It is here again. @param movement that it comes again with */
    void comesAgain(Payment p, long movement, OnTop top) {
        if (top.isAny()) {
            repository.insert(p.id(), movement, top, false);
            book(p, movement, Entry.Event.ON_TOP, top);
        }
    }

    private void book(Payment p, long movement, Entry.Event event, OnTop top) {
        Entry came = Bookings.onTop(p.means().way().account(), p.invoiceId(), top);
        books.book(
                event == Entry.Event.ON_TOP ? came : Bookings.reversed(event, came),
                event.words() + ": " + words(top),
                new BooksService.About(p.clientId(), p.invoiceId(), movement),
                null);
    }

    /** In a few words, such as {@code 5.00 as a tip}. */
    static String words(OnTop top) {
        String tip = top.tip().isPositive() ? Amounts.grouped(top.tip()) + " as a tip" : "";
        String charged = top.charged().isPositive() ? Amounts.grouped(top.charged()) + " for paying by card" : "";
        return tip + (tip.isEmpty() || charged.isEmpty() ? "" : ", ") + charged;
    }
}
