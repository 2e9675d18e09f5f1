package quill.server.dispatch;

import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.UIDFolder;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Optional;
import java.util.Properties;
import java.util.function.BooleanSupplier;
import org.eclipse.angus.mail.imap.IMAPMessage;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;

/**
 * Looks into the mailbox of the business for letters that came back (IMAP, RFC 3501). It only reads: nothing is marked,
 * moved or deleted there, and what is no report of a failed delivery is not opened.
 */
@Component
public class ReturnedMail {
    private static final Logger LOG = LoggerFactory.getLogger(ReturnedMail.class);
    private static final int LARGEST = 4_000_000;
    private static final int MOST = 200;
    private final QuillSettings.Mailbox mailbox;
    private final Bounces bounces;

    ReturnedMail(QuillSettings settings, Bounces bounces) {
        this.mailbox = settings.mailbox();
        this.bounces = bounces;
    }

    /** Reads what has come since it was read last. A mailbox that does not answer is asked again the next time. */
    public synchronized void read(BooleanSupplier stop) {
        if (!mailbox.isSet()) {
            return;
        }
        String protocol = mailbox.tls() ? "imaps" : "imap";
        Properties properties = new Properties();
        properties.put("mail." + protocol + ".connectiontimeout", "5000");
        properties.put("mail." + protocol + ".timeout", "10000");
        try (Store store = Session.getInstance(properties).getStore(protocol)) {
            store.connect(mailbox.host(), mailbox.port(), mailbox.user(), mailbox.passphrase());
            try (Folder inbox = store.getFolder("INBOX")) {
                inbox.open(Folder.READ_ONLY);
                read(inbox, stop);
            }
        } catch (MessagingException e) {
            LOG.warn("the mailbox for returned mail cannot be read: {}", e.getMessage());
        }
    }

    private void read(Folder inbox, BooleanSupplier stop) throws MessagingException {
        UIDFolder numbers = (UIDFolder) inbox;
        long validity = numbers.getUIDValidity();
        long last = bounces.readUpTo(validity);
        int read = 0;
        // Where nothing is newer the last one is answered all the same (RFC 3501, 6.4.8).
        for (Message mail : numbers.getMessagesByUID(last + 1, UIDFolder.LASTUID)) {
            long uid = numbers.getUID(mail);
            if (uid <= last) {
                continue;
            }
            if (stop.getAsBoolean() || ++read > MOST || !take(mail)) {
                return;
            }
            bounces.keepReadUpTo(validity, uid);
        }
    }

    /** @return whether it is dealt with; false for one whose letter is only just leaving */
    private boolean take(Message mail) throws MessagingException {
        if (!mail.isMimeType("multipart/report") || mail.getSize() > LARGEST) {
            return true;
        }
        Optional<DeliveryReport> report;
        try {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            ((IMAPMessage) mail).setPeek(true); // It stays unread there.
            mail.writeTo(bytes);
            report = DeliveryReport.of(new MimeMessage(
                    Session.getInstance(new Properties()), new ByteArrayInputStream(bytes.toByteArray())));
        } catch (IOException | MessagingException e) {
            LOG.warn("a report of returned mail cannot be read: {}", e.getMessage());
            return true;
        }
        return report.isEmpty() || Happenings.byItself(() -> bounces.note(report.get()));
    }
}
