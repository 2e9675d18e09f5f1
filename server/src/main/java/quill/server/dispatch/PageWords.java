package quill.server.dispatch;

import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.letter.LetterKind;
import quill.server.documents.Document;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;

/** What a client's page says to somebody who has paid, or has not, as the business words it. */
@Component
public class PageWords {
    private final DocumentFacts facts;
    private final LetterWriting writing;

    PageWords(DocumentFacts facts, LetterWriting writing) {
        this.facts = facts;
        this.writing = writing;
    }

    /** Something came. */
    public String paid(Document invoice, Money paid) {
        return said(LetterKind.PAGE_PAID, facts.onPage(invoice, paid, ""));
    }

    /** Nobody knows yet whether anything came. */
    public String waiting(Document invoice) {
        return said(LetterKind.PAGE_WAITING, facts.onPage(invoice, null, ""));
    }

    /** Nothing came. @param declined why the card was declined; empty where it was not */
    public String givenUp(Document invoice, String declined) {
        return said(LetterKind.PAGE_GIVEN_UP, facts.onPage(invoice, null, declined));
    }

    private String said(LetterKind kind, LetterFacts about) {
        return writing.filled(kind, false, about, LetterWriting.ThisOnce.NOTHING)
                .text();
    }
}
