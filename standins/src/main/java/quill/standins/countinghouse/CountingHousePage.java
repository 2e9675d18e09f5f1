package quill.standins.countinghouse;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the counting house holds, and the dials by which it can be made to lose, double, delay and cut off. */
@Controller
class CountingHousePage {
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
        model.addAttribute("dials", book.dials().all());
        model.addAttribute("today", book.today());
        return "counting-house";
    }

    @PostMapping("/counting-house/dials")
    String turn(@RequestParam String dial, @RequestParam int setting) {
        book.dials().turn(dial, setting);
        return "redirect:/counting-house";
    }
}
