package quill.standins.countinghouse;

import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;

/** What the counting house holds, and the dials by which it can be made to lose, double, delay and cut off. */
@Controller
class CountingHousePage {
    private static final int MOST = 3600;
    private final OrderBook book;

    CountingHousePage(OrderBook book) {
        this.book = book;
    }

    @GetMapping("/")
    String start() {
        return "redirect:/counting-house";
    }

    @GetMapping("/counting-house")
    String show(Model model) {
        model.addAttribute("orders", book.latest());
        model.addAttribute("events", book.latestEvents());
        model.addAttribute("dials", book.dials());
        model.addAttribute("today", book.today());
        return "counting-house";
    }

    @PostMapping("/counting-house/dials")
    String turn(@RequestParam String dial, @RequestParam int setting) {
        if (!book.dials().containsKey(dial) || setting < 0 || setting > MOST) {
            throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "dials go from 0 to " + MOST);
        }
        book.turn(dial, setting);
        return "redirect:/counting-house";
    }
}
