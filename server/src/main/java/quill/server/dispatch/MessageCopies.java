package quill.server.dispatch;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Table MESSAGE: further addresses of letters that wait. Holds no rules; the caller opens the transaction. */
@Repository
class MessageCopies {
    private final JdbcClient jdbc;

    MessageCopies(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One that waits goes to another address as well, unless it goes there already. */
    void copyTo(String whatKey, String email) {
        jdbc.sql("""
                UPDATE message SET copies_to = CASE copies_to WHEN '' THEN :email ELSE copies_to || ' ' || :email END
                 WHERE what_key = :key AND state = 'waiting' AND LOWER(to_address) <> LOWER(:email)
                   AND LENGTH(copies_to) < 800
                """).param("key", whatKey).param("email", email).update();
    }
}
