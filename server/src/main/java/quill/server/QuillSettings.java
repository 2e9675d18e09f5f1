package quill.server;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;

/** Settings under {@code quill.}, explained in quill.properties. */
@ConfigurationProperties("quill")
public record QuillSettings(
        Path data,
        String publicUrl,
        boolean demo,
        Processor processor,
        String standInsUrl,
        DataSize leastFree,
        int callBackSeconds,
        List<String> proxies,
        Texts texts,
        Mailbox mailbox) {
    /** The gateway for text messages; no address, no text messages. @param price of one part, in the business's currency */
    public record Texts(String url, String apiKey, BigDecimal price) {
        /** Whether text messages can be sent at all. */
        public boolean isSet() {
            return url != null && !url.isBlank();
        }
    }

    /** The mailbox where mail that could not be delivered comes back (IMAP); no host, none is read. */
    public record Mailbox(String host, int port, boolean tls, String user, String passphrase) {
        /** Whether there is one. */
        public boolean isSet() {
            return host != null && !host.isBlank();
        }
    }

    /** The card processor's address and secrets; no address, no cards. */
    public record Processor(String url, String apiKey, String webhookSecret) {
        /** Whether cards can be offered at all. */
        public boolean isSet() {
            return url != null && !url.isBlank();
        }
    }
}
