package quill.server.clients;

import java.util.List;
import quill.core.Problem;
import quill.server.common.Texts;

/**
 * Another person at a client's.
 *
 * @param reminders whether this one gets the reminders
 * @param receipts whether this one pays, and so gets the receipts
 */
public record Contact(String name, String email, String phone, boolean reminders, boolean receipts) {
    Contact checked(String path, List<Problem> problems) {
        return new Contact(
                Texts.name(path + "name", name, 120, true, problems),
                Texts.email(path + "email", email, reminders || receipts, problems),
                Texts.name(path + "phone", phone, 40, false, problems),
                reminders,
                receipts);
    }

    String searchable() {
        return name + " " + email + " " + phone;
    }
}
