package quill.server.dispatch;

import java.util.List;
import java.util.stream.Stream;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.document.CreditorReference;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.WayToPay;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.ways.WaysService;

/** The ways in which a client can pay a sum now, as letters and pages name them. */
@Service
public class WaysToPay {
    private final WaysService ways;
    private final BankAccounts accounts;
    private final ReceiptSettings receipts;

    WaysToPay(WaysService ways, BankAccounts accounts, ReceiptSettings receipts) {
        this.receipts = receipts;
        this.ways = ways;
        this.accounts = accounts;
    }

    /**
     * The ways.
     *
     * @param offered those that there are, in the order in which they are named
     * @param iban of the business's account, in groups of four; empty where it is not to be paid into
     * @param bic of its bank, or empty
     * @param tried those that are taken on trial, which no letter speaks of
     * @param hold whether a card's money is only held on the page
     */
    public record Ways(List<WayToPay> offered, String iban, String bic, List<WayToPay> tried, boolean hold) {
        /** Those of nothing. */
        public static final Ways NONE = new Ways(List.of(), "", "", List.of(), false);

        /** Whether any is taken on trial. */
        public boolean test() {
            return !tried.isEmpty();
        }

        /** How it is paid on its page, on trial too: by card or bank debit; empty for not there. */
        public String byPage() {
            return WayToPay.onPage(all());
        }

        /** The wallets that show on that page where a device has them. */
        public List<String> wallets() {
            return WayToPay.wallets(all());
        }

        private List<WayToPay> all() {
            return Stream.concat(offered.stream(), tried.stream()).toList();
        }

        /** Whether a bank debit is one of them, on trial too. */
        public boolean debit() {
            return offered.contains(WayToPay.BANK_DEBIT) || tried.contains(WayToPay.BANK_DEBIT);
        }

        /** Whether there is any. */
        public boolean any() {
            return !offered.isEmpty();
        }

        /** Whether it can be paid by card. */
        public boolean card() {
            return offered.contains(WayToPay.CARD);
        }

        /** Whether it can be paid on its page, by card or by bank debit. */
        public boolean online() {
            return offered.stream().anyMatch(WayToPay::isOnline);
        }

        /** Whether it can be transferred. */
        public boolean transfer() {
            return offered.contains(WayToPay.TRANSFER);
        }

        /** Neither by card nor by transfer, in a sentence: you can also pay … */
        public List<String> otherwise() {
            return offered.stream()
                    .filter(w -> w == WayToPay.CASH || w == WayToPay.CHEQUE)
                    .map(WayToPay::how)
                    .toList();
        }

        /** In a sentence: you can pay … */
        public List<String> how() {
            return offered.stream()
                    .filter(w -> !w.isWallet() || !card())
                    .map(w -> hold && w.isOnline()
                            ? "by having it held on a card, on its page, until the work is done"
                            : w.how())
                    .distinct()
                    .toList();
        }
    }

    /** Whether whoever pays is sent a receipt. */
    public boolean areReceipted() {
        return receipts.areSent();
    }

    /** As they are now for a sum. @param documentId null where it is about none */
    public Ways of(Money sum, ClientId clientId, DocumentId documentId) {
        List<WaysService.WayOffer> offers = ways.offers(sum, clientId, documentId);
        boolean hold = ways.holds(documentId);
        // Of a bank account nothing can be held.
        List<WayToPay> offered = offers.stream()
                .filter(o -> o.offered() && !(hold && o.way() == WayToPay.BANK_DEBIT))
                .map(WaysService.WayOffer::way)
                .toList();
        Business own = accounts.business(sum.getCurrencyUnit());
        boolean transfer = offered.contains(WayToPay.TRANSFER);
        return new Ways(
                offered,
                transfer ? CreditorReference.grouped(own.account().iban()) : "",
                transfer ? own.account().bic() : "",
                offers.stream()
                        .filter(o -> o.test() && !(hold && o.way() == WayToPay.BANK_DEBIT))
                        .map(WaysService.WayOffer::way)
                        .toList(),
                hold);
    }
}
