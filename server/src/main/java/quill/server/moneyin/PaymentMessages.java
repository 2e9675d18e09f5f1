package quill.server.moneyin;

import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.debts.Debts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Message;
import quill.server.dispatch.MessageKind;
import quill.server.payments.Payment;

/** Letters that say that money came, or did not come through, about what a payment was for, since it came. */
@Component
class PaymentMessages {
    private static final Set<MessageKind> OF_MONEY =
            Set.of(MessageKind.RECEIPT, MessageKind.CORRECTION, MessageKind.CAME_BACK);
    private final Correspondence correspondence;
    private final Debts debts;

    PaymentMessages(Correspondence correspondence, Debts debts) {
        this.correspondence = correspondence;
        this.debts = debts;
    }

    List<Message> of(Payment p) {
        List<Message> own = correspondence.ofPayment(p.id());
        Set<DocumentId> about = Stream.concat(
                        Stream.ofNullable(p.invoiceId()),
                        debts.settledBy(p.id()).stream().map(s -> s.debt().document()))
                .collect(Collectors.toSet());
        return Stream.concat(
                        own.stream(),
                        about.stream()
                                .flatMap(d -> correspondence.ofInvoice(d).stream())
                                .filter(m -> m.kind() == MessageKind.CAME_BACK)
                                .filter(m -> !m.madeOn().isBefore(p.bookedOn())))
                .filter(m -> OF_MONEY.contains(m.kind()))
                .collect(Collectors.toMap(Message::id, m -> m, (a, b) -> a))
                .values()
                .stream()
                .sorted(Comparator.comparing(Message::id))
                .toList();
    }
}
