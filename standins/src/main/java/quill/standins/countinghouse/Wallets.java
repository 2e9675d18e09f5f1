package quill.standins.countinghouse;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;

/** Puts wallets on the device that looks, and takes them off again. */
@Controller
class Wallets {
    @GetMapping("/counting-house/wallets")
    String show(HttpServletRequest request, Model model) {
        model.addAttribute("wallets", Wallet.values());
        model.addAttribute(
                "here",
                of(request).stream()
                        .collect(Collectors.toMap(
                                d -> d.wallet().word(), d -> d.card().grouped())));
        model.addAttribute("cards", Wallet.cards());
        return "wallets";
    }

    /** @param card none takes it off */
    @PostMapping("/counting-house/wallets")
    String put(
            @RequestParam String wallet, @RequestParam(defaultValue = "") String card, HttpServletResponse response) {
        Wallet which =
                Wallet.of(wallet).orElseThrow(() -> new ResponseStatusException(HttpStatus.BAD_REQUEST, "no wallet"));
        String value = Wallet.cards().stream()
                .map(TestCard::name)
                .filter(card::equals)
                .findFirst()
                .orElse("");
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(which.cookie(), value)
                        .path("/")
                        .httpOnly(true)
                        .sameSite("Lax")
                        .maxAge(value.isEmpty() ? Duration.ZERO : Duration.ofDays(365))
                        .build()
                        .toString());
        return "redirect:/counting-house/wallets";
    }

    /** Those of the device that asks. */
    static List<Wallet.OnDevice> of(HttpServletRequest request) {
        return Wallet.onDevice(Stream.ofNullable(request.getCookies())
                .flatMap(Arrays::stream)
                .collect(Collectors.toMap(Cookie::getName, Cookie::getValue, (first, second) -> first)));
    }
}
