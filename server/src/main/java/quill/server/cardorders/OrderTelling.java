package quill.server.cardorders;

import java.time.LocalDate;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import quill.core.money.Amounts;
import quill.core.pay.PaymentWay;
import quill.server.audit.Happenings;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.common.Amount;
import quill.server.common.News;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.payments.TestPayments;
import quill.server.processor.CardProcessor.Answer;

/** Tells of orders: in the history of what they are for, and to whoever wants news. */
@Component
class OrderTelling {
    private final Happenings happenings;
    private final ApplicationEventPublisher publisher;
    private final TestPayments tests;

    OrderTelling(Happenings happenings, ApplicationEventPublisher publisher, TestPayments tests) {
        this.tests = tests;
        this.happenings = happenings;
        this.publisher = publisher;
    }

    /** A bank debit brings it, or it is held. @param until when it is certain, or the last day of what is held */
    void coming(Order order, Answer answer, LocalDate until) {
        tell(
                order,
                (order.at().test() ? "On trial: " : "")
                        + Shown.money(answer.money())
                        + (answer.isHeld() ? " held on a card until " : " begun by bank debit, certain on ")
                        + Texts.day(until));
    }

    void lapsed(Order order) {
        tell(order, "What was held lapsed, " + Amounts.grouped(order.amount()) + ": nothing was taken");
    }

    /** A payment was refused. @param payer whoever tried */
    void declined(Order order, String payer, Answer answer, String reason) {
        boolean debit = answer.with() != null
                && answer.with().by() == PaymentWay.BANK_DEBIT
                && "refused".equals(answer.state());
        String what = debit ? "bank debit" : "card";
        publisher.publishEvent(new News(
                News.Kind.DECLINED,
                (order.at().test() ? "On trial: a " : "A ") + what + " of " + payer + " was "
                        + (debit ? "refused" : "declined") + " for " + Shown.money(order.amount()) + ": " + reason
                        + ".",
                Amount.of(order.amount()),
                order.clientId(),
                order.invoiceId()));
        tell(
                order,
                (debit ? "Bank debit refused" : "Card declined") + (order.at().test() ? " on trial: " : ": ") + reason
                        + " (" + Amounts.grouped(order.amount()) + ")");
    }

    /** On trial nobody becomes a client: what was tried through a link is told to whoever tried it, on its page. */
    void tried(Order order, Answer answer, PaymentWay way, String card) {
        if (order.invoiceId() == null) {
            return;
        }
        tests.note(new TestPayments.TestPayment(
                order.key(),
                order.at().processor(),
                order.clientId(),
                order.invoiceId(),
                Amount.of(answer.money()),
                answer.paid().on(),
                card));
        tell(
                order,
                "Test payment of " + Shown.money(answer.money()) + " " + way.words()
                        + ": nothing was taken, nothing is settled");
    }

    /** @param client its name */
    void paid(Order order, String client, Answer answer, PaymentWay way) {
        publisher.publishEvent(new News(
                News.Kind.PAID,
                client + " paid " + Shown.money(answer.money()) + " " + way.words() + ".",
                Amount.of(answer.money()),
                order.clientId(),
                order.invoiceId()));
    }

    /** Of somebody whom nobody knows yet no history is kept. */
    private void tell(Order order, String what) {
        if (order.clientId() != null) {
            happenings.tell(order.invoiceId(), order.clientId(), what);
        }
    }
}
