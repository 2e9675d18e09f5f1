package quill.server.documents;

import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import quill.core.id.DocumentId;
import quill.server.common.Downloads;

/** Files kept with a document, over HTTP. */
@RestController
@RequestMapping("/api/invoices/{id}/attachments")
class AttachmentsController {
    private final Attachments service;

    AttachmentsController(Attachments service) {
        this.service = service;
    }

    record SendAlong(boolean sent) {}

    @GetMapping
    List<Attachments.Attachment> list(@PathVariable DocumentId id) {
        return service.of(id);
    }

    @PostMapping(consumes = "multipart/form-data")
    Attachments.Attachment add(@PathVariable DocumentId id, @RequestParam("file") MultipartFile file)
            throws IOException {
        return service.add(id, file.getOriginalFilename(), file.getBytes());
    }

    @PutMapping("/{file}")
    void send(@PathVariable DocumentId id, @PathVariable long file, @RequestBody SendAlong along) {
        service.send(id, file, along.sent());
    }

    @DeleteMapping("/{file}")
    void remove(@PathVariable DocumentId id, @PathVariable long file) {
        service.remove(id, file);
    }

    @Hidden
    @GetMapping("/{file}")
    ResponseEntity<byte[]> content(@PathVariable DocumentId id, @PathVariable long file) {
        Attachments.Content content = service.content(id, file);
        return Downloads.file(
                content.bytes(), content.file().type(), content.file().name());
    }
}
