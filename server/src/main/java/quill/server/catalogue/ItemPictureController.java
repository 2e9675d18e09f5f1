package quill.server.catalogue;

import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import quill.server.common.Downloads;
import quill.server.common.NotFoundException;

/** Pictures of items, over HTTP. */
@RestController
@RequestMapping("/api/catalogue")
class ItemPictureController {
    private final ItemPictures pictures;
    private final CatalogueService service;

    ItemPictureController(ItemPictures pictures, CatalogueService service) {
        this.pictures = pictures;
        this.service = service;
    }

    /** @param picture by which it is asked for; empty for none */
    record TakenPicture(String picture) {}

    @PostMapping(path = "/items/{id}/picture", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    TakenPicture take(@PathVariable long id, @RequestPart("file") MultipartFile file) throws IOException {
        pictures.take(id, file.getBytes());
        return new TakenPicture(service.item(id).picture());
    }

    @DeleteMapping("/items/{id}/picture")
    void takeOff(@PathVariable long id) {
        pictures.takeOff(id);
    }

    /** What has a hash never changes. */
    @Hidden
    @GetMapping(path = "/pictures/{hash}", produces = MediaType.IMAGE_PNG_VALUE)
    ResponseEntity<byte[]> png(@PathVariable String hash) {
        return Downloads.pngForGood(
                pictures.png(hash).orElseThrow(() -> new NotFoundException("There is no such picture.")));
    }
}
