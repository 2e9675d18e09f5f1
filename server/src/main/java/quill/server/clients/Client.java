package quill.server.clients;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Predicate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;
import quill.core.id.ClientId;
import quill.core.tax.Exemption;
import quill.server.common.Texts;

/**
 * Who buys and owes. An id of 0 is a client that is not stored yet.
 *
 * @param country ISO 3166-1 code of two letters; empty where it is not given
 * @param certificate that it pays no tax; empty where it pays
 * @param exemptUntil the certificate's last day; null where it has no end
 */
public record Client(
        ClientId id,
        String name,
        String contact,
        String email,
        String address,
        String country,
        String taxNumber,
        String certificate,
        @Schema(nullable = true) LocalDate exemptUntil,
        ClientMore more,
        int version) {
    /** Where nothing more is said, nothing more is known. */
    public Client {
        more = more == null ? ClientMore.NOTHING : more;
    }

    /** One of whom nothing more is known. */
    public Client(
            ClientId id,
            String name,
            String contact,
            String email,
            String address,
            String country,
            String taxNumber,
            String certificate,
            LocalDate exemptUntil,
            int version) {
        this(id, name, contact, email, address, country, taxNumber, certificate, exemptUntil, null, version);
    }

    /** One that pays tax, in no country that was named. */
    public Client(
            ClientId id, String name, String contact, String email, String address, String taxNumber, int version) {
        this(id, name, contact, email, address, "", taxNumber, "", null, null, version);
    }

    /**
     * A person who gets a letter.
     *
     * @param name empty where none is named
     * @param phone as it was typed; may be empty
     * @param payer whether it is somebody apart who pays for the client
     */
    public record Recipient(String name, String email, String phone, boolean payer) {}

    /** Who gets the invoices. */
    public Recipient forInvoices() {
        return new Recipient(contact, email, more.phone(), false);
    }

    /** Who gets the reminders: a contact of its own, else whoever gets the invoices. */
    public Recipient forReminders() {
        return recipient(Contact::reminders);
    }

    /** Who pays and gets the receipts: a contact of its own, else whoever gets the invoices. */
    public Recipient forReceipts() {
        return recipient(Contact::receipts);
    }

    private Recipient recipient(Predicate<Contact> part) {
        return more.contacts().stream()
                .filter(part)
                .findFirst()
                .map(c -> new Recipient(c.name(), c.email(), c.phone(), c.receipts()))
                .orElse(forInvoices());
    }

    /** By any part of which it is found: in small letters. */
    public String searchable() {
        return String.join(" ", name, contact, email, taxNumber, more.searchable())
                .toLowerCase(Locale.ROOT);
    }

    /** The same with something else known of it. */
    Client with(ClientMore other) {
        return new Client(
                id, name, contact, email, address, country, taxNumber, certificate, exemptUntil, other, version);
    }

    /** The same with another address of e-mail. */
    Client withEmail(String other) {
        return new Client(
                id, name, contact, other, address, country, taxNumber, certificate, exemptUntil, more, version);
    }

    /** The same of another id. */
    public Client withId(ClientId other) {
        return new Client(
                other, name, contact, email, address, country, taxNumber, certificate, exemptUntil, more, version);
    }

    /** Its certificate that it pays no tax, valid or ended; null where it has none. */
    public Exemption exemption() {
        return certificate == null || certificate.isBlank() ? null : new Exemption(certificate, exemptUntil);
    }

    /**
     * The same with every field checked and trimmed.
     *
     * @param before as it was, or null; a certificate that has ended meanwhile may stay, but not be entered
     * @throws RefusedException with all that is wrong
     */
    Client checked(Client before, LocalDate today) {
        List<Problem> problems = new ArrayList<>();
        boolean same = before != null
                && Objects.equals(before.exemptUntil, exemptUntil)
                && Objects.equals(before.certificate, certificate);
        if (exemptUntil != null && exemptUntil.isBefore(today) && !same) {
            problems.add(new Problem(
                    "exemptUntil",
                    exemptUntil.toString(),
                    "this certificate has ended; enter one that is valid today, " + Texts.day(today) + ", or none"));
        }
        if (exemptUntil != null && (certificate == null || certificate.isBlank())) {
            problems.add(new Problem("certificate", "", "name the certificate that ends on this day"));
        }
        TypedDate.check("exemptUntil", exemptUntil, problems);
        Client result = new Client(
                id,
                Texts.name("name", name, 120, true, problems),
                Texts.name("contact", contact, 120, false, problems),
                Texts.email("email", email, false, problems),
                Texts.text("address", address, 500, false, problems),
                Texts.country("country", country, problems),
                Texts.name("taxNumber", taxNumber, 40, false, problems),
                Texts.name("certificate", certificate, 80, false, problems),
                exemptUntil,
                more.checked(problems),
                version);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return result;
    }
}
