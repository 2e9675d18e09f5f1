package quill.standins.postroom;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import quill.standins.StandinsSettings;

/** Every letter that arrived, a file each, in a folder for each address. */
@Component
class Mailboxes {
    private static final String SENDERS = "senders.txt";
    private static final String GONE = "gone.txt";
    private final Path folder;
    private final AtomicLong last = new AtomicLong(System.currentTimeMillis());

    Mailboxes(StandinsSettings settings) {
        this.folder = settings.data().resolve("mail");
    }

    /** A letter opened: what a reader sees of it. */
    record Letter(
            String id,
            String address,
            String from,
            String subject,
            String sent,
            String messageId,
            String html,
            String text,
            List<Attachment> attachments) {}

    /** A file that came with a letter. */
    record Attachment(int place, String name, String type, byte[] bytes) {}

    /** Keeps a letter for an address; on disk before this returns, so that the sender's "accepted" is true. */
    void keep(String recipient, byte[] message) throws IOException {
        Path box = folder.resolve(safe(recipient));
        Files.createDirectories(box);
        String id = String.format("%015d", last.incrementAndGet());
        Path file = Files.write(box.resolve(id + ".part"), message);
        Files.move(file, box.resolve(id + ".eml"), StandardCopyOption.ATOMIC_MOVE);
    }

    /** The newest letters of an address as they came, the oldest of them first. */
    List<byte[]> newest(String address, int most) throws IOException {
        List<Path> files = files(folder.resolve(safe(address)));
        List<byte[]> letters = new ArrayList<>();
        for (int i = Math.min(most, files.size()) - 1; i >= 0; i--) {
            letters.add(Files.readAllBytes(files.get(i)));
        }
        return letters;
    }

    /** Who has sent letters, so that it can read its own mailbox. */
    List<String> senders() throws IOException {
        return lines(SENDERS);
    }

    boolean isSender(String address) throws IOException {
        return lines(SENDERS).contains(safe(address));
    }

    void noteSender(String address) throws IOException {
        note(SENDERS, address, true);
    }

    /** Whether letters to an address come back, as if it did not exist. */
    boolean isGone(String address) throws IOException {
        return lines(GONE).contains(safe(address));
    }

    void setGone(String address, boolean gone) throws IOException {
        note(GONE, address, gone);
    }

    /** Addresses that letters come back from. */
    List<String> gone() throws IOException {
        return lines(GONE);
    }

    private List<String> lines(String list) throws IOException {
        Path file = folder.resolve(list);
        return Files.exists(file) ? Files.readAllLines(file) : List.of();
    }

    private synchronized void note(String list, String address, boolean there) throws IOException {
        TreeSet<String> all = new TreeSet<>(lines(list));
        boolean changed = there ? all.add(safe(address)) : all.remove(safe(address));
        if (changed) {
            Files.createDirectories(folder);
            Path file = Files.write(folder.resolve(list + ".part"), all);
            Files.move(file, folder.resolve(list), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** Addresses with how many letters each has. */
    TreeMap<String, Long> addresses() {
        TreeMap<String, Long> boxes = new TreeMap<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> all = Files.list(folder)) {
                all.filter(Files::isDirectory)
                        .forEach(box -> boxes.put(
                                box.getFileName().toString(), (long) files(box).size()));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return boxes;
    }

    /** Letters of an address, newest first. */
    List<Letter> letters(String address) {
        return files(folder.resolve(safe(address))).stream()
                .map(f -> read(address, f))
                .toList();
    }

    Optional<Letter> letter(String address, String id) {
        Path file = folder.resolve(safe(address)).resolve(id.replaceAll("\\D", "") + ".eml");
        return Files.exists(file) ? Optional.of(read(address, file)) : Optional.empty();
    }

    private static List<Path> files(Path box) {
        if (!Files.isDirectory(box)) {
            return List.of();
        }
        try (Stream<Path> all = Files.list(box)) {
            return all.filter(f -> f.toString().endsWith(".eml"))
                    .sorted((a, b) -> b.compareTo(a))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String safe(String address) {
        return address.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9@._+-]", "_");
    }

    private static Letter read(String address, Path file) {
        try {
            MimeMessage message = new MimeMessage(
                    Session.getInstance(new Properties()), new ByteArrayInputStream(Files.readAllBytes(file)));
            Collected parts = new Collected();
            parts.collect(message);
            String from = message.getFrom() == null ? "" : InternetAddress.toUnicodeString(message.getFrom());
            return new Letter(
                    file.getFileName().toString().replace(".eml", ""),
                    address,
                    from,
                    message.getSubject(),
                    message.getSentDate() == null ? "" : message.getSentDate().toString(),
                    message.getMessageID(),
                    parts.whole(),
                    parts.text,
                    parts.attachments);
        } catch (IOException | MessagingException e) {
            throw new IllegalStateException("letter " + file + " cannot be read", e);
        }
    }

    private static final class Collected {
        private String html = "";
        private String text = "";
        private final List<Attachment> attachments = new ArrayList<>();
        private final Map<String, String> pictures = new HashMap<>();

        /** The letter with its own pictures in it, as a mail program shows them. */
        private String whole() {
            String out = html;
            for (Map.Entry<String, String> picture : pictures.entrySet()) {
                out = out.replace("cid:" + picture.getKey(), picture.getValue());
            }
            return out;
        }

        private void collect(Part part) throws MessagingException, IOException {
            if (part.getContent() instanceof Multipart parts) {
                for (int i = 0; i < parts.getCount(); i++) {
                    BodyPart inner = parts.getBodyPart(i);
                    collect(inner);
                }
            } else if (part.isMimeType("image/*") && part.getHeader("Content-ID") != null) {
                byte[] bytes = part.getInputStream().readAllBytes();
                String type = part.getContentType().replaceAll(";.*", "");
                pictures.put(
                        part.getHeader("Content-ID")[0].replaceAll("[<>]", ""),
                        "data:" + type + ";base64," + Base64.getEncoder().encodeToString(bytes));
            } else if (part.getFileName() != null) {
                attachments.add(new Attachment(
                        attachments.size(),
                        part.getFileName(),
                        part.getContentType().replaceAll(";.*", ""),
                        part.getInputStream().readAllBytes()));
            } else if (part.isMimeType("text/html")) {
                html = (String) part.getContent();
            } else if (part.isMimeType("text/plain")) {
                text = (String) part.getContent();
            }
        }
    }
}
