package quill.server.people;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import quill.server.common.Texts;
import quill.server.edge.Sender;

/** What is read of a request about whoever sends it. */
final class Requests {
    private Requests() {}

    static PeopleService.From from(HttpServletRequest request, String known) {
        String agent = request.getHeader("User-Agent");
        return new PeopleService.From(
                Sender.keyOf(request.getRemoteAddr()), known, browser(agent == null ? "" : agent));
    }

    /** The address of whoever is signed in. */
    static String email(HttpServletRequest request) {
        return (String) ((UsernamePasswordAuthenticationToken) request.getUserPrincipal()).getCredentials();
    }

    /** A browser's kind and system, as a person knows them, or the start of what it says. */
    static String browser(String agent) {
        String kind = agent.contains("Firefox/")
                ? "Firefox"
                : agent.contains("Edg/")
                        ? "Edge"
                        : agent.contains("Chrome/") ? "Chrome or like it" : agent.contains("Safari/") ? "Safari" : "";
        String system = agent.contains("Android")
                ? "Android"
                : agent.contains("iPhone") || agent.contains("iPad")
                        ? "iOS"
                        : agent.contains("Windows")
                                ? "Windows"
                                : agent.contains("Mac OS") ? "macOS" : agent.contains("Linux") ? "Linux" : "";
        return kind.isEmpty() || system.isEmpty() ? Texts.fit(Texts.printable(agent), 60) : kind + " on " + system;
    }
}
