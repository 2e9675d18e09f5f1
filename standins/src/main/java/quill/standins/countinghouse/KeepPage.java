package quill.standins.countinghouse;

import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import quill.standins.countinghouse.Keepings.Keeping;

/** The page on which a card or a bank account is kept for later: nothing is taken. */
@Controller
class KeepPage {
    private final Keepings keepings;
    private final KeptMethods methods;
    private final Day day;

    KeepPage(Keepings keepings, KeptMethods methods, Day day) {
        this.keepings = keepings;
        this.methods = methods;
        this.day = day;
    }

    @GetMapping("/keep/{id}")
    String show(@PathVariable String id, Model model) {
        return page(keeping(id), null, "", "", model);
    }

    @PostMapping("/keep/{id}")
    String card(
            @PathVariable String id,
            @RequestParam(defaultValue = "") String number,
            @RequestParam(defaultValue = "") String expiry,
            Model model) {
        Keeping keeping = keeping(id);
        if (!keeping.isOpen() || !keeping.has("card")) {
            return page(keeping, null, "", "", model);
        }
        TypedCard typed = TypedCard.read(number, expiry, day.today());
        if (typed.wrong() != null) {
            return page(keeping, typed.wrong(), typed.number(), expiry, model);
        }
        TestCard card = typed.card();
        if (card == TestCard.ASKS_CODE) {
            keepings.awaitCode(id, card, expiry.strip());
        } else if (card.canBeKept()) {
            keepings.keep(id, card, expiry.strip());
        } else {
            return page(keeping, declined(card.words()), "", "", model);
        }
        return page(keeping(id), null, "", "", model);
    }

    @PostMapping("/keep/{id}/code")
    String code(@PathVariable String id, @RequestParam(defaultValue = "") String code, Model model) {
        Keeping keeping = keeping(id);
        if (!keeping.isOpen() || !keeping.awaitsCode()) {
            return page(keeping, null, "", "", model);
        }
        if (!TestCard.CODE.equals(code.strip())) {
            return page(keeping, declined("the bank's code was wrong"), "", "", model);
        }
        keepings.keep(id, TestCard.valueOf(keeping.waitsFor()), keeping.waitsExpiry());
        return page(keeping(id), null, "", "", model);
    }

    /** A mandate: from which account, and that sums may be taken from it. */
    @PostMapping("/keep/{id}/debit")
    String debit(
            @PathVariable String id,
            @RequestParam(defaultValue = "") String account,
            @RequestParam(defaultValue = "false") boolean agreed,
            Model model) {
        Keeping keeping = keeping(id);
        if (!keeping.isOpen() || !keeping.has("debit")) {
            return page(keeping, null, "", "", model);
        }
        Optional<BankAccount> from = BankAccount.of(account);
        if (from.isEmpty()) {
            return page(keeping, "Choose the bank account.", "", "", model);
        }
        if (!agreed) {
            return page(keeping, "Tick that sums may be taken from the account.", "", "", model);
        }
        keepings.keep(id, from.get());
        return page(keeping(id), null, "", "", model);
    }

    private static String declined(String reason) {
        return "Card declined: " + reason + ". Nothing was kept. Try another card.";
    }

    private Keeping keeping(String id) {
        return keepings.find(id)
                .orElseThrow(
                        () -> new ResponseStatusException(HttpStatus.NOT_FOUND, "Nothing is kept at this address."));
    }

    private String page(Keeping keeping, String message, String number, String expiry, Model model) {
        model.addAttribute("keeping", keeping);
        model.addAttribute(
                "kept",
                keeping.keptAs() == null ? null : methods.find(keeping.keptAs()).orElseThrow());
        model.addAttribute("message", message);
        model.addAttribute("number", number);
        model.addAttribute("expiry", expiry);
        model.addAttribute("cards", TestCard.values());
        model.addAttribute("accounts", BankAccount.values());
        return "keep";
    }
}
