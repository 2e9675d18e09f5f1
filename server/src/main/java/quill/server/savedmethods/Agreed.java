package quill.server.savedmethods;

import java.sql.ResultSet;
import java.sql.SQLException;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.pay.CollectionAgreement;
import quill.server.common.StoredWord;

/** What a client said when it let a card or a bank account be kept. @param words as they were shown, or as they were spoken */
public record Agreed(How how, CollectionAgreement agreement, String words) {
    /** As a row has it, in the currency of its CURRENCY. @param most the column of the limit, which may be null */
    public static CollectionAgreement agreement(ResultSet rs, String collects, String most) throws SQLException {
        Long minor = rs.getObject(most, Long.class);
        return new CollectionAgreement(
                rs.getBoolean(collects),
                minor == null ? null : Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), minor));
    }

    /** How it was said. */
    public enum How implements StoredWord {
        /** Ticked on a page. */
        PAGE,
        /** In person or by telephone. */
        SPOKEN
    }
}
