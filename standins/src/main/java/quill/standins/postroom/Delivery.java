package quill.standins.postroom;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.InternetHeaders;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Properties;
import org.eclipse.angus.mail.dsn.DeliveryStatus;
import org.eclipse.angus.mail.dsn.MultipartReport;
import org.springframework.stereotype.Component;

/**
 * Puts letters into mailboxes. At an address that does not exist a letter is taken all the same, as a relay does, and a
 * report goes back to its sender (RFC 3464).
 */
@Component
class Delivery {
    private static final String POSTMASTER = "postmaster@post-room.example";
    private final Mailboxes mailboxes;
    private final ReadingServer reading;

    Delivery(Mailboxes mailboxes, ReadingServer reading) {
        this.mailboxes = mailboxes;
        this.reading = reading;
    }

    void deliver(String from, String recipient, byte[] letter) throws IOException {
        reading.open(from);
        if (!mailboxes.isGone(recipient)) {
            keep(recipient, letter);
            return;
        }
        try {
            keep(from, report(from, recipient, letter));
        } catch (MessagingException e) {
            throw new IOException(e);
        }
    }

    private void keep(String recipient, byte[] letter) throws IOException {
        mailboxes.keep(recipient, letter);
        reading.deliver(recipient, letter);
    }

    private static byte[] report(String from, String recipient, byte[] letter) throws MessagingException, IOException {
        Session session = Session.getInstance(new Properties());
        MimeMessage sent = new MimeMessage(session, new ByteArrayInputStream(letter));
        InternetHeaders one = new InternetHeaders();
        one.addHeader("Final-Recipient", "rfc822; " + recipient);
        one.addHeader("Action", "failed");
        one.addHeader("Status", "5.1.1");
        one.addHeader("Diagnostic-Code", "smtp; 550 5.1.1 There is no such mailbox");
        InternetHeaders whole = new InternetHeaders();
        whole.addHeader("Reporting-MTA", "dns; post-room.example");
        DeliveryStatus status = new DeliveryStatus();
        status.setMessageDSN(whole);
        status.addRecipientDSN(one);
        MimeMessage report = new MimeMessage(session);
        report.setFrom(new InternetAddress(POSTMASTER));
        report.setRecipient(MimeMessage.RecipientType.TO, new InternetAddress(from));
        report.setSubject("A letter could not be delivered: " + sent.getSubject(), "UTF-8");
        report.setContent(new MultipartReport(
                "There is no mailbox " + recipient + " here. The letter is given back to you.", status, sent));
        report.saveChanges();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        report.writeTo(bytes);
        return bytes.toByteArray();
    }
}
