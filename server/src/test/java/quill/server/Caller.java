package quill.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;

/** Speaks to a server of the tests over HTTP, with cookies and the CSRF token, as a browser would. */
public final class Caller {
    private final Server server;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();

    public Caller(Server server) {
        this.server = server;
    }

    /** Signed in as this person. */
    public Caller signedIn(String email, String passphrase) {
        get("/api/session");
        post("/api/session", "{\"email\":\"" + email + "\",\"passphrase\":\"" + passphrase + "\"}");
        return this;
    }

    public HttpResponse<String> get(String path, String... headers) {
        return send("GET", path, null, headers);
    }

    public HttpResponse<String> post(String path, String body) {
        return send("POST", path, body);
    }

    public HttpResponse<String> send(String method, String path, String body, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server.url(path)))
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token())
                .method(
                        method,
                        body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (headers.length > 0) {
            request.headers(headers);
        }
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    private String token() {
        return cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
    }
}
