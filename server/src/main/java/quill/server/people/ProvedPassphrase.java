package quill.server.people;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.server.common.Proof;

/** The passphrase, asked for again before what matters is changed; see {@link SessionController#prove}. */
@Component
class ProvedPassphrase implements Proof {
    private final HttpServletRequest request;
    private final Sessions sessions;
    private final AccessLog log;

    ProvedPassphrase(HttpServletRequest request, Sessions sessions, AccessLog log) {
        this.request = request;
        this.sessions = sessions;
        this.log = log;
    }

    @Override
    public void require(String what) {
        if (!sessions.useProof(request.getSession(false))) {
            throw new RefusedException(
                    "passphrase", "", "type your passphrase once more: the " + what + " of the business changes");
        }
        PeopleService.From from = Requests.from(request, null);
        log.note("Changed: " + what, Requests.email(request), from.sender(), from.browser());
    }
}
