package quill.server.paylinks;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.server.QuillSettings;
import quill.server.business.BusinessService;
import quill.server.cardorders.LinkOrders;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.RandomText;
import quill.server.common.Texts;

/** Payment links, as their business makes and changes them. None is ever deleted: what was paid through it names it. */
@Service
public class PaymentLinks {
    private static final int BYTES = 24;
    private final LinkRepository repository;
    private final LinkOrders orders;
    private final BusinessService business;
    private final ClientsService clients;
    private final QuillSettings settings;
    private final Changes changes;
    private final BusinessClock clock;

    PaymentLinks(
            LinkRepository repository,
            LinkOrders orders,
            BusinessService business,
            ClientsService clients,
            QuillSettings settings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.orders = orders;
        this.business = business;
        this.clients = clients;
        this.settings = settings;
        this.changes = changes;
        this.clock = clock;
    }

    /** One link. @throws NotFoundException where there is none */
    PaymentLink find(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no payment link " + id + "."));
    }

    /** Whether an address leads to one. */
    public boolean isLink(String token) {
        return repository.byToken(token).isPresent();
    }

    /** All of them, the latest first. */
    List<PaymentLink> all() {
        return repository.all();
    }

    PaymentLink.State state(PaymentLink link) {
        return link.state(link.rules().once() && orders.isPaid(link.id()), clock.today());
    }

    /** The address of its page. */
    String page(PaymentLink link) {
        return settings.publicUrl() + "/p/" + link.token();
    }

    /**
     * Makes one; the same key twice is one link.
     *
     * @throws RefusedException naming what is wrong
     * @throws ConflictException where the key was used for another link
     */
    @Transactional
    public PaymentLink make(String key, TypedPaymentLink typed) {
        Texts.key(key, "link");
        return make(key, checked(typed));
    }

    /** The same, of one that is read already. */
    @Transactional
    PaymentLink make(String key, PaymentLink read) {
        Optional<PaymentLink> before = repository.byKey(key);
        if (before.isPresent()) {
            if (before.get().title().equals(read.title()) && before.get().asks().equals(read.asks())) {
                return before.get();
            }
            throw new ConflictException(
                    "This request's key was used for another link. Nothing was made; use a new key.");
        }
        long id = repository.insert(key, RandomText.of(BYTES), read);
        changes.say(null, read.rules().clientId());
        return find(id);
    }

    /** Changes one; what was begun on its page before stays as it was. @throws ConflictException where another window changed it first */
    @Transactional
    PaymentLink change(long id, TypedPaymentLink typed) {
        PaymentLink before = find(id);
        PaymentLink read = checked(typed);
        if (repository.update(id, read) != 1) {
            throw changed();
        }
        if (!before.asks().equals(read.asks())
                || before.rules().hold() != read.rules().hold()) {
            orders.closed(id);
        }
        changes.say(null, read.rules().clientId());
        return find(id);
    }

    /** Closes one, or opens it again. @throws ConflictException where another window changed it first */
    @Transactional
    public PaymentLink close(long id, int version, boolean closed) {
        PaymentLink link = find(id);
        if (repository.close(id, version, closed) != 1) {
            throw changed();
        }
        if (closed) {
            orders.closed(id);
        }
        changes.say(null, link.rules().clientId());
        return find(id);
    }

    private static ConflictException changed() {
        return new ConflictException("This link was changed in another window. Look again; nothing was changed here.");
    }

    private PaymentLink checked(TypedPaymentLink typed) {
        PaymentLink read = typed.read(clock.today(), business.taxes().keySet());
        if (read.rules().clientId() != null) {
            clients.client(read.rules().clientId());
        }
        return read;
    }
}
