package quill.server.payments;

import java.util.ArrayList;
import java.util.List;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.Texts;

/** Whoever pays, where that is somebody else than the client. Both may be empty. */
public record Payer(String name, String email) {
    /** Nobody else. */
    public static final Payer NONE = new Payer("", "");

    /** As typed on a page. @throws RefusedException naming {@code payerName} or {@code payerEmail} */
    public static Payer read(String name, String email) {
        List<Problem> problems = new ArrayList<>();
        Payer payer = new Payer(
                Texts.name("payerName", name, 120, false, problems), Texts.email("payerEmail", email, false, problems));
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return payer;
    }

    /** Whether nothing was said. */
    public boolean isNobody() {
        return name.isEmpty() && email.isEmpty();
    }
}
