package quill.server.asking;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.common.TypedMark;
import quill.server.dispatch.DepositFacts;
import quill.server.dispatch.DepositLetters;
import quill.server.dispatch.Slip;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.requests.Requests;

/** Asks for money before it falls due: a deposit on an accepted quote, a part of an open invoice. */
@Service
class AskingService {
    private static final int MOST_WORDS = 200;

    private final Requests requests;
    private final Documents documents;
    private final DepositLetters letters;
    private final ClientsService clients;
    private final Happenings happenings;

    AskingService(
            Requests requests,
            Documents documents,
            DepositLetters letters,
            ClientsService clients,
            Happenings happenings) {
        this.requests = requests;
        this.documents = documents;
        this.letters = letters;
        this.clients = clients;
        this.happenings = happenings;
    }

    /**
     * What is to be asked for, as typed.
     *
     * @param key of whoever asks: the same twice is one request
     * @param amount a sum, or a percentage of the document's total
     * @param words what for; may be empty
     * @param lines whether the letter shows the document's lines
     */
    record ToAsk(String key, String amount, String words, boolean lines) {}

    /** Whom the letter goes to. */
    DepositLetters letters() {
        return letters;
    }

    /** A quote or an invoice. @throws NotFoundException for anything else */
    Document document(DocumentId id) {
        return documents
                .find(id)
                .filter(d -> d.kind() == DocumentKind.QUOTE || d.kind().asksForMoney())
                .orElseThrow(() -> new NotFoundException("There is no quote or invoice " + id + "."));
    }

    /** What was asked for on a document, oldest first. */
    @Transactional(readOnly = true)
    List<Requests.Asked> of(DocumentId id) {
        return requests.of(document(id));
    }

    /**
     * Asks, and tells the client.
     *
     * @return the letter's key; null where none goes
     * @throws RefusedException naming {@code amount}, {@code words} or {@code key}
     */
    @Transactional
    String ask(DocumentId id, ToAsk wanted, Slip slip) {
        List<Problem> problems = new ArrayList<>();
        Texts.key(wanted.key(), "request", problems);
        String words = Texts.text("words", wanted.words(), MOST_WORDS, false, problems);
        Document found = document(id);
        Money amount = amount(found, wanted.amount(), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        clients.lock(found.clientId());
        Document document = document(id);
        if (requests.isAsked(wanted.key(), document, amount, words)) {
            return null;
        }
        Requests.Asked asked = requests.ask(wanted.key(), document, amount, words);
        happenings.tell(
                id,
                document.clientId(),
                "Asked for " + Amounts.grouped(amount) + ": " + DepositFacts.whatFor(document, words));
        return letters.ask(document, asked.id(), new DepositFacts.Asking(asked.amount(), words, wanted.lines()), slip);
    }

    private static Money amount(Document document, String typed, List<Problem> problems) {
        if (document.isDraft()) {
            problems.add(new Problem("amount", typed, "a draft asks for nothing; issue it first"));
            return null;
        }
        CurrencyUnit currency = CurrencyUnit.of(document.currency());
        String text = typed == null ? "" : TypedMark.plain(typed.strip());
        if (text.isEmpty()) {
            problems.add(new Problem("amount", "", "write a sum, or a percentage such as 50%"));
            return null;
        }
        return TypedNumber.<Money>percentOrAmount(
                "amount", text, currency, problems, (Percent p) -> p.of(document.total()), (Money m) -> m);
    }

    /** It is asked for no more; a letter that still waits does not go. */
    @Transactional
    void withdraw(long requestId) {
        Document document = document(requests.find(requestId).documentId());
        clients.lock(document.clientId());
        requests.withdraw(document, requestId);
        letters.withdrawn(requestId);
        happenings.tell(document.id(), document.clientId(), "A request for money was withdrawn");
    }
}
