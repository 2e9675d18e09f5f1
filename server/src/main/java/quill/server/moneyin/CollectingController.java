package quill.server.moneyin;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.cardorders.Holds;
import quill.server.collections.SavedViews;
import quill.server.common.TypedMark;

/** Cards that are at hand, and what is held on cards, over HTTP. */
@RestController
@RequestMapping("/api")
class CollectingController {
    private final Collecting collecting;
    private final Holds holds;
    private final MoneyRecords records;

    CollectingController(Collecting collecting, Holds holds, MoneyRecords records) {
        this.collecting = collecting;
        this.holds = holds;
        this.records = records;
    }

    /**
     * What is collected.
     *
     * @param installments which of an invoice; all that is open where there are none
     * @param keep what the client agrees to, where what pays it is to be kept; null for not
     * @param said how the client said so
     */
    record Collect(
            @Schema(nullable = true) List<Long> installments,
            @Schema(nullable = true) Boolean hold,
            @Schema(nullable = true) SavedViews.TypedKeep keep,
            @Schema(nullable = true) String said) {}

    /** Opens the processor's page for the business. */
    @PostMapping("/documents/{id}/collections")
    Collecting.PayPage collect(@PathVariable DocumentId id, @RequestBody Collect c) {
        Collecting.Keep keep =
                c.keep() == null ? null : new Collecting.Keep(c.keep().plain(), c.said());
        return collecting.open(id, c.installments(), Boolean.TRUE.equals(c.hold()), keep);
    }

    record TakeHeld(String amount) {}

    /** Takes what is held, or less of it. */
    @PostMapping("/money-in/orders/{id}/taking")
    MoneyRecord takeHeld(@PathVariable long id, @RequestBody TakeHeld t) {
        holds.take(id, TypedMark.plain(t.amount()));
        return records.ofOrder(id);
    }

    /** Lets go what is held. */
    @PostMapping("/money-in/orders/{id}/release")
    MoneyRecord release(@PathVariable long id) {
        holds.release(id);
        return records.ofOrder(id);
    }
}
