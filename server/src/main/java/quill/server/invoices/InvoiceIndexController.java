package quill.server.invoices;

import java.time.LocalDate;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.BusinessClock;
import quill.server.common.Held;
import quill.server.common.OneSnapshot;

/** Invoices by when they are due, over HTTP. */
@RestController
@RequestMapping("/api/invoices")
class InvoiceIndexController {
    private final InvoiceIndex index;
    private final BusinessClock clock;
    private final Held held;

    InvoiceIndexController(InvoiceIndex index, BusinessClock clock, Held held) {
        this.index = index;
        this.clock = clock;
        this.held = held;
    }

    private record GroupsOf(String filter, LocalDate on) {}

    @GetMapping
    List<InvoiceIndex.Group> list(@RequestParam(required = false) String filter) {
        return held.of(new GroupsOf(filter, clock.today()), () -> index.groups(filter));
    }

    /** A page of one group. @param after what the page before said in {@code more} */
    @GetMapping("/page")
    @OneSnapshot
    InvoiceIndex.Group page(
            @RequestParam String when,
            @RequestParam(required = false) String filter,
            @RequestParam(required = false) String after) {
        return index.page(when, filter, after);
    }
}
