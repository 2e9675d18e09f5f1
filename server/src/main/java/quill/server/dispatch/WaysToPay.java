package quill.server.dispatch;

import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Component;
import quill.core.document.CreditorReference;
import quill.server.QuillSettings;
import quill.server.business.BankAccounts;
import quill.server.business.Business;

/** By which ways money can come in just now: what a client's page offers, and what a letter may name. */
@Component
public class WaysToPay {
    private final BankAccounts accounts;
    private final QuillSettings settings;

    WaysToPay(BankAccounts accounts, QuillSettings settings) {
        this.accounts = accounts;
        this.settings = settings;
    }

    /**
     * The ways.
     *
     * @param card whether a card processor is set
     * @param iban of the business's account, in groups of four; empty where it has none
     * @param bic of its bank, or empty
     */
    public record Ways(boolean card, String iban, String bic) {
        /** Whether there is any. */
        public boolean any() {
            return card || transfer();
        }

        /** Whether the business has a bank account. */
        public boolean transfer() {
            return !iban.isEmpty();
        }

        /** A sentence that names them; empty where there is none. */
        String sentence() {
            if (card) {
                return "You can pay by card on its page" + (transfer() ? ", or by bank transfer." : ".");
            }
            return transfer() ? "You can pay by bank transfer; account and reference are on its page." : "";
        }

        /** What the button to the page says. */
        String button() {
            return any() ? "See and pay" : "See the invoice";
        }
    }

    /** As they are set now, for what is owed in a currency. */
    public Ways of(CurrencyUnit currency) {
        Business own = accounts.business(currency);
        return new Ways(
                settings.processor().isSet(),
                CreditorReference.grouped(own.account().iban()),
                own.account().iban().isBlank() ? "" : own.account().bic());
    }
}
