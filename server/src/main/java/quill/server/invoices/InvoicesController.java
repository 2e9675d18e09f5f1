package quill.server.invoices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.Fixing;
import quill.server.documents.PrintedDocument;
import quill.server.documents.Reckoning;
import quill.server.links.Links;

/** Invoices from draft to issue, over HTTP. */
@RestController
@RequestMapping("/api")
class InvoicesController {
    private final InvoicesService service;
    private final Documents documents;
    private final TakenBack takenBack;
    private final Attachments attachments;
    private final Debts debts;
    private final BusinessClock clock;
    private final Links links;

    InvoicesController(
            InvoicesService service,
            Documents documents,
            TakenBack takenBack,
            Attachments attachments,
            Debts debts,
            Links links,
            BusinessClock clock) {
        this.service = service;
        this.documents = documents;
        this.takenBack = takenBack;
        this.attachments = attachments;
        this.debts = debts;
        this.clock = clock;
        this.links = links;
    }

    /** @param number the number that it keeps, if it was issued under one and taken back */
    record DraftView(
            DocumentId id,
            int version,
            @Schema(nullable = true) String number,
            TypedDraft typed,
            Reckoning reckoning,
            List<Attachments.Attachment> files) {}

    record EarlierView(PrintedDocument document, LocalDate takenBackOn, String why, String who) {}

    record Issued(
            PrintedDocument document,
            List<Measure.Part> measure,
            Amount open,
            List<TakenBack.CreditNoteView> creditNotes,
            TakenBack.LeftView left,
            List<Attachments.Attachment> files,
            @Schema(nullable = true) LocalDate voidedOn,
            String memo,
            String link) {}

    /** An invoice: {@code draft} is set while it is one, {@code issued} from then on. */
    record InvoiceView(
            DocumentId id,
            int version,
            @Schema(nullable = true) ClientId clientId,
            String clientName,
            @Schema(nullable = true) DocumentId replacesId,
            @Schema(nullable = true) DraftView draft,
            @Schema(nullable = true) Issued issued,
            List<EarlierView> earlier) {}

    /** @param at the time of the business, as HH:MM */
    record Kept(DocumentId id, int version, String at) {}

    record KeepDraft(int version, TypedDraft typed) {}

    record IssueDraft(int version) {}

    @PostMapping("/invoices")
    Kept begin(@RequestBody TypedDraft typed) {
        return kept(service.begin(typed), 1);
    }

    private Kept kept(DocumentId id, int version) {
        return new Kept(id, version, LocalTime.now(clock).format(DateTimeFormatter.ofPattern("HH:mm")));
    }

    @GetMapping("/invoices/{id}")
    @OneSnapshot
    InvoiceView show(@PathVariable DocumentId id) {
        Document i = service.invoice(id);
        DraftView draft = null;
        Issued issued = null;
        if (i.isDraft()) {
            TypedDraft typed = service.typed(i);
            draft = new DraftView(id, i.version(), i.number(), typed, documents.reckon(typed), attachments.of(id));
        } else {
            IssuedDocument said = documents.issued(i);
            issued = new Issued(
                    documents.printed(i.kind(), said),
                    Measure.of(debts.of(id), clock.today()),
                    Amount.ofMinor(i.currency(), i.openMinor()),
                    takenBack.notesOf(id),
                    takenBack.leftOf(i, said),
                    attachments.of(id),
                    i.voidedOn(),
                    Fixing.text(service.typed(i).memo()),
                    links.pageNow(i.id()));
        }
        List<EarlierView> earlier = documents.earlier(i).stream()
                .map(e -> new EarlierView(e.document(), e.takenBackOn(), e.why(), e.who()))
                .toList();
        return new InvoiceView(
                id,
                i.version(),
                i.clientId(),
                i.clientName(),
                service.replaces(id).orElse(null),
                draft,
                issued,
                earlier);
    }

    @PostMapping("/invoices/{id}/duplicate")
    Kept duplicate(@PathVariable DocumentId id) {
        return kept(service.duplicate(id), 1);
    }

    @PutMapping("/invoices/{id}")
    Kept keep(@PathVariable DocumentId id, @RequestBody KeepDraft keep) {
        if (keep.typed() == null) {
            throw new RefusedException("typed", "", "send the whole draft as it is typed");
        }
        return kept(id, service.keep(id, keep.version(), keep.typed()));
    }

    @DeleteMapping("/invoices/{id}")
    void discard(@PathVariable DocumentId id, @RequestParam int version) {
        service.discard(id, version);
    }

    @PostMapping("/invoices/{id}/issue")
    Kept issue(@PathVariable DocumentId id, @RequestBody IssueDraft issue) {
        return kept(id, service.issue(id, issue.version()).version());
    }
}
