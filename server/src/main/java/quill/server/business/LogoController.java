package quill.server.business;

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

/** The logo, over HTTP. */
@RestController
@RequestMapping("/api/business/logo")
class LogoController {
    private final Logos logos;

    LogoController(Logos logos) {
        this.logos = logos;
    }

    /** @param hash by which it is asked for */
    record TakenLogo(String hash) {}

    @PostMapping(consumes = "multipart/form-data")
    TakenLogo take(@RequestPart("file") MultipartFile file) throws IOException {
        return new TakenLogo(logos.take(file.getBytes()));
    }

    @DeleteMapping
    void takeOff() {
        logos.takeOff();
    }

    /** What has a hash never changes. */
    @Hidden
    @GetMapping(path = "/{hash}", produces = MediaType.IMAGE_PNG_VALUE)
    ResponseEntity<byte[]> png(@PathVariable String hash) {
        return Downloads.pngForGood(logos.png(hash).orElseThrow(() -> new NotFoundException("There is no such logo.")));
    }
}
