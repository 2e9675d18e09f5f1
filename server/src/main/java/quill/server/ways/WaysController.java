package quill.server.ways;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.pay.TypedWay;
import quill.server.common.TypedMark;

/** The ways to pay: the business's rules, and what a client is limited to. */
@RestController
@RequestMapping("/api")
class WaysController {
    private final WaysService ways;

    WaysController(WaysService ways) {
        this.ways = ways;
    }

    record KeepWays(List<TypedWay> ways, int version) {}

    @GetMapping("/ways-to-pay")
    WaysService.WaySetting setting() {
        return ways.setting();
    }

    /** What taking a sum would cost by each of these rules, before they are kept. */
    @PostMapping("/ways-to-pay/costs")
    List<WaysService.WayCost> costs(@RequestBody KeepWays typed) {
        return ways.costs(
                typed.ways() == null
                        ? List.of()
                        : typed.ways().stream()
                                .map(w -> w.plain(TypedMark.current()))
                                .toList());
    }

    @PutMapping("/ways-to-pay")
    WaysService.WaySetting change(@RequestBody KeepWays typed) {
        List<TypedWay> plain = typed.ways() == null
                ? List.of()
                : typed.ways().stream().map(w -> w.plain(TypedMark.current())).toList();
        return ways.change(plain, typed.version());
    }

    @GetMapping("/clients/{id}/ways-to-pay")
    WayChoice ofClient(@PathVariable ClientId id) {
        return WayChoice.of(ways.ofClient(id));
    }

    @PutMapping("/clients/{id}/ways-to-pay")
    WayChoice chooseForClient(@PathVariable ClientId id, @RequestBody WayChoice choice) {
        ways.chooseForClient(id, choice.set());
        return WayChoice.of(ways.ofClient(id));
    }
}
