package quill.standins.postroom;

import com.icegreen.greenmail.configuration.GreenMailConfiguration;
import com.icegreen.greenmail.user.GreenMailUser;
import com.icegreen.greenmail.user.UserException;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Properties;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import quill.standins.StandinsSettings;

/** Where whoever sends letters reads the mailbox of its own address (IMAP), on loopback, with any passphrase. */
@Component
class ReadingServer implements SmartLifecycle {
    private static final int NEWEST = 200;
    private final Mailboxes mailboxes;
    private final GreenMail server;
    private volatile boolean running;

    ReadingServer(StandinsSettings settings, Mailboxes mailboxes) {
        this.mailboxes = mailboxes;
        this.server = new GreenMail(new ServerSetup(settings.imapPort(), "127.0.0.1", ServerSetup.PROTOCOL_IMAP))
                .withConfiguration(GreenMailConfiguration.aConfig().withDisabledAuthentication());
    }

    /** Opens the mailbox of a sender, with the newest of what it holds. */
    synchronized void open(String address) throws IOException {
        if (mailboxes.isSender(address) && user(address) != null) {
            return;
        }
        mailboxes.noteSender(address);
        for (byte[] letter : mailboxes.newest(address, NEWEST)) {
            put(address, letter);
        }
        make(address);
    }

    /** Puts a letter into a mailbox that is open; any other is read on the post room's page only. */
    synchronized void deliver(String address, byte[] letter) throws IOException {
        if (user(address) != null) {
            put(address, letter);
        }
    }

    private GreenMailUser user(String address) {
        return server.getUserManager().getUserByEmail(address);
    }

    private GreenMailUser make(String address) throws IOException {
        try {
            GreenMailUser known = user(address);
            return known == null ? server.getUserManager().createUser(address, address, "") : known;
        } catch (UserException e) {
            throw new IOException(e);
        }
    }

    private void put(String address, byte[] letter) throws IOException {
        try {
            make(address)
                    .deliver(new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(letter)));
        } catch (MessagingException e) {
            throw new IOException(e);
        }
    }

    @Override
    public void start() {
        server.start();
        running = true;
        try {
            for (String sender : mailboxes.senders()) {
                open(sender);
            }
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Override
    public void stop() {
        server.stop();
        running = false;
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
