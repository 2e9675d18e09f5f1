package quill.server.asking;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.dispatch.DepositFacts;
import quill.server.dispatch.LetterLook;
import quill.server.dispatch.Slip;
import quill.server.documents.Document;
import quill.server.requests.Requests;

/** Requests for money, over HTTP. */
@RestController
@RequestMapping("/api")
class RequestsController {
    private final AskingService service;
    private final LetterLook look;

    RequestsController(AskingService service, LetterLook look) {
        this.service = service;
        this.look = look;
    }

    /**
     * What was asked for.
     *
     * @param came of it
     * @param missing what is still to come
     */
    record AskedView(
            long id,
            String what,
            Amount amount,
            Amount came,
            Amount missing,
            LocalDate on,
            @Schema(nullable = true) LocalDate withdrawnOn) {}

    record AskFor(
            AskingService.ToAsk wanted,
            @Schema(nullable = true) Slip slip) {
        /** Nothing wanted is nothing asked for, which is refused by name. */
        AskFor {
            wanted = wanted == null ? new AskingService.ToAsk("", "", "", false) : wanted;
        }
    }

    /** @param told whether a letter goes */
    record AskedFor(boolean told) {}

    @GetMapping("/documents/{id}/requests")
    List<AskedView> requests(@PathVariable DocumentId id) {
        Document document = service.document(id);
        return service.of(id).stream().map(a -> view(document, a)).toList();
    }

    private static AskedView view(Document document, Requests.Asked a) {
        return new AskedView(
                a.id(),
                DepositFacts.whatFor(document, a.words()),
                Amount.of(a.amount()),
                Amount.of(a.came()),
                Amount.of(a.missing()),
                a.on(),
                a.withdrawnOn());
    }

    /** The letter that would ask. */
    @PostMapping("/documents/{id}/requests/letter")
    LetterLook.ShownLetter letter(@PathVariable DocumentId id, @RequestBody AskFor ask) {
        return look.at(
                service.letters().recipient(service.document(id)),
                ask.slip(),
                slip -> service.ask(id, ask.wanted(), slip));
    }

    @PostMapping("/documents/{id}/requests")
    AskedFor ask(@PathVariable DocumentId id, @RequestBody AskFor ask) {
        return new AskedFor(service.ask(id, ask.wanted(), ask.slip()) != null);
    }

    @PostMapping("/requests/{id}/withdrawal")
    void withdraw(@PathVariable long id) {
        service.withdraw(id);
    }
}
