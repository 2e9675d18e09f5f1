package quill.server.payments;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OnTop;
import quill.core.letter.LetterKind;
import quill.server.clients.ClientsService;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.dispatch.DocumentFacts;
import quill.server.dispatch.LetterCases;
import quill.server.dispatch.MoneyLetters;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.letters.LetterFacts;

/** Money that came, to look at receipts with. */
@Component
class PaymentCases implements LetterCases {
    private final PaymentRepository payments;
    private final InvoicesService invoices;
    private final ClientsService clients;
    private final DocumentFacts facts;
    private final Debts debts;

    PaymentCases(
            PaymentRepository payments,
            InvoicesService invoices,
            ClientsService clients,
            DocumentFacts facts,
            Debts debts) {
        this.payments = payments;
        this.invoices = invoices;
        this.clients = clients;
        this.facts = facts;
        this.debts = debts;
    }

    @Override
    public boolean writes(LetterKind kind) {
        return kind == LetterKind.RECEIPT
                || kind == LetterKind.CORRECTION
                || kind == LetterKind.CAME_BACK
                || kind == LetterKind.PAGE_PAID;
    }

    @Override
    public List<LetterCase> latest(LetterKind kind, ClientId clientId) {
        return payments.latest(clientId, MOST).stream()
                .filter(p -> !p.held() && (p.undone() != null) == (kind == LetterKind.CORRECTION))
                .filter(p -> about(p) != null)
                .map(p -> new LetterCase(
                        p.clientId(),
                        Shown.money(p.amount().money()) + " of " + Texts.day(p.valueOn()),
                        () -> facts(kind, p)))
                .toList();
    }

    private LetterFacts facts(LetterKind kind, Payment p) {
        Document invoice = invoices.invoice(about(p));
        if (kind == LetterKind.PAGE_PAID) {
            return facts.onPage(invoice, p.amount().money(), "");
        }
        String payer = clients.client(invoice.clientId()).forReceipts().name();
        if (kind == LetterKind.CAME_BACK) {
            return facts.cameBack(invoice, payer, p.amount().money(), "not enough money in the account");
        }
        return kind == LetterKind.RECEIPT
                ? facts.receipt(invoice, payer, arrived(p))
                : facts.correction(invoice, payer, p.amount().money());
    }

    private static OnTop onTop(Payment p) {
        Payment.Extra extra = p.means().extra();
        CurrencyUnit currency = p.amount().money().getCurrencyUnit();
        return extra == null
                ? OnTop.nothing(currency)
                : new OnTop(
                        extra.tip().money(),
                        extra.surcharge().money(),
                        extra.tax().money(),
                        "shown");
    }

    private DocumentId about(Payment p) {
        return p.invoiceId() != null
                ? p.invoiceId()
                : debts.settledBy(p.id()).stream()
                        .map(part -> part.debt().document())
                        .findFirst()
                        .orElse(null);
    }

    private MoneyLetters.Arrived arrived(Payment p) {
        List<Appropriation.Part> settled = debts.settledBy(p.id());
        var credit = settled.stream()
                .map(Appropriation.Part::amount)
                .reduce(p.amount().money(), org.joda.money.Money::minus);
        return new MoneyLetters.Arrived(p.id(), p.amount().money(), p.words(), p.valueOn(), settled, credit, onTop(p));
    }
}
