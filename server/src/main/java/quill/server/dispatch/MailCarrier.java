package quill.server.dispatch;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Transport;
import jakarta.mail.internet.MimeMessage;
import java.util.ArrayList;
import java.util.List;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;
import quill.core.letter.Channel;
import quill.server.dispatch.MessageRepository.Outgoing;

/**
 * Hands letters to the mail server: sent after its last answer; tried again after a refusal that may pass (4xx), given up
 * after one for good (5xx), uncertain where no answer came.
 */
@Component
class MailCarrier implements Carrier {
    private static final Logger LOG = LoggerFactory.getLogger(MailCarrier.class);
    private static final int PERMANENT = 500;
    private final JavaMailSenderImpl mail;
    private final MailWriting writing;
    private final ReminderGuard guard;
    private final Outcomes outcomes;

    MailCarrier(JavaMailSenderImpl mail, MailWriting writing, ReminderGuard guard, Outcomes outcomes) {
        this.mail = mail;
        this.writing = writing;
        this.guard = guard;
        this.outcomes = outcomes;
    }

    @Override
    public Channel channel() {
        return Channel.MAIL;
    }

    @Override
    public void carry(Outgoing outgoing) {
        Session session = mail.getSession();
        List<MailWriting.Made> papers = new ArrayList<>();
        MimeMessage message = writing.compose(session, outgoing, papers);
        try (Transport transport = session.getTransport("smtp")) {
            connect(transport, outgoing);
            if (!transport.isConnected()) {
                return;
            }
            papers.forEach(p -> writing.keep(outgoing, p));
            if (!guard.mayLeave(outgoing)) {
                return;
            }
            hand(transport, message, outgoing);
        } catch (MessagingException e) {
            // Closing failed after the outcome was noted, or there is no transport of that name: nothing was sent.
            LOG.debug("transport of message {}", outgoing.id(), e);
        }
    }

    private void connect(Transport transport, Outgoing outgoing) {
        try {
            transport.connect(mail.getHost(), mail.getPort(), mail.getUsername(), mail.getPassword());
        } catch (MessagingException e) {
            LOG.warn("the mail server does not answer: {}", e.getMessage());
            outcomes.tryAgain(outgoing, MessageState.WAITING, "The mail server does not answer: " + e.getMessage());
        }
    }

    private void hand(Transport transport, MimeMessage message, Outgoing outgoing) {
        try {
            transport.sendMessage(message, message.getAllRecipients());
        } catch (MessagingException e) {
            int code = refusalCode(e);
            if (code >= PERMANENT) {
                outcomes.refused(outgoing, e.getMessage());
            } else if (code > 0) {
                outcomes.tryAgain(outgoing, MessageState.SENDING, "Put off: " + e.getMessage());
            } else {
                outcomes.unknown(outgoing, e.getMessage());
            }
            return;
        }
        outcomes.sent(outgoing);
    }

    /** The server's own code where it clearly said no; 0 where the connection ended without an answer. */
    private static int refusalCode(Throwable e) {
        for (Throwable t = e; t != null; t = next(t)) {
            if (t instanceof SMTPAddressFailedException a && a.getReturnCode() > 0) {
                return a.getReturnCode();
            }
            if (t instanceof SMTPSendFailedException s && s.getReturnCode() > 0) {
                return s.getReturnCode();
            }
        }
        return 0;
    }

    private static Throwable next(Throwable t) {
        return t instanceof MessagingException m && m.getNextException() != null ? m.getNextException() : t.getCause();
    }
}
