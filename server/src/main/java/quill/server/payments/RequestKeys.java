package quill.server.payments;

import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.common.ConflictException;
import quill.server.common.Hashes;

/** Table REQUEST_KEY: each request that moves money, by the key of whoever sent it, once. */
@Repository
class RequestKeys {
    private final JdbcClient jdbc;

    RequestKeys(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    private record Seen(String hash, Long paymentId) {}

    /**
     * Takes a key, before any other lock: a second request of the same key waits here until the first has ended.
     *
     * @param body what is asked for, as it was sent
     * @return the payment that the first request of this key made; empty for the first
     * @throws ConflictException if this key was used for something else
     */
    Optional<Long> take(String key, Object body) {
        String hash = Hashes.of(body.toString());
        try {
            jdbc.sql("INSERT INTO request_key (request_key, body_hash) VALUES (:key, :hash)")
                    .param("key", key)
                    .param("hash", hash)
                    .update();
            return Optional.empty();
        } catch (DuplicateKeyException e) {
            Seen before = jdbc.sql("SELECT body_hash, movement_id FROM request_key WHERE request_key = :key")
                    .param("key", key)
                    .query((rs, n) -> new Seen(rs.getString(1), rs.getObject(2, Long.class)))
                    .single();
            if (!before.hash().equals(hash)) {
                throw new ConflictException(
                        "This request's key was used for another payment. Nothing was recorded; use a new key.");
            }
            return Optional.of(before.paymentId());
        }
    }

    void made(String key, long paymentId) {
        jdbc.sql("UPDATE request_key SET movement_id = :payment WHERE request_key = :key")
                .param("payment", paymentId)
                .param("key", key)
                .update();
    }
}
