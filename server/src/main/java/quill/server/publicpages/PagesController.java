package quill.server.publicpages;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.QuillSettings;

/** Hands out the two pages, each with a Content-Security-Policy whose nonce is new every time. */
@RestController
@Hidden
class PagesController {
    private final SecureRandom random = new SecureRandom();
    private final String business = read("/static/index.html");
    private final String client = read("/static/client.html");
    private final String payTarget;

    PagesController(QuillSettings settings) {
        this.payTarget = settings.standInsUrl() == null ? "" : " " + settings.standInsUrl();
    }

    @GetMapping({
        "/",
        "/index.html",
        "/invoices",
        "/invoices/**",
        "/quotes",
        "/quotes/{id}",
        "/money-in",
        "/money-in/**",
        "/clients",
        "/clients/**",
        "/catalogue",
        "/catalogue/**",
        "/done",
        "/aging",
        "/books",
        "/books/**",
        "/settings",
        "/settings/**"
    })
    ResponseEntity<String> business(HttpServletResponse response) {
        return page(business, response);
    }

    @GetMapping({"/p/{token}", "/p/{token}/{payer}", "/client.html"})
    ResponseEntity<String> client(HttpServletResponse response) {
        return page(client, response);
    }

    /** What the API does not know is told as a problem, not as a page. */
    @RequestMapping("/api/**")
    ResponseEntity<ProblemDetail> unknown() {
        return ResponseEntity.status(HttpStatus.NOT_FOUND)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(ProblemDetail.forStatusAndDetail(HttpStatus.NOT_FOUND, "The API has no such address."));
    }

    private ResponseEntity<String> page(String html, HttpServletResponse response) {
        byte[] bytes = new byte[16];
        random.nextBytes(bytes);
        String nonce = Base64.getEncoder().encodeToString(bytes);
        response.setHeader(
                "Content-Security-Policy",
                "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-" + nonce
                        + "'; style-src-attr 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src"
                        + " 'self'; frame-src 'self'; form-action 'self'" + payTarget
                        + "; base-uri 'none'; frame-ancestors 'none'");
        return ResponseEntity.ok()
                .header("Cache-Control", "no-store")
                .contentType(MediaType.parseMediaType("text/html;charset=UTF-8"))
                .body(html.replace("__NONCE__", nonce));
    }

    private static String read(String path) {
        try (InputStream in = PagesController.class.getResourceAsStream(path)) {
            return in == null ? "" : new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
