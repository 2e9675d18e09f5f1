package quill.standins.telegraph;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;
import quill.standins.Dials;
import quill.standins.StandinsSettings;

/** The gateway for text messages, simulated: it takes them over HTTP, and its page shows what arrived at each telephone. */
@Controller
class TelegraphOffice {
    private static final int LONGEST = 1530;
    private final TextBook book;
    private final StandinsSettings settings;

    TelegraphOffice(TextBook book, StandinsSettings settings) {
        this.book = book;
        this.settings = settings;
    }

    record TextToSend(String to, String from, String text) {}

    /** Takes a message: on disk before it answers. It has no memory of what it was asked before; asked twice, it sends twice. */
    @PostMapping("/texts")
    @ResponseBody
    Map<String, String> take(
            @RequestHeader("Authorization") String authorization,
            @RequestBody TextToSend message,
            HttpServletResponse response)
            throws IOException, InterruptedException {
        settings.check(authorization);
        if (message.to() == null || !message.to().matches("\\+[1-9]\\d{6,14}")) {
            throw new ResponseStatusException(HttpStatus.UNPROCESSABLE_CONTENT, "to must be a number as E.164 has it");
        }
        if (message.text() == null || message.text().isBlank() || message.text().length() > LONGEST) {
            throw new ResponseStatusException(
                    HttpStatus.UNPROCESSABLE_CONTENT, "text must have 1 to " + LONGEST + " characters");
        }
        if (book.dead().contains(message.to())) {
            throw new ResponseStatusException(
                    HttpStatus.UNPROCESSABLE_CONTENT, "no telephone has the number " + message.to());
        }
        book.keep(message.to(), message.from() == null ? "" : message.from(), message.text());
        Thread.sleep(book.dials().all().get("wait") * 1000L);
        if (book.dials().cutsThisAnswer()) {
            Dials.cut(response);
            return null;
        }
        return Map.of("state", "taken");
    }

    @ExceptionHandler(ResponseStatusException.class)
    @ResponseBody
    org.springframework.http.ResponseEntity<ProblemDetail> problem(ResponseStatusException e) {
        return org.springframework.http.ResponseEntity.status(e.getStatusCode()).body(e.getBody());
    }

    @GetMapping("/telegraph-office")
    String show(@RequestParam(required = false) String number, Model model) {
        Map<String, Long> numbers = book.numbers();
        String open = number != null || numbers.isEmpty()
                ? number
                : numbers.keySet().iterator().next();
        model.addAttribute("numbers", numbers);
        model.addAttribute("open", open);
        model.addAttribute("texts", open == null ? List.of() : book.at(open));
        model.addAttribute("dead", book.dead());
        model.addAttribute("dials", book.dials().all());
        return "telegraph-office";
    }

    /** What arrived at a number, for those who only count. */
    @GetMapping("/telegraph-office/texts")
    @ResponseBody
    List<TextBook.Arrived> texts(@RequestParam String number) {
        return book.at(number);
    }

    @PostMapping("/telegraph-office/dead")
    String dead(@RequestParam String number, @RequestParam boolean dead) {
        if (!number.matches("\\+[1-9]\\d{6,14}")) {
            throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "a number as E.164 has it");
        }
        book.setDead(number, dead);
        return "redirect:/telegraph-office";
    }

    @PostMapping("/telegraph-office/dials")
    String turn(@RequestParam String dial, @RequestParam int setting) {
        book.dials().turn(dial, setting);
        return "redirect:/telegraph-office";
    }
}
