package quill.server.cardorders;

import org.springframework.stereotype.Component;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.links.Links;

/** The pages to which payers come back. */
@Component
class OrderPages {
    private final Links links;
    private final ForLinks forLinks;

    OrderPages(Links links, ForLinks forLinks) {
        this.links = links;
        this.forLinks = forLinks;
    }

    /** The address of the page on which an order was begun. */
    String of(Order order) {
        return order.invoiceId() == null ? forLinks.pageOf(order.linkPayment()) : links.pageOf(order.invoiceId());
    }
}
