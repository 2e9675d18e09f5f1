package quill.server.business;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.CreditorReference;
import quill.core.money.TypedNumber;
import quill.server.common.ReadOnce;
import quill.server.common.Texts;

/** Accounts for transfers in other currencies, beside the business's usual one. Table BANK_ACCOUNT. */
@Service
public class BankAccounts {
    private final JdbcClient jdbc;
    private final BusinessService business;

    BankAccounts(JdbcClient jdbc, BusinessService business) {
        this.jdbc = jdbc;
        this.business = business;
    }

    /** An account. @param currency ISO 4217 code of what is transferred to it */
    public record BankAccount(String currency, String iban, String bic) {}

    /** All of them, by currency. */
    public List<BankAccount> all() {
        return ReadOnce.of(
                "bank_account",
                "all",
                () -> jdbc.sql("SELECT currency, iban, bic FROM bank_account ORDER BY currency")
                        .query((rs, n) -> new BankAccount(rs.getString(1), rs.getString(2), rs.getString(3)))
                        .list());
    }

    /** The business, with the account to which a currency is transferred: its own one, else the usual. */
    public Business business(CurrencyUnit currency) {
        Business own = business.business();
        return all().stream()
                .filter(a -> a.currency().equals(currency.getCode()))
                .findFirst()
                .map(a -> own.paidInto(a.iban(), a.bic()))
                .orElse(own);
    }

    /** Reads one. @throws RefusedException naming each field, with what would be allowed */
    public BankAccount checked(BankAccount typed) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = TypedNumber.currency("currency", typed.currency(), problems);
        if (currency != null && currency.equals(business.business().currencyUnit())) {
            problems.add(new Problem("currency", typed.currency(), "the account above is for this one"));
        }
        String iban = Texts.name("iban", typed.iban(), 40, true, problems);
        if (!iban.isEmpty() && !CreditorReference.isValid(iban)) {
            problems.add(new Problem("iban", typed.iban(), "its check digits are wrong; look for a slip"));
        }
        String bic = Texts.name("bic", typed.bic(), 20, false, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new BankAccount(currency.getCode(), iban, bic);
    }

    /** Keeps one; another of its currency is replaced. Issued documents keep the account that they name. */
    @Transactional
    public void keep(BankAccount account) {
        BankAccount plain = checked(account);
        jdbc.sql("MERGE INTO bank_account (currency, iban, bic) KEY (currency) VALUES (:currency, :iban, :bic)")
                .param("currency", plain.currency())
                .param("iban", plain.iban())
                .param("bic", plain.bic())
                .update();
    }

    /** Keeps one no longer: its currency is transferred to the usual account from now on. */
    @Transactional
    public void remove(String currency) {
        jdbc.sql("DELETE FROM bank_account WHERE currency = :currency")
                .param("currency", currency)
                .update();
    }
}
