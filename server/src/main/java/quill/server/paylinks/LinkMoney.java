package quill.server.paylinks;

import java.util.Optional;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.QuillSettings;
import quill.server.cardorders.ForLinks;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Changes;
import quill.server.dispatch.LinkLetters;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** What becomes of money that comes through a payment link: its payer is found among the clients or made one, and gets a receipt. */
@Component
class LinkMoney implements ForLinks {
    private final LinkPaymentRepository begun;
    private final LinkRepository links;
    private final InsideTaxes taxes;
    private final ClientsService clients;
    private final LinkLetters letters;
    private final QuillSettings settings;
    private final Payments payments;
    private final Changes changes;

    LinkMoney(
            LinkPaymentRepository begun,
            LinkRepository links,
            InsideTaxes taxes,
            ClientsService clients,
            LinkLetters letters,
            QuillSettings settings,
            Payments payments,
            Changes changes) {
        this.payments = payments;
        this.begun = begun;
        this.links = links;
        this.taxes = taxes;
        this.clients = clients;
        this.letters = letters;
        this.settings = settings;
        this.changes = changes;
    }

    @Override
    public String nameOf(long linkPayment) {
        return begun.find(linkPayment).orElseThrow().payer().name();
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public ClientId clientOf(long linkPayment) {
        begun.takeTurn();
        LinkPaymentRepository.Begun b = begun.lock(linkPayment).orElseThrow();
        if (b.clientId() != null) {
            return b.clientId();
        }
        String email = b.payer().email();
        ClientId of = (email.isEmpty() ? Optional.<Client>empty() : clients.byEmail(email))
                .map(Client::id)
                .orElseGet(() -> clients.make(new Client(
                                ClientId.NEW, b.payer().name(), "", b.payer().email(), "", "", 1))
                        .id());
        begun.becomes(linkPayment, of);
        return of;
    }

    @Override
    public String pageOf(long linkPayment) {
        LinkPaymentRepository.Begun b = begun.find(linkPayment).orElseThrow();
        PaymentLink link = links.find(b.linkId()).orElseThrow();
        return settings.publicUrl() + "/p/" + link.token() + "/" + b.token();
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public void arrived(long linkPayment, Payment payment, boolean again) {
        LinkPaymentRepository.Begun b = begun.find(linkPayment).orElseThrow();
        PaymentLink link = links.find(b.linkId()).orElseThrow();
        letters.receipt(
                payment.clientId(),
                payment.id(),
                new LinkLetters.Came(
                        b.title(),
                        payment.amount().money(),
                        payment.words(),
                        payment.valueOn(),
                        taxes.of(payment.amount().money(), link.taxes()),
                        b.answers().stream()
                                .map(a -> new LinkLetters.Said(a.label(), a.text()))
                                .toList(),
                        payments.onTop(payment)),
                b.payer().name(),
                b.payer().email());
        if (again && link.rules().once()) {
            // Nobody could begin it beside the first, but what was withdrawn in doubt can still bring its money.
            payments.unexpected(payment.id());
        }
        changes.say(null, payment.clientId());
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public void cameBack(long linkPayment, String key, long paymentId, Money amount, String why) {
        LinkPaymentRepository.Begun b = begun.find(linkPayment).orElseThrow();
        PaymentLink link = links.find(b.linkId()).orElseThrow();
        letters.cameBack(
                clientOf(linkPayment),
                key,
                paymentId,
                new LinkLetters.Gone(
                        b.title(), amount, why, link.closed() ? "" : settings.publicUrl() + "/p/" + link.token()),
                b.payer().name(),
                b.payer().email());
    }
}
