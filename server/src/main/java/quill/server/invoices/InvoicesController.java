package quill.server.invoices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
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
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.money.Amounts;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.DraftView;
import quill.server.documents.Fixing;
import quill.server.documents.KeepDraft;
import quill.server.documents.Kept;
import quill.server.documents.PrintedDocument;
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
    private final DraftView.Reading drafts;

    InvoicesController(
            InvoicesService service,
            Documents documents,
            TakenBack takenBack,
            Attachments attachments,
            Debts debts,
            Links links,
            DraftView.Reading drafts,
            BusinessClock clock) {
        this.service = service;
        this.documents = documents;
        this.takenBack = takenBack;
        this.attachments = attachments;
        this.debts = debts;
        this.clock = clock;
        this.links = links;
        this.drafts = drafts;
    }

    record EarlierView(PrintedDocument document, LocalDate takenBackOn, String why, String who) {}

    /** @param writtenOff what of it was given up; zero where nothing was */
    record Issued(
            PrintedDocument document,
            List<Measure.Part> measure,
            Amount open,
            Amount writtenOff,
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

    record IssueDraft(int version) {}

    @PostMapping("/invoices")
    Kept begin(@RequestBody TypedDraft typed) {
        return kept(service.begin(typed), 1);
    }

    private Kept kept(DocumentId id, int version) {
        return Kept.now(id, version, clock);
    }

    @GetMapping("/invoices/{id}")
    @OneSnapshot
    InvoiceView show(@PathVariable DocumentId id) {
        Document i = service.invoice(id);
        DraftView draft = null;
        Issued issued = null;
        if (i.isDraft()) {
            draft = drafts.of(i);
        } else {
            IssuedDocument said = documents.issued(i);
            List<StoredInstallment> installments = debts.of(id);
            issued = new Issued(
                    documents.printed(i.kind(), said),
                    Measure.of(installments, clock.today()),
                    Amount.ofMinor(i.currency(), i.openMinor()),
                    Amount.of(Amounts.sum(
                            said.currency(),
                            installments.stream()
                                    .map(StoredInstallment::writtenOff)
                                    .toList())),
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
        return kept(id, service.keep(id, keep.version(), keep.whole()));
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
