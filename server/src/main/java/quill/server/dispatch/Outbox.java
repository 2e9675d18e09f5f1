package quill.server.dispatch;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Transport;
import jakarta.mail.internet.MimeMessage;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.TooOftenException;
import quill.server.dispatch.MessageRepository.Outgoing;

/**
 * Sends what waits. A letter is marked as being sent before its first byte leaves and as sent after the mail server's
 * last answer. A clear refusal is tried again (4xx) or given up (5xx); where no answer came the letter is uncertain, and
 * only a person sends it again, since mail cannot be asked whether it arrived.
 */
@Component
public class Outbox {
    private static final Logger LOG = LoggerFactory.getLogger(Outbox.class);
    private static final int MOST_TRIES = 12;
    private static final int PERMANENT = 500;

    private final MessageRepository repository;
    private final JavaMailSenderImpl mail;
    private final MailWriting writing;
    private final ReminderGuard guard;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    Outbox(
            MessageRepository repository,
            JavaMailSenderImpl mail,
            MailWriting writing,
            ReminderGuard guard,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.mail = mail;
        this.writing = writing;
        this.guard = guard;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    @Order(0)
    void start() {
        markInterrupted("the application stopped before the answer came");
    }

    private void markInterrupted(String why) {
        int uncertain = repository.interruptedAreUncertain(why);
        if (uncertain > 0) {
            LOG.warn("{} message(s) were on their way, and {}; see Needs you", uncertain, why);
            changes.say(null, null);
        }
    }

    /** Sends all that is due, one after the other. */
    public void sendDue() {
        sendDue(() -> false);
    }

    /**
     * Sends what is due, one after the other, until it is told to leave the rest. What is marked as being sent when it
     * begins is nobody's any more: its letter may have left while its mark could not be written.
     */
    public synchronized void sendDue(BooleanSupplier stop) {
        markInterrupted("the answer could not be noted");
        for (Outgoing outgoing : repository.due()) {
            if (stop.getAsBoolean()) {
                return;
            }
            try {
                send(outgoing);
            } catch (RuntimeException e) {
                LOG.error("message {} could not be written", outgoing.id(), e);
                boolean passes = e instanceof TooOftenException;
                String why = "It could not be put together; the log of the application says why.";
                repository.move(
                        outgoing.id(),
                        MessageState.WAITING,
                        passes ? MessageState.WAITING : MessageState.FAILED,
                        why,
                        null,
                        passes ? 30 : 0);
            }
        }
    }

    private void send(Outgoing outgoing) {
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
            tryAgain(outgoing, MessageState.WAITING, "The mail server does not answer: " + e.getMessage());
        }
    }

    private void hand(Transport transport, MimeMessage message, Outgoing outgoing) {
        try {
            transport.sendMessage(message, message.getAllRecipients());
            LocalDate today = clock.today();
            repository.move(outgoing.id(), MessageState.SENDING, MessageState.SENT, null, today, 0);
            Happenings.as(
                    outgoing.madeBy(),
                    () -> happenings.note(
                            outgoing.documentId(),
                            outgoing.clientId(),
                            "Sent to " + outgoing.addresses().words() + ": "
                                    + outgoing.written().subject(),
                            Happenings.About.letter(outgoing.id())));
        } catch (MessagingException e) {
            int code = refusalCode(e);
            if (code >= PERMANENT) {
                repository.move(
                        outgoing.id(),
                        MessageState.SENDING,
                        MessageState.FAILED,
                        "Refused: " + e.getMessage(),
                        null,
                        0);
            } else if (code > 0) {
                tryAgain(outgoing, MessageState.SENDING, "Put off: " + e.getMessage());
            } else {
                repository.move(
                        outgoing.id(),
                        MessageState.SENDING,
                        MessageState.UNCERTAIN,
                        "No answer came: " + e.getMessage(),
                        null,
                        0);
            }
        }
        changes.say(outgoing.documentId(), outgoing.clientId());
    }

    private void tryAgain(Outgoing outgoing, MessageState from, String why) {
        boolean tooOften = outgoing.tries() >= MOST_TRIES;
        int wait = Math.min(3600, 2 << Math.min(outgoing.tries(), 10));
        repository.move(outgoing.id(), from, tooOften ? MessageState.FAILED : MessageState.WAITING, why, null, wait);
        if (tooOften) {
            changes.say(outgoing.documentId(), null);
        }
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
