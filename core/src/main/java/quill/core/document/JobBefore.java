package quill.core.document;

import java.util.List;

/**
 * What was billed of a job before a document.
 *
 * @param whole all that was agreed, such as an accepted quote
 * @param before what earlier documents billed, those that are deducted too
 * @param deducted deposit invoices that this document takes off
 */
public record JobBefore(Creditable whole, List<Billed> before, List<Deduction> deducted) {
    /** Copies the lists. */
    public JobBefore {
        before = List.copyOf(before);
        deducted = List.copyOf(deducted);
    }
}
