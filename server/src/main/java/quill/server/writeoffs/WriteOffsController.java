package quill.server.writeoffs;

import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;

/** What is given up of invoices. */
@RestController
@RequestMapping("/api/invoices/{id}")
class WriteOffsController {
    private final WriteOffs service;

    WriteOffsController(WriteOffs service) {
        this.service = service;
    }

    /** @param open what was open on screen */
    record ToWriteOff(String open, String reason) {}

    @PostMapping("/write-off")
    void writeOff(@PathVariable DocumentId id, @RequestBody ToWriteOff wanted) {
        service.writeOff(id, wanted.open(), wanted.reason());
    }

    @PostMapping("/owed-again")
    void oweAgain(@PathVariable DocumentId id) {
        service.oweAgain(id);
    }
}
