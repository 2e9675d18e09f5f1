package quill.server.documents;

import java.util.List;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.money.DecimalMark;
import quill.core.table.PastedRows;

/** What becomes of what is typed or pasted into a draft, over HTTP. Stores nothing. */
@RestController
@RequestMapping("/api")
class DraftsController {
    private final Documents documents;
    private final ScheduleEdits schedules;

    DraftsController(Documents documents, ScheduleEdits schedules) {
        this.documents = documents;
        this.schedules = schedules;
    }

    @PostMapping("/reckonings")
    Reckoning reckon(@RequestBody TypedDraft typed) {
        return documents.reckon(typed);
    }

    /** Shows what a schedule would become. Stores nothing. */
    @PostMapping("/schedule-edits")
    ScheduleEdits.Edited edited(@RequestBody ScheduleEdits.Edit edit) {
        boolean of = edit.draft() != null || edit.of() != null && edit.schedule() != null;
        if (!of || edit.kind() == null) {
            throw new RefusedException("kind", "", "say what is done to which schedule");
        }
        return schedules.edit(edit);
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
}
