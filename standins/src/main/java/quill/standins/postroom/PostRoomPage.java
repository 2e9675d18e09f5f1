package quill.standins.postroom;

import java.io.IOException;
import java.util.List;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.util.UriComponentsBuilder;
import quill.standins.postroom.Mailboxes.Letter;

/** The post room: each mailbox can be read, as HTML and as text, with what was attached. */
@Controller
class PostRoomPage {
    private final Mailboxes mailboxes;

    PostRoomPage(Mailboxes mailboxes) {
        this.mailboxes = mailboxes;
    }

    /** A letter without its contents, for those who only count. */
    record Head(String id, String from, String subject, String messageId, List<String> attachments, String text) {}

    @GetMapping("/post-room")
    String show(
            @RequestParam(required = false) String box,
            @RequestParam(required = false) String letter,
            @RequestParam(defaultValue = "html") String as,
            Model model)
            throws IOException {
        var addresses = mailboxes.addresses();
        String open = box != null || addresses.isEmpty() ? box : addresses.firstKey();
        List<Letter> letters = open == null ? List.of() : mailboxes.letters(open);
        model.addAttribute("boxes", addresses);
        model.addAttribute("open", open);
        model.addAttribute("letters", letters);
        model.addAttribute("as", as);
        model.addAttribute("gone", mailboxes.gone());
        model.addAttribute(
                "letter",
                letters.stream()
                        .filter(l -> l.id().equals(letter))
                        .findFirst()
                        .orElse(letters.isEmpty() ? null : letters.get(0)));
        return "post-room";
    }

    /** Makes letters to an address come back, or arrive again. */
    @PostMapping("/post-room/gone")
    String gone(@RequestParam String box, @RequestParam boolean gone) throws IOException {
        if (!box.matches("[^@\\s]{1,100}@[^@\\s]{1,100}\\.example")) {
            throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "an address that ends in .example");
        }
        mailboxes.setGone(box, gone);
        return "redirect:"
                + UriComponentsBuilder.fromPath("/post-room")
                        .queryParam("box", "{box}")
                        .encode()
                        .buildAndExpand(box)
                        .toUriString();
    }

    /** The letter's own HTML, framed by the page: nothing in it may run. */
    @GetMapping("/post-room/{box}/{id}/html")
    ResponseEntity<String> html(@PathVariable String box, @PathVariable String id) {
        return ResponseEntity.ok()
                .header(
                        "Content-Security-Policy",
                        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox allow-popups"
                                + " allow-popups-to-escape-sandbox allow-top-navigation-by-user-activation")
                .contentType(MediaType.parseMediaType("text/html;charset=UTF-8"))
                .body(letter(box, id).html());
    }

    @GetMapping("/post-room/{box}/{id}/attachments/{place}")
    ResponseEntity<byte[]> attachment(@PathVariable String box, @PathVariable String id, @PathVariable int place) {
        List<Mailboxes.Attachment> all = letter(box, id).attachments();
        if (place < 0 || place >= all.size()) {
            throw new ResponseStatusException(HttpStatus.NOT_FOUND);
        }
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(all.get(place).type()))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.inline()
                                .filename(all.get(place).name())
                                .build()
                                .toString())
                .body(all.get(place).bytes());
    }

    @GetMapping("/post-room/boxes/{box}")
    @ResponseBody
    List<Head> heads(@PathVariable String box) {
        return mailboxes.letters(box).stream()
                .map(l -> new Head(
                        l.id(),
                        l.from(),
                        l.subject(),
                        l.messageId(),
                        l.attachments().stream().map(Mailboxes.Attachment::name).toList(),
                        l.text()))
                .toList();
    }

    private Letter letter(String box, String id) {
        return mailboxes
                .letter(box, id)
                .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND, "No such letter."));
    }
}
