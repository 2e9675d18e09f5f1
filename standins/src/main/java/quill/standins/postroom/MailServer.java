package quill.standins.postroom;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.UnknownHostException;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.subethamail.smtp.server.SMTPServer;
import quill.standins.StandinsSettings;

/** A real SMTP server on loopback. It says "accepted" only after the letter is on disk. */
@Component
class MailServer implements SmartLifecycle {
    private final SMTPServer server;

    MailServer(StandinsSettings settings, Delivery delivery) throws UnknownHostException {
        this.server = SMTPServer.port(settings.smtpPort())
                .bindAddress(InetAddress.getByName("127.0.0.1"))
                .simpleMessageListener(new org.subethamail.smtp.helper.SimpleMessageListener() {
                    @Override
                    public boolean accept(String from, String recipient) {
                        return recipient.endsWith(".example");
                    }

                    @Override
                    public void deliver(String from, String recipient, InputStream data) throws IOException {
                        delivery.deliver(from, recipient, data.readAllBytes());
                    }
                })
                .build();
    }

    @Override
    public void start() {
        server.start();
    }

    @Override
    public void stop() {
        server.stop();
    }

    @Override
    public boolean isRunning() {
        return server.isRunning();
    }
}
