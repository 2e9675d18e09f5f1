package quill.server;

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
        List<String> proxies) {
    /** The card processor's address and secrets; no address, no cards. */
    public record Processor(String url, String apiKey, String webhookSecret) {
        /** Whether cards can be offered at all. */
        public boolean isSet() {
            return url != null && !url.isBlank();
        }
    }
}
