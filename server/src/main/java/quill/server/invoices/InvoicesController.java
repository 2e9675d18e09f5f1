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
import quill.core.money.DecimalMark;
import quill.core.table.PastedRows;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Held;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.links.Links;

/** Drafts, issuing, credit notes and the index, over HTTP. */
@RestController
@RequestMapping("/api")
class InvoicesController {
    private final InvoicesService service;
    private final CreditNotes notes;
    private final Attachments attachments;
    private final InvoiceIndex index;
    private final Debts debts;
    private final BusinessClock clock;
    private final Links links;
    private final Held held;

    InvoicesController(
            InvoicesService service,
            CreditNotes notes,
            Attachments attachments,
            InvoiceIndex index,
            Debts debts,
            BusinessClock clock,
            Links links,
            Held held) {
        this.service = service;
        this.notes = notes;
        this.attachments = attachments;
        this.index = index;
        this.debts = debts;
        this.clock = clock;
        this.links = links;
        this.held = held;
    }

    /** @param number the number that it keeps, if it was issued under one and taken back */
    record DraftView(
            long id,
            int version,
            @Schema(nullable = true) String number,
            TypedDraft typed,
            Reckoning reckoning,
            List<Attachments.Attachment> files) {}

    record CreditNoteView(long id, String number, LocalDate issuedOn, String reason, Amount total, boolean whole) {
        static CreditNoteView of(CreditNote n) {
            return new CreditNoteView(n.id(), n.number(), n.issuedOn(), n.reason(), Amount.of(n.total()), n.whole());
        }
    }

    /** What credit notes may still take. @param lines the quantity left of each line */
    record LeftView(Amount amount, List<String> lines, List<Boolean> charges) {}

    record EarlierView(FixedDocument document, LocalDate takenBackOn, String why, String who) {}

    record Issued(
            FixedDocument document,
            List<Measure.Part> measure,
            Amount open,
            List<CreditNoteView> creditNotes,
            LeftView left,
            List<Attachments.Attachment> files,
            @Schema(nullable = true) LocalDate voidedOn,
            String memo,
            String link) {}

    /** An invoice: {@code draft} is set while it is one, {@code issued} from then on. */
    record InvoiceView(
            long id,
            int version,
            @Schema(nullable = true) Long clientId,
            String clientName,
            @Schema(nullable = true) Long replacesId,
            @Schema(nullable = true) DraftView draft,
            @Schema(nullable = true) Issued issued,
            List<EarlierView> earlier) {}

    /** @param at the time of the business, as HH:MM */
    record Kept(long id, int version, String at) {}

    record KeepDraft(int version, TypedDraft typed) {}

    record IssueDraft(int version) {}

    private record GroupsOf(String filter, LocalDate on) {}

    @GetMapping("/invoices")
    List<InvoiceIndex.Group> list(@RequestParam(required = false) String filter) {
        return held.of(new GroupsOf(filter, clock.today()), () -> index.groups(filter));
    }

    /** A page of one group. @param after what the page before said in {@code more} */
    @GetMapping("/invoices/page")
    @OneSnapshot
    InvoiceIndex.Group page(
            @RequestParam String when,
            @RequestParam(required = false) String filter,
            @RequestParam(required = false) String after) {
        return index.page(when, filter, after);
    }

    @PostMapping("/reckonings")
    Reckoning reckon(@RequestBody TypedDraft typed) {
        return service.reckon(typed);
    }

    /**
     * Rows of a spreadsheet to become lines.
     *
     * @param columns for each column the name of its kind; empty for what can be told of it
     * @param headed whether the first row names the columns; counts only where the columns are given
     * @param mark the decimal mark with which its numbers are written
     * @param taxes that each line begins with
     */
    record PastedTable(
            List<List<String>> rows, List<String> columns, boolean headed, String mark, List<String> taxes) {}

    /** A column that can be chosen for pasted rows. */
    record PastedColumn(String name, String words) {}

    record PastedLines(
            List<String> columns, boolean headed, List<PastedColumn> choices, List<TypedDraft.TypedLine> lines) {}

    /** Shows which lines pasted rows would become. Stores nothing. */
    @PostMapping("/pasted-rows")
    PastedLines pasted(@RequestBody PastedTable table) {
        if (table.rows() == null || table.rows().isEmpty()) {
            throw new RefusedException("rows", "", "paste a row at least");
        }
        PastedRows.Recognised how = table.columns() == null || table.columns().isEmpty()
                ? PastedRows.recognise(table.rows(), DecimalMark.of(table.mark()))
                : new PastedRows.Recognised(table.columns(), table.headed());
        List<String> taxes = table.taxes() == null ? List.of() : table.taxes();
        return new PastedLines(
                how.columns(),
                how.headed(),
                PastedRows.KINDS.stream()
                        .map(k -> new PastedColumn(k.name(), k.words()))
                        .toList(),
                PastedRows.lines(table.rows(), how, taxes));
    }

    @PostMapping("/invoices")
    Kept begin(@RequestBody TypedDraft typed) {
        return kept(service.begin(typed, null), 1);
    }

    private Kept kept(long id, int version) {
        return new Kept(id, version, LocalTime.now(clock).format(DateTimeFormatter.ofPattern("HH:mm")));
    }

    @GetMapping("/invoices/{id}")
    @OneSnapshot
    InvoiceView show(@PathVariable long id) {
        Invoice i = service.invoice(id);
        DraftView draft = null;
        Issued issued = null;
        if (i.isDraft()) {
            TypedDraft typed = service.typed(i);
            draft = new DraftView(id, i.version(), i.number(), typed, service.reckon(typed), attachments.of(id));
        } else {
            issued = new Issued(
                    service.document(i),
                    Measure.of(debts.of(id), clock.today()),
                    Amount.ofMinor(i.currency(), i.openMinor()),
                    notes.of(id).stream().map(CreditNoteView::of).toList(),
                    left(i),
                    attachments.of(id),
                    i.voidedOn(),
                    Fixing.text(service.typed(i).memo()),
                    links.pageOf(i.id()));
        }
        List<EarlierView> earlier = service.earlier(id).stream()
                .map(e -> new EarlierView(e.document(), e.takenBackOn(), e.why(), e.who()))
                .toList();
        return new InvoiceView(id, i.version(), i.clientId(), i.clientName(), i.replacesId(), draft, issued, earlier);
    }

    private LeftView left(Invoice invoice) {
        CreditNotes.Left left = notes.left(invoice);
        return new LeftView(Amount.of(left.amount()), left.lines(), left.charges());
    }

    @GetMapping("/credit-notes/{id}")
    FixedDocument creditNote(@PathVariable long id) {
        return notes.document(notes.find(id));
    }

    @PostMapping("/invoices/{id}/duplicate")
    Kept duplicate(@PathVariable long id) {
        return kept(service.duplicate(id), 1);
    }

    @PutMapping("/invoices/{id}")
    Kept keep(@PathVariable long id, @RequestBody KeepDraft keep) {
        if (keep.typed() == null) {
            throw new RefusedException("typed", "", "send the whole draft as it is typed");
        }
        return kept(id, service.keep(id, keep.version(), keep.typed()));
    }

    @DeleteMapping("/invoices/{id}")
    void discard(@PathVariable long id, @RequestParam int version) {
        service.discard(id, version);
    }

    @PostMapping("/invoices/{id}/issue")
    Kept issue(@PathVariable long id, @RequestBody IssueDraft issue) {
        return kept(id, service.issue(id, issue.version()).version());
    }
}
