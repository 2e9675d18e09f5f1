package quill.standins.countinghouse;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;

/** The page on which a payer types the card: it belongs to the processor, the business never sees the number. */
@Controller
class PayPage {
    private final OrderBook book;
    private final Day day;

    PayPage(OrderBook book, Day day) {
        this.book = book;
        this.day = day;
    }

    @GetMapping("/pay/{id}")
    String show(@PathVariable String id, Model model) {
        return page(order(id), null, "", "", model);
    }

    /** The wallets of the device that looks; asked for each page. */
    @ModelAttribute("wallets")
    List<Wallet.OnDevice> wallets(HttpServletRequest request) {
        return Wallets.of(request);
    }

    @PostMapping("/pay/{id}/wallet")
    String wallet(
            @PathVariable String id,
            @RequestParam(defaultValue = "") String wallet,
            @ModelAttribute("wallets") List<Wallet.OnDevice> here,
            Model model) {
        CardOrder order = order(id);
        Optional<Wallet.OnDevice> with = order.payableBy(here).stream()
                .filter(d -> d.wallet().word().equals(wallet))
                .findFirst();
        if (with.isPresent()) {
            TestCard card = with.get().card();
            if (!card.paysNow()) {
                book.decline(id, card.lastFour(), card.words());
                return page(order(id), declined(card.words()), "", "", model);
            }
            book.pay(order, with.get().wallet(), card);
        }
        return page(order(id), null, "", "", model);
    }

    @PostMapping("/pay/{id}")
    String pay(
            @PathVariable String id,
            @RequestParam(defaultValue = "") String number,
            @RequestParam(defaultValue = "") String expiry,
            Model model) {
        CardOrder order = order(id);
        if (!order.isOpen() || !order.wish().has("card") || order.wish().method() != null) {
            return page(order, null, "", "", model);
        }
        TypedCard typed = TypedCard.read(number, expiry, day.today());
        if (typed.wrong() != null) {
            return page(order, typed.wrong(), typed.number(), expiry, model);
        }
        TestCard card = typed.card();
        if (card.paysNow()) {
            book.pay(order, card, expiry.strip());
        } else if (card == TestCard.ASKS_CODE) {
            book.awaitCode(id, card.lastFour(), expiry.strip());
        } else {
            book.decline(id, card.lastFour(), card.words());
            return page(order(id), declined(card.words()), "", "", model);
        }
        return page(order(id), null, "", "", model);
    }

    @PostMapping("/pay/{id}/code")
    String code(@PathVariable String id, @RequestParam(defaultValue = "") String code, Model model) {
        CardOrder order = order(id);
        if (order.isOpen() && order.awaitsCode()) {
            if (!TestCard.CODE.equals(code.strip())) {
                book.decline(id, order.means().lastFour(), "the bank's code was wrong");
                return page(order(id), declined("the bank's code was wrong"), "", "", model);
            }
            book.pay(order, TestCard.ASKS_CODE, order.means().expiry());
        }
        return page(order(id), null, "", "", model);
    }

    /** A mandate for a bank debit: from which account, and that it may be taken. */
    @PostMapping("/pay/{id}/debit")
    String debit(
            @PathVariable String id,
            @RequestParam(defaultValue = "") String account,
            @RequestParam(defaultValue = "false") boolean agreed,
            Model model) {
        CardOrder order = order(id);
        if (!order.isOpen()
                || !order.wish().has("debit")
                || order.wish().hold()
                || order.wish().method() != null) {
            return page(order, null, "", "", model);
        }
        Optional<BankAccount> from = BankAccount.of(account);
        if (from.isEmpty()) {
            return page(order, "Choose the bank account that pays.", "", "", model);
        }
        if (!agreed) {
            return page(order, "Tick that the sum may be taken from the account.", "", "", model);
        }
        book.debit(order, from.get());
        return page(order(id), null, "", "", model);
    }

    private static String declined(String reason) {
        return "Card declined: " + reason + ". Nothing was taken. Try another card.";
    }

    private CardOrder order(String id) {
        return book.find(id)
                .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND, "No order has this address."));
    }

    private static String page(CardOrder order, String message, String number, String expiry, Model model) {
        model.addAttribute("order", order);
        model.addAttribute("message", message);
        model.addAttribute("number", number);
        model.addAttribute("expiry", expiry);
        model.addAttribute("cards", TestCard.values());
        model.addAttribute("accounts", BankAccount.values());
        return "pay";
    }
}
