package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import quill.core.Problem;

/** What a draft must have before it can be issued, beside all that must be readable in it. */
public final class IssueChecks {
    private IssueChecks() {}

    /**
     * Everything that has to be mended first; none where it can be issued.
     *
     * @param reading what could not be read, or reckoned
     */
    public static List<Problem> of(TypedDraft typed, List<Problem> reading) {
        List<Problem> problems = new ArrayList<>(client(typed, "invoice"));
        problems.addAll(reading);
        if (typed.supplyDate() == null || typed.supplyDate().isBlank()) {
            problems.add(new Problem("supplyDate", "", "say when the work was or will be done"));
        }
        return List.copyOf(problems);
    }

    /** The same of a quote: when the work will be done need not be known. */
    public static List<Problem> ofQuote(TypedDraft typed, List<Problem> reading) {
        List<Problem> problems = new ArrayList<>(client(typed, "quote"));
        problems.addAll(reading);
        return List.copyOf(problems);
    }

    private static List<Problem> client(TypedDraft typed, String what) {
        return typed.clientId() == null
                ? List.of(new Problem("clientId", "", "choose the client whom this " + what + " is for"))
                : List.of();
    }
}
