package quill.standins;

import java.nio.file.Path;
import org.springframework.boot.context.properties.ConfigurationProperties;

/** Settings under {@code standins.}, explained in standins.properties. */
@ConfigurationProperties("standins")
public record StandinsSettings(
        Path data,
        int smtpPort,
        int imapPort,
        String apiKey,
        String webhookSecret,
        String webhookUrl,
        String publicUrl) {}
