package quill.standins.countinghouse;

import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;

/** What the counting house holds and did, buttons for what payers and their banks do, and the dials that make it misbehave. */
@Controller
class CountingHousePage {
    private final OrderBook book;
    private final EventBook events;
    private final Account account;
    private final Contests contests;
    private final Day day;

    CountingHousePage(OrderBook book, EventBook events, Account account, Contests contests, Day day) {
        this.book = book;
        this.events = events;
        this.account = account;
        this.contests = contests;
        this.day = day;
    }

    @GetMapping("/")
    String start() {
        return "redirect:/counting-house";
    }

    @GetMapping("/counting-house")
    String show(Model model) {
        model.addAttribute("orders", book.latest());
        model.addAttribute("events", events.latest());
        model.addAttribute("dials", events.dials().all());
        model.addAttribute("today", day.today());
        model.addAttribute("held", account.held());
        model.addAttribute("entries", account.latest());
        model.addAttribute("payouts", account.payouts());
        model.addAttribute("contests", contests.latest());
        return "counting-house";
    }

    @PostMapping("/counting-house/dials")
    String turn(@RequestParam String dial, @RequestParam int setting) {
        events.dials().turn(dial, setting);
        return "redirect:/counting-house";
    }

    /** A payout as a statement of the account (ISO 20022). */
    @GetMapping(value = "/counting-house/payouts/{id}/camt.053.xml", produces = MediaType.APPLICATION_XML_VALUE)
    @ResponseBody
    String statement(@PathVariable String id) {
        Account.Payout payout = account.payout(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        return Statement.of(payout, account.of(id));
    }

    @PostMapping("/counting-house/contests")
    String contest(@RequestParam String order, @RequestParam(defaultValue = "not as agreed") String reason) {
        contests.open(order, Calls.fit(reason, 100));
        return "redirect:/counting-house";
    }

    @PostMapping("/counting-house/contests/{id}")
    String decide(@PathVariable String id, @RequestParam boolean won) {
        contests.decide(id, won);
        return "redirect:/counting-house";
    }
}
