package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.core.letter.LetterKind;
import quill.core.letter.ReadyMade;
import quill.core.letter.Wording;
import quill.server.letters.Wordings;

/** The letters, over HTTP: how each is worded, what it could say, and what it would say now. */
@RestController
@RequestMapping("/api/letters")
class LettersController {
    private static final Set<LetterKind> TO_CLIENTS_ONLY = EnumSet.of(
            LetterKind.QUOTE,
            LetterKind.ACCEPTED,
            LetterKind.INVOICE,
            LetterKind.CREDIT_NOTE,
            LetterKind.REQUEST,
            LetterKind.ASK_TO_KEEP,
            LetterKind.ARRANGED,
            LetterKind.NOTICE,
            LetterKind.TEXT_INVOICE,
            LetterKind.PAGE_PAID,
            LetterKind.PAGE_WAITING,
            LetterKind.PAGE_GIVEN_UP);
    private final Wordings wordings;
    private final LetterDesk desk;

    LettersController(Wordings wordings, LetterDesk desk) {
        this.wordings = wordings;
        this.desk = desk;
    }

    /**
     * A letter in the list of all.
     *
     * @param own since when the business words it; null while ours goes
     * @param forPayers since when it has a wording for payers; null where it has none
     */
    record ListedLetter(
            LetterKind kind,
            String group,
            String title,
            @Schema(nullable = true) LocalDate own,
            @Schema(nullable = true) LocalDate forPayers) {}

    /** A field that can be picked. @param drawn whether it stands on a line of its own */
    record LetterFieldView(String title, String group, String meaning, boolean drawn) {}

    /** A wording of ours. */
    record ReadyWording(String tone, String subject, String body) {}

    /**
     * A letter as it is worded.
     *
     * @param bare whether it has no subject: a text message, or what is said on the client's page
     * @param onPage whether it is said on the client's page, and sent to nobody
     * @param payers whether it can go to a payer apart from the client
     * @param own since when the business words it; null while ours goes
     */
    record LetterView(
            LetterKind kind,
            String title,
            String goes,
            boolean bare,
            boolean onPage,
            boolean payers,
            String subject,
            String body,
            int version,
            @Schema(nullable = true) LocalDate own,
            List<LetterFieldView> fields,
            List<ReadyWording> ours) {}

    record Reword(boolean payer, String subject, String body, int version) {}

    record BackToOurs(boolean payer, int version) {}

    /** @param clientId with whom it is looked at; null for the latest occasion */
    record LookAtLetter(
            String subject,
            String body,
            @Schema(nullable = true) ClientId clientId) {}

    @GetMapping
    List<ListedLetter> all() {
        List<Wordings.Own> own = wordings.own();
        return Arrays.stream(LetterKind.values())
                .map(k -> new ListedLetter(k, k.group().words(), k.title(), since(own, k, false), since(own, k, true)))
                .toList();
    }

    private static LocalDate since(List<Wordings.Own> own, LetterKind kind, boolean payer) {
        return own.stream()
                .filter(o -> o.kind() == kind && o.payer() == payer)
                .map(Wordings.Own::since)
                .findFirst()
                .orElse(null);
    }

    @GetMapping("/{kind}")
    LetterView one(@PathVariable LetterKind kind, @RequestParam(defaultValue = "false") boolean payer) {
        Wordings.Kept kept = wordings.kept(kind, payer);
        // A payer's wording begins from what the client gets.
        Wording wording = wordings.now(kind, payer);
        return new LetterView(
                kind,
                kind.title(),
                kind.goes(),
                !kind.hasSubject(),
                kind.isOnPage(),
                !TO_CLIENTS_ONLY.contains(kind),
                wording.subject(),
                wording.body(),
                kept.version(),
                kept.since(),
                wordings.fields(kind).all().stream()
                        .map(f -> new LetterFieldView(
                                f.title(),
                                f.group().words(),
                                f.meaning(),
                                f.shape() == quill.core.letter.LetterField.Shape.BLOCK))
                        .toList(),
                Arrays.stream(ReadyMade.Tone.values())
                        .map(t -> new ReadyWording(
                                t.words(),
                                ReadyMade.of(kind, t).subject(),
                                ReadyMade.of(kind, t).body()))
                        .toList());
    }

    @PutMapping("/{kind}")
    LetterView reword(@PathVariable LetterKind kind, @RequestBody Reword typed) {
        wordings.change(kind, typed.payer(), typed.subject(), typed.body(), typed.version());
        return one(kind, typed.payer());
    }

    @PostMapping("/{kind}/ours")
    LetterView ours(@PathVariable LetterKind kind, @RequestBody BackToOurs typed) {
        wordings.backToOurs(kind, typed.payer(), typed.version());
        return one(kind, typed.payer());
    }

    @PostMapping("/{kind}/trial")
    void trial(@PathVariable LetterKind kind, @RequestBody LookAtLetter typed) {
        desk.trial(kind, typed.subject(), typed.body(), typed.clientId());
    }

    @PostMapping("/{kind}/preview")
    LetterDesk.LetterPreview preview(@PathVariable LetterKind kind, @RequestBody LookAtLetter typed) {
        return desk.preview(kind, typed.subject(), typed.body(), typed.clientId());
    }
}
