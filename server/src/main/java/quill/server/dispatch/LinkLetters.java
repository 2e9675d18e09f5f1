package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.ledger.OnTop;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.server.business.Business;
import quill.server.clients.ClientsService;
import quill.server.common.Shown;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterFacts.Row;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** The receipts of payments that came through payment links, with no invoice behind them. */
@Service
public class LinkLetters {
    private final LetterWriting writing;
    private final LetterBasics basics;
    private final MessageQueue queue;
    private final MessageRepository messages;
    private final ClientsService clients;

    LinkLetters(
            LetterWriting writing,
            LetterBasics basics,
            MessageQueue queue,
            MessageRepository messages,
            ClientsService clients) {
        this.messages = messages;
        this.writing = writing;
        this.basics = basics;
        this.queue = queue;
        this.clients = clients;
    }

    /** A tax that is inside an amount. */
    public record Inside(String name, Money amount) {}

    /** What the payer filled in. */
    public record Said(String label, String text) {}

    /** What came. @param way how, in words @param onTop beside the amount */
    public record Came(
            String title, Money amount, String way, LocalDate on, List<Inside> taxes, List<Said> said, OnTop onTop) {}

    /** What did not come through. @param page where it can be paid again; empty where it cannot */
    public record Gone(String title, Money amount, String why, String page) {}

    /**
     * Tells kindly that a payment did not come through, once; a receipt that still waits is held back.
     *
     * @param key of what happened
     * @param paymentId 0 where none was booked
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void cameBack(ClientId clientId, String key, long paymentId, Gone g, String name, String to) {
        messages.holdBack("receipt:" + paymentId);
        Business from = basics.from(g.amount().getCurrencyUnit());
        LetterFacts.Values values = basics.values(from, clients.client(clientId).name(), name)
                .put(LetterField.DOCUMENT, basics.say("link", Map.of("title", g.title())))
                .put(LetterField.WHAT_FOR, g.title())
                .put(LetterField.PAID, Shown.money(g.amount()))
                .put(LetterField.WHY_BACK, g.why())
                .put(LetterField.LEFT, basics.say("link-unpaid", Map.of("title", g.title())))
                .put(LetterField.PAGE, g.page().isEmpty() ? null : g.page());
        LetterFacts said = new LetterFacts(from, values.all(), List.of(), "", List.of(), List.of());
        Written written = writing.write(LetterKind.CAME_BACK, false, said, LetterWriting.ThisOnce.NOTHING);
        send("came back:" + key, MessageKind.CAME_BACK, clientId, to, written);
    }

    /** Queues the receipt, once for each payment. @param name of whoever paid @param to its address of e-mail */
    @Transactional(propagation = Propagation.MANDATORY)
    public void receipt(ClientId clientId, long paymentId, Came c, String name, String to) {
        Business from = basics.from(c.amount().getCurrencyUnit());
        LetterFacts.Values values = basics.values(from, clients.client(clientId).name(), name)
                .put(LetterField.DOCUMENT, basics.say("link", Map.of("title", c.title())))
                .put(LetterField.WHAT_FOR, c.title())
                .put(LetterField.PAID, Shown.money(c.amount()))
                .put(
                        LetterField.ARRIVED,
                        basics.say("link-came", Map.of("paid", c.amount(), "title", c.title(), "inside", c.taxes()))
                                + basics.onTop(c.onTop()))
                .put(LetterField.LEFT, basics.say("link-left", Map.of()));
        List<Row> rows = new ArrayList<>();
        rows.add(Row.plain(basics.say("received", Map.of("on", c.on(), "way", c.way())), Shown.money(c.amount())));
        rows.addAll(basics.topRows(c.onTop()));
        c.said().forEach(s -> rows.add(Row.plain(s.label(), s.text())));
        LetterFacts said = new LetterFacts(from, values.all(), rows, "", List.of(), List.of());
        Written written = writing.write(LetterKind.RECEIPT, false, said, LetterWriting.ThisOnce.NOTHING);
        send("receipt:" + paymentId, MessageKind.RECEIPT, clientId, to, written);
    }

    /** Whoever left no address gets nothing. */
    private void send(String key, MessageKind kind, ClientId clientId, String to, Written written) {
        if (!to.isEmpty()) {
            queue.add(MessageDraft.about(key, kind, clientId, to, written), Slip.PLAIN);
        }
    }
}
