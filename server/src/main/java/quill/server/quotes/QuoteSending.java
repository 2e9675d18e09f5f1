package quill.server.quotes;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.server.clients.Client;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.dispatch.QuoteLetters;
import quill.server.dispatch.Slip;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;

/** Issues and sends quotes: both happen or neither. */
@Service
public class QuoteSending {
    private final QuotesService quotes;
    private final QuoteLetters letters;

    QuoteSending(QuotesService quotes, QuoteLetters letters) {
        this.quotes = quotes;
        this.letters = letters;
    }

    Client.Recipient recipient(Document quote) {
        return letters.recipient(quote);
    }

    /** Issues it where it is a draft, and sends it. @return the letter's key */
    @Transactional
    public String send(DocumentId id, int version, String key, Slip slip) {
        Document quote = quotes.quote(id);
        Document issued = quote.isDraft() ? quotes.issue(id, version) : canBeSent(id);
        return letters.send(issued, quotes.validUntil(issued), key, slip);
    }

    /** Sends an issued quote once more. @param key the caller's own, so that a repeated request sends once */
    @Transactional
    public void again(DocumentId id, String key, Slip slip) {
        Texts.key(key, "sending");
        Document quote = canBeSent(id);
        letters.send(quote, quotes.validUntil(quote), key, slip);
    }

    private Document canBeSent(DocumentId id) {
        Document quote = quotes.lock(id);
        if (quote.state() != DocumentState.OPEN && quote.state() != DocumentState.ACCEPTED) {
            throw new ConflictException("Only a quote that is open or accepted can be sent.");
        }
        return quote;
    }
}
