package quill.server.creditnotes;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.Taken;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;
import quill.server.documents.NumberSeries;
import quill.server.documents.PrintedDocument;
import quill.server.documents.Relations;

/** Credit notes that were written, and what they left of an invoice. */
@Service
public class CreditNotes {
    private final Documents documents;
    private final Relations relations;
    private final Jobs jobs;
    private final Json json;

    CreditNotes(Documents documents, Relations relations, Jobs jobs, Json json) {
        this.documents = documents;
        this.relations = relations;
        this.jobs = jobs;
        this.json = json;
    }

    /** What was taken of an invoice so far. */
    Taken taken(DocumentId invoiceId, Creditable invoice) {
        return jobs.takenBack(invoiceId, invoice);
    }

    /** Whether a credit note took the last of an invoice. */
    public boolean isTakenBack(DocumentId invoiceId) {
        return relations.corrections(invoiceId).stream()
                .anyMatch(c -> c.taking().whole());
    }

    /** What credit notes may still take of an invoice, and what is left of each line. */
    public Left left(Document invoice, IssuedDocument document) {
        Creditable creditable = document.creditable();
        if (isTakenBack(invoice.id())) {
            return new Left(Money.zero(creditable.currency()), List.of(), List.of());
        }
        Taken before = taken(invoice.id(), creditable);
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < creditable.lines().size(); i++) {
            lines.add(creditable
                    .lines()
                    .get(i)
                    .quantity()
                    .subtract(before.lines().get(i))
                    .stripTrailingZeros()
                    .toPlainString());
        }
        return new Left(
                CreditReckoning.left(creditable, before),
                lines,
                before.charges().stream().map(c -> c.signum() == 0).toList());
    }

    /** @param lines the quantity left of each line @param charges whether each charge is still there */
    public record Left(Money amount, List<String> lines, List<Boolean> charges) {}

    /** An invoice's credit notes, oldest first. */
    public List<CreditNote> of(DocumentId invoiceId) {
        List<Relations.Correction> corrections = relations.corrections(invoiceId);
        Map<DocumentId, Document> notes = documents.some(
                corrections.stream().map(Relations.Correction::noteId).toList());
        return corrections.stream()
                .map(c -> new CreditNote(notes.get(c.noteId()), c))
                .toList();
    }

    /** One credit note. @throws NotFoundException if there is none of that id */
    public CreditNote find(DocumentId id) {
        Relations.Correction correction = relations
                .correction(id)
                .orElseThrow(() -> new NotFoundException("There is no credit note " + id + "."));
        return new CreditNote(documents.find(id).orElseThrow(), correction);
    }

    /** What a credit note says. */
    public PrintedDocument document(CreditNote note) {
        return documents.document(note.document());
    }

    /** Keeps a note. @return it */
    CreditNote add(IssuedDocument note, NumberSeries.Given given, Document invoice, CreditTotals totals) {
        DocumentId id = documents.write(DocumentKind.CREDIT_NOTE, note, given, invoice);
        relations.corrects(
                id,
                invoice.id(),
                new Relations.Taking(note.corrects().reason(), totals.whole(), json.write(totals.after())));
        return find(id);
    }
}
