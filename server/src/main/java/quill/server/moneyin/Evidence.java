package quill.server.moneyin;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.core.issued.Matter;
import quill.server.audit.Happenings;
import quill.server.cardorders.OrderViews;
import quill.server.clearing.Dispute;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Message;
import quill.server.documents.Document;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Plans;
import quill.server.paylinks.LinkViews;
import quill.server.payments.Payment;
import quill.server.payments.Payments;
import quill.server.quotes.QuotesService;

/** Puts together what speaks for the business where a payment is contested: only what is known, each with its day. */
@Component
class Evidence {
    private final InvoicesService invoices;
    private final QuotesService quotes;
    private final Plans plans;
    private final Relations relations;
    private final Correspondence correspondence;
    private final Happenings happenings;
    private final ThroughLinks through;

    /** What is known of payments that came through payment links. */
    @Component
    record ThroughLinks(OrderViews orders, Payments payments, LinkViews links) {}

    Evidence(
            InvoicesService invoices,
            QuotesService quotes,
            Plans plans,
            Relations relations,
            Correspondence correspondence,
            Happenings happenings,
            ThroughLinks through) {
        this.through = through;
        this.invoices = invoices;
        this.quotes = quotes;
        this.plans = plans;
        this.relations = relations;
        this.correspondence = correspondence;
        this.happenings = happenings;
    }

    /** A draft of the answer; its writer may change every word of it. */
    String of(Dispute dispute, Payment payment) {
        List<String> lines = new ArrayList<>();
        lines.add("The payment of " + Shown.money(payment.total()) + " on " + Texts.day(payment.valueOn()) + ", "
                + payment.means().card() + ", is contested: “" + dispute.reason() + "”.");
        DocumentId about = dispute.documentId();
        if (about != null) {
            Document invoice = invoices.invoice(about);
            what(lines, invoice);
            agreed(lines, invoice);
            letters(lines, invoice);
            history(lines, invoice);
        }
        through.orders()
                .ofKey(through.payments().keyOf(payment.id()))
                .filter(o -> o.linkPayment() != null)
                .ifPresent(o -> link(lines, through.links().from(o.linkPayment())));
        return String.join("\n", lines);
    }

    private static void link(List<String> lines, LinkViews.FromLink from) {
        lines.add("");
        lines.add("It was paid for “" + from.title() + "”.");
        from.answers().forEach(a -> lines.add("– " + a.label() + ": " + a.text()));
        if (!from.terms().isEmpty()) {
            lines.add("These conditions were accepted before it was paid: " + from.terms());
        }
    }

    private void what(List<String> lines, Document invoice) {
        var printed = invoices.document(invoice);
        Matter matter = printed.matter();
        lines.add("");
        lines.add("What it paid: invoice " + invoice.number() + " of " + Texts.day(printed.issuedOn()) + " to "
                + printed.to().name() + (matter.subject().isEmpty() ? "" : ", " + matter.subject()) + ".");
        if (matter.supplyDate() != null) {
            lines.add("Supplied on " + Texts.day(matter.supplyDate())
                    + (matter.supplyEnd() == null ? "" : " to " + Texts.day(matter.supplyEnd())) + ".");
        }
        printed.body().lines().forEach(l -> lines.add("– " + l.description()));
    }

    private void agreed(List<String> lines, Document invoice) {
        plans.accepted(invoice)
                .ifPresent(a -> lines.add("Accepted on " + Texts.day(a.on()) + " by “" + a.name()
                        + "” on the invoice’s page, from " + a.address() + ". Seal of what was accepted: " + a.seal()));
        relations
                .target(invoice.id(), RelationKind.FROM_QUOTE)
                .map(quotes::quote)
                .ifPresent(quote -> quotes.answer(quote)
                        .filter(a -> a.accepted())
                        .ifPresent(a ->
                                lines.add("Quote " + quote.number() + " was accepted on " + Texts.day(a.on()) + " by “"
                                        + a.name() + "”"
                                        + (a.byHand() ? ", noted by us" : " on its page, from " + a.address())
                                        + ". Seal of what was accepted: " + a.seal())));
    }

    private void letters(List<String> lines, Document invoice) {
        List<Message> sent = new ArrayList<>(correspondence.ofInvoice(invoice.id()));
        Collections.reverse(sent);
        List<Message> left = sent.stream().filter(m -> m.sentOn() != null).toList();
        if (!left.isEmpty()) {
            lines.add("");
            lines.add("Letters about it:");
            left.forEach(m -> lines.add("– " + Texts.day(m.sentOn()) + ", “" + m.subject() + "”, to "
                    + m.addresses().to() + ": " + stands(m)));
        }
    }

    private static String stands(Message m) {
        return switch (m.state()) {
            case OPENED -> "the page that it leads to was opened";
            case BOUNCED -> "it came back";
            case UNCERTAIN -> "it may not have arrived";
            default -> "sent";
        };
    }

    private void history(List<String> lines, Document invoice) {
        List<Happenings.Happening> all = new ArrayList<>(happenings.ofInvoice(invoice.id()));
        Collections.reverse(all);
        if (!all.isEmpty()) {
            lines.add("");
            lines.add("What happened:");
            all.stream()
                    .filter(h -> h.about() == null)
                    .forEach(h -> lines.add("– " + Texts.day(h.on()) + ", " + h.what()
                            + (h.who().isProduct() ? "" : " (" + h.who().words() + ")")));
        }
    }
}
