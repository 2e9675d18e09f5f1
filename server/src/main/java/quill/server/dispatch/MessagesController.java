package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/** What was written to clients, over HTTP. */
@RestController
@RequestMapping("/api")
class MessagesController {
    private final Correspondence service;
    private final CallingBack callingBack;
    private final Mending mending;

    MessagesController(Correspondence service, CallingBack callingBack, Mending mending) {
        this.service = service;
        this.callingBack = callingBack;
        this.mending = mending;
    }

    @GetMapping("/messages/leaving")
    List<Message> leaving() {
        return callingBack.leaving();
    }

    @PostMapping("/messages/{id}/calling-back")
    void callBack(@PathVariable long id) {
        callingBack.callBack(id);
    }

    @GetMapping("/invoices/{id}/messages")
    List<Message> messages(@PathVariable DocumentId id) {
        return service.ofInvoice(id);
    }

    /** @param to where it goes this time; null for where it went */
    record SendElsewhere(@Schema(nullable = true) String to) {}

    @PostMapping("/messages/{id}/retry")
    void retry(@PathVariable long id, @RequestBody(required = false) SendElsewhere elsewhere) {
        mending.sendAgain(id, elsewhere == null ? null : elsewhere.to());
    }

    @PostMapping("/messages/{id}/set-aside")
    void setAside(@PathVariable long id) {
        mending.setAside(id);
    }

    @GetMapping(path = "/messages/{id}/html", produces = "text/html")
    ResponseEntity<String> html(@PathVariable long id) {
        return ResponseEntity.ok()
                .header(
                        "Content-Security-Policy",
                        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox")
                .contentType(MediaType.parseMediaType("text/html;charset=UTF-8"))
                .body(service.html(id));
    }

    @GetMapping("/clients/{id}/messages")
    List<Message> messagesOfClient(@PathVariable ClientId id, @RequestParam(defaultValue = "") String find) {
        return service.ofClient(id, find);
    }
}
