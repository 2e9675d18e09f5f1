package quill.server.documents;

import static quill.server.documents.DocumentState.ACCEPTED;
import static quill.server.documents.DocumentState.DECLINED;
import static quill.server.documents.DocumentState.DRAFT;
import static quill.server.documents.DocumentState.ISSUED;
import static quill.server.documents.DocumentState.OPEN;
import static quill.server.documents.DocumentState.SETTLED;
import static quill.server.documents.DocumentState.VOID;

import java.util.EnumSet;
import java.util.Set;
import quill.server.common.Findable;
import quill.server.common.StoredWord;

/** What a document is. Where something differs by kind, it is switched over, so that the compiler names what a new kind misses. */
public enum DocumentKind implements StoredWord {
    /** It offers. */
    QUOTE,
    /** It asks for money. */
    INVOICE,
    /** It asks for, or says the receipt of, a deposit on a quote. */
    DEPOSIT_INVOICE,
    /** It takes back what an invoice asked for. */
    CREDIT_NOTE;

    /** What is printed as its name. */
    public String title() {
        return switch (this) {
            case QUOTE -> "Quote";
            case INVOICE -> "Invoice";
            case DEPOSIT_INVOICE -> "Deposit invoice";
            case CREDIT_NOTE -> "Credit note";
        };
    }

    /** The states that one of this kind can be in. */
    public Set<DocumentState> states() {
        return switch (this) {
            case QUOTE -> EnumSet.of(DRAFT, OPEN, ACCEPTED, DECLINED, VOID);
            case INVOICE, DEPOSIT_INVOICE -> EnumSet.of(DRAFT, OPEN, SETTLED, VOID);
            case CREDIT_NOTE -> EnumSet.of(DRAFT, ISSUED);
        };
    }

    /** In whose series its number stands: a deposit invoice is one of the invoices. */
    DocumentKind numberedAs() {
        return switch (this) {
            case INVOICE, DEPOSIT_INVOICE -> INVOICE;
            case QUOTE, CREDIT_NOTE -> this;
        };
    }

    /** As what it begins to count on its day of issue. */
    DocumentState whenIssued() {
        return switch (this) {
            case QUOTE, INVOICE, DEPOSIT_INVOICE -> OPEN;
            case CREDIT_NOTE -> ISSUED;
        };
    }

    /** Whether money is owed by it, so that it stands among what is late, due and settled. */
    public boolean asksForMoney() {
        return switch (this) {
            case INVOICE, DEPOSIT_INVOICE -> true;
            case QUOTE, CREDIT_NOTE -> false;
        };
    }

    /** Under what it is found by its words. */
    Findable findable() {
        return switch (this) {
            case INVOICE, DEPOSIT_INVOICE -> Findable.INVOICE;
            case QUOTE -> Findable.QUOTE;
            case CREDIT_NOTE -> Findable.CREDIT_NOTE;
        };
    }
}
