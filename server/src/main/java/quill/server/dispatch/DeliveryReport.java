package quill.server.dispatch;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.InternetHeaders;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.eclipse.angus.mail.dsn.DeliveryStatus;
import org.eclipse.angus.mail.dsn.MultipartReport;
import quill.server.common.Texts;

/**
 * What a mail server reports of a letter that it could not deliver (RFC 3464).
 *
 * @param id of the report itself
 * @param about the Message-ID of the letter that came back
 * @param failed the addresses that it could not be delivered to for good; what is only late is not among them
 */
record DeliveryReport(String id, String about, List<Failed> failed) {
    private static final int LONGEST_ID = 300;

    /** An address, and why. */
    record Failed(String address, String why) {}

    /** Reads a mail; empty for one that is no such report, or says of no letter that it is about. */
    static Optional<DeliveryReport> of(MimeMessage mail) throws MessagingException, IOException {
        if (!mail.isMimeType("multipart/report")
                || !(mail.getContent() instanceof MultipartReport parts)
                || !(parts.getReport() instanceof DeliveryStatus status)) {
            return Optional.empty();
        }
        MimeMessage returned = parts.getReturnedMessage();
        if (returned == null || returned.getMessageID() == null || mail.getMessageID() == null) {
            return Optional.empty();
        }
        List<Failed> failed = new ArrayList<>();
        for (int i = 0; i < status.getRecipientDSNCount(); i++) {
            InternetHeaders one = status.getRecipientDSN(i);
            if ("failed".equalsIgnoreCase(first(one, "Action"))) {
                String why = value(first(one, "Diagnostic-Code"));
                failed.add(
                        new Failed(value(first(one, "Final-Recipient")), why.isEmpty() ? first(one, "Status") : why));
            }
        }
        return Optional.of(new DeliveryReport(
                Texts.fit(mail.getMessageID().strip(), LONGEST_ID),
                returned.getMessageID().strip(),
                failed));
    }

    private static String first(InternetHeaders headers, String name) {
        String[] all = headers.getHeader(name);
        return all == null || all.length == 0 ? "" : all[0].strip();
    }

    /** What stands after the type, as in {@code rfc822; somebody@clients.example}. */
    private static String value(String typed) {
        return typed.substring(typed.indexOf(';') + 1).strip().replaceAll("\\s+", " ");
    }
}
