package quill.server.dispatch;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedWord;
import quill.server.audit.Happenings;
import quill.server.common.ConflictException;
import quill.server.common.ReadOnce;
import quill.server.common.StoredWord;

/** What whoever paid is sent: table RECEIPT_SETTING. */
@Service
public class ReceiptSettings {
    private final JdbcClient jdbc;
    private final Happenings happenings;

    ReceiptSettings(JdbcClient jdbc, Happenings happenings) {
        this.jdbc = jdbc;
        this.happenings = happenings;
    }

    /** As chosen. @param version 0 before it was first kept */
    public record ReceiptSetting(String gets, int version) {}

    /** As it is now; a receipt until something else is chosen. */
    public ReceiptSetting setting() {
        return ReadOnce.of("receipt_setting", "all", this::read)
                .orElseGet(() -> new ReceiptSetting(PayerGets.RECEIPT.name(), 0));
    }

    private Optional<ReceiptSetting> read() {
        return jdbc.sql("SELECT gets, version FROM receipt_setting WHERE id = 1")
                .query((rs, n) -> new ReceiptSetting(
                        StoredWord.of(PayerGets.class, rs.getString("gets")).name(), rs.getInt("version")))
                .optional();
    }

    /** What whoever pays now is sent. */
    public PayerGets gets() {
        return PayerGets.valueOf(setting().gets());
    }

    /** Whether whoever pays an invoice is sent anything. */
    public boolean areSent() {
        return gets() != PayerGets.NOTHING;
    }

    /**
     * Chooses what payers are sent from now on.
     *
     * @throws RefusedException naming {@code gets}
     * @throws ConflictException if another window changed it first
     */
    @Transactional
    public ReceiptSetting change(ReceiptSetting to) {
        List<Problem> problems = new ArrayList<>();
        PayerGets gets = TypedWord.read("gets", to.gets(), PayerGets.class, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (!keep(gets, to.version())) {
            throw new ConflictException("What payers get was changed in another window. Look at it again.");
        }
        happenings.tell(null, null, "What whoever paid is sent: " + words(gets));
        return setting();
    }

    private boolean keep(PayerGets gets, int version) {
        try {
            return version == 0
                    ? jdbc.sql("INSERT INTO receipt_setting (id, gets) VALUES (1, :gets)")
                                    .param("gets", gets.word())
                                    .update()
                            == 1
                    : jdbc.sql("""
                            UPDATE receipt_setting SET gets = :gets, version = version + 1
                             WHERE id = 1 AND version = :version
                            """)
                                    .param("gets", gets.word())
                                    .param("version", version)
                                    .update()
                            == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    private static String words(PayerGets gets) {
        return switch (gets) {
            case RECEIPT -> "a receipt";
            case MARKED_INVOICE -> "the invoice, marked paid";
            case NOTHING -> "nothing";
        };
    }
}
