package quill.server.clients;

import java.util.ArrayList;
import java.util.List;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.Texts;

/** Who buys and owes. An id of 0 is a client that is not stored yet. */
public record Client(
        long id, String name, String contact, String email, String address, String taxNumber, int version) {
    /** The same with every field checked and trimmed. @throws RefusedException with all that is wrong */
    Client checked() {
        List<Problem> problems = new ArrayList<>();
        Client result = new Client(
                id,
                Texts.text("name", name, 120, true, problems),
                Texts.text("contact", contact, 120, false, problems),
                Texts.email("email", email, false, problems),
                Texts.text("address", address, 500, false, problems),
                Texts.text("taxNumber", taxNumber, 40, false, problems),
                version);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return result;
    }
}
