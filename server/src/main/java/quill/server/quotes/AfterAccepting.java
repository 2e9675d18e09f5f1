package quill.server.quotes;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.schedule.Installment;
import quill.server.dispatch.QuoteLetters;
import quill.server.documents.Document;
import quill.server.letters.Phrases;
import quill.server.requests.Requests;

/** What follows when a quote is accepted: its deposit is asked for, its record goes to the client, the business is told. */
@Component
class AfterAccepting {
    private final Requests requests;
    private final QuoteLetters letters;
    private final QuoteNews news;
    private final Phrases phrases;

    AfterAccepting(Requests requests, QuoteLetters letters, QuoteNews news, Phrases phrases) {
        this.requests = requests;
        this.letters = letters;
        this.news = news;
        this.phrases = phrases;
    }

    /** All of it, once, in the transaction that accepts. @param by who did */
    @Transactional(propagation = Propagation.MANDATORY)
    void accepted(Document quote, QuoteChoosing.Chosen chosen, String by, boolean byHand) {
        LocalDate until = chosen.terms().validUntil();
        Installment first =
                chosen.schedule().isEmpty() ? null : chosen.schedule().get(0);
        Requests.Asked deposit = first != null && first.deposit()
                ? requests.ask("accepted-" + quote.id(), quote, first.amount(), "")
                : null;
        news.accepted(quote, by, byHand, chosen.document());
        Map<String, Object> about = new HashMap<>();
        about.put("deposit", deposit == null ? null : deposit.amount());
        about.put("whole", deposit != null && chosen.schedule().size() == 1);
        letters.accepted(
                quote,
                until,
                by,
                deposit == null ? null : phrases.say("accepted-next", about),
                deposit == null ? null : deposit.amount());
    }
}
