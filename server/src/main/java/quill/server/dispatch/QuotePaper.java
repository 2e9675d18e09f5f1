package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import quill.server.common.Amount;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.Measure;

/**
 * What is printed of a quote beside its lines.
 *
 * @param conditions as HTML that is safe
 * @param options lines that can be chosen and are not in its sums
 * @param parts how it is to be paid
 * @param accepted null until it is
 * @param files that belong to it
 */
public record QuotePaper(
        PrintedDocument document,
        LocalDate validUntil,
        String conditions,
        List<Option> options,
        List<Measure.Part> parts,
        Accepted accepted,
        List<String> files) {
    /** A line that can be chosen. */
    public record Option(String description, Amount net) {}

    /** Who accepted it, and when. @param at with the time of the business @param address empty where noted by hand */
    public record Accepted(String name, String at, String address, boolean byHand, String seal) {}
}
