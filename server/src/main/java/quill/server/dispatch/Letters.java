package quill.server.dispatch;

import java.net.IDN;
import java.util.List;
import java.util.UUID;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.letter.LetterKind;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.creditnotes.CreditNote;
import quill.server.debts.AgreedTerms;
import quill.server.documents.Document;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** Writes what clients are sent about an invoice, from the figures of the books and as the business words it. */
@Component
class Letters {
    private final LetterWriting writing;
    private final DocumentFacts facts;
    private final BusinessService business;

    Letters(LetterWriting writing, DocumentFacts facts, BusinessService business) {
        this.writing = writing;
        this.facts = facts;
        this.business = business;
    }

    /** A new Message-ID (RFC 5322, 3.6.4), in the domain that the business sends from. */
    String newMessageId() {
        String from = business.business().email();
        return "<" + UUID.randomUUID() + "@" + IDN.toASCII(from.substring(from.lastIndexOf('@') + 1)) + ">";
    }

    /** @param slip what the person who sends it changes, this once */
    Written invoice(Document invoice, Slip slip) {
        return invoice(invoice, slip.isText(), slip.once());
    }

    /** The same as it is today. @param text whether it goes to a telephone */
    Written invoice(Document invoice, boolean text, LetterWriting.ThisOnce once) {
        LetterKind kind = text ? LetterKind.INVOICE.asText() : LetterKind.INVOICE;
        return writing.write(kind, false, facts.invoice(invoice), once);
    }

    /** Says that installments are agreed anew. @param change what is, in a sentence */
    Written arranged(Document invoice, String change, List<AgreedTerms.Earlier> before, LetterWriting.ThisOnce once) {
        return writing.write(LetterKind.ARRANGED, false, facts.arranged(invoice, change, before), once);
    }

    Written creditNote(Document invoice, CreditNote note, DocumentFacts.Became became) {
        return writing.write(
                LetterKind.CREDIT_NOTE, false, facts.creditNote(invoice, note, became), LetterWriting.ThisOnce.NOTHING);
    }

    /** Says that money arrived, and what for. @param invoice whose page the letter leads to */
    Written receipt(Document invoice, Client.Recipient payer, MoneyLetters.Arrived arrived) {
        return writing.write(
                LetterKind.RECEIPT,
                payer.payer(),
                facts.receipt(invoice, payer.name(), arrived),
                LetterWriting.ThisOnce.NOTHING);
    }

    /** Takes a receipt back that was sent by mistake, and says what is open. */
    Written correction(Document invoice, Client.Recipient payer, Money amount) {
        return writing.write(
                LetterKind.CORRECTION,
                payer.payer(),
                facts.correction(invoice, payer.name(), amount),
                LetterWriting.ThisOnce.NOTHING);
    }

    /** Says that a payment did not come through, why, and what is open. */
    Written cameBack(Document invoice, Client.Recipient payer, Money amount, String why) {
        return writing.write(
                LetterKind.CAME_BACK,
                payer.payer(),
                facts.cameBack(invoice, payer.name(), amount, why),
                LetterWriting.ThisOnce.NOTHING);
    }
}
