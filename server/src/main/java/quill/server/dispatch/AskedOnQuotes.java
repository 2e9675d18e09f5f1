package quill.server.dispatch;

import org.joda.money.Money;
import quill.server.documents.Document;

/** Knows what is asked for on quotes, for letters about money that came for one. */
public interface AskedOnQuotes {
    /** What is asked for and did not come; nothing unless the quote is accepted, and once its work is billed. */
    Money missing(Document quote);
}
