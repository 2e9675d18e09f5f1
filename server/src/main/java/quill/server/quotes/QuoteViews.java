package quill.server.quotes;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.quote.Choices;
import quill.core.quote.QuoteChanges;
import quill.server.audit.Happenings;
import quill.server.common.Amount;
import quill.server.common.OneSnapshot;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.PrintedDocument;
import quill.server.documents.Reckoning;
import quill.server.invoices.Measure;

/** What is shown of a quote: to the business, and to its client. */
@Component
public class QuoteViews {
    private final QuotesService quotes;
    private final QuoteIssuing issuing;
    private final QuotePapers papers;
    private final Answering answering;
    private final QuoteRepository repository;
    private final Documents documents;
    private final QuoteAround around;

    QuoteViews(
            QuotesService quotes,
            QuoteIssuing issuing,
            QuotePapers papers,
            Answering answering,
            QuoteRepository repository,
            Documents documents,
            QuoteAround around) {
        this.quotes = quotes;
        this.issuing = issuing;
        this.papers = papers;
        this.answering = answering;
        this.repository = repository;
        this.documents = documents;
        this.around = around;
    }

    /** A draft of a quote. */
    public record QuoteDraft(
            DocumentId id,
            int version,
            @Schema(nullable = true) String number,
            TypedDraft typed,
            Reckoning reckoning,
            List<Attachments.Attachment> files) {}

    /** The answer. @param at the time of the business */
    public record AnswerView(
            boolean accepted, boolean byHand, String name, LocalDate on, String at, String address, String reason) {}

    /** A question that was asked. */
    public record QuestionView(
            long id,
            LocalDate on,
            String text,
            @Schema(nullable = true) LocalDate seenToOn) {}

    /** A line that the client can choose. @param place by which it is named */
    public record OptionView(int place, String description, String quantity, String unit, Amount net, boolean ticked) {}

    /** An issued quote. @param state open, expired, accepted, declined or void */
    public record QuoteIssued(
            PrintedDocument document,
            String state,
            LocalDate validUntil,
            String conditions,
            List<OptionView> options,
            List<Measure.Part> measure,
            @Schema(nullable = true) AnswerView answer,
            List<QuestionView> questions,
            List<Attachments.Attachment> files,
            String memo,
            LeadsTo leadsTo) {}

    /**
     * What a quote leads to.
     *
     * @param link its page for the client; empty where it leads nowhere any more
     * @param supersededBy the later version that took its place
     * @param invoices for what it offered
     */
    public record LeadsTo(
            String link, @Schema(nullable = true) DocumentId supersededBy, List<DocumentId> invoices) {}

    /** A quote: {@code draft} is set while it is one, {@code issued} from then on. */
    public record QuoteView(
            DocumentId id,
            int version,
            @Schema(nullable = true) ClientId clientId,
            String clientName,
            @Schema(nullable = true) DocumentId supersedesId,
            @Schema(nullable = true) QuoteDraft draft,
            @Schema(nullable = true) QuoteIssued issued,
            List<Happenings.Happening> past) {}

    /** A quote for the business. */
    @OneSnapshot
    public QuoteView of(Document q) {
        QuoteDraft draft = null;
        QuoteIssued issued = null;
        if (q.isDraft()) {
            TypedDraft typed = documents.typed(q);
            draft = new QuoteDraft(q.id(), q.version(), q.number(), typed, documents.reckon(typed), around.files(q));
        } else {
            issued = issued(q);
        }
        return new QuoteView(
                q.id(), q.version(), q.clientId(), q.clientName(), around.supersedes(q), draft, issued, around.past(q));
    }

    private QuoteIssued issued(Document q) {
        QuoteRepository.Terms terms = quotes.terms(q);
        List<Integer> ticked = tickedOf(q);
        return new QuoteIssued(
                documents.document(q),
                around.stateOf(q, terms.validUntil()),
                terms.validUntil(),
                terms.conditions(),
                options(q, ticked),
                QuotePapers.parts(issuing.choose(q, ticked).schedule()),
                quotes.answer(q).map(around::answer).orElse(null),
                repository.questions(q.id()).stream()
                        .map(x -> new QuestionView(x.id(), x.askedOn(), x.text(), x.seenToOn()))
                        .toList(),
                around.files(q),
                around.memo(q),
                new LeadsTo(around.link(q), around.supersededBy(q), around.invoices(q)));
    }

    private List<Integer> tickedOf(Document q) {
        return quotes.answer(q)
                .filter(QuoteAnswer::accepted)
                .map(QuoteAnswer::ticked)
                .orElseGet(() -> Choices.ticked(quotes.terms(q).offered()));
    }

    private List<OptionView> options(Document q, Collection<Integer> ticked) {
        List<Integer> all = Choices.optional(quotes.terms(q).offered());
        if (all.isEmpty()) {
            return List.of();
        }
        PrintedDocument whole = papers.whole(q);
        List<Integer> places = papers.placesOfWhole(q);
        return IntStream.range(0, places.size())
                .filter(i -> all.contains(places.get(i)))
                .mapToObj(i -> option(places.get(i), whole.body().lines().get(i), ticked))
                .toList();
    }

    private static OptionView option(int place, PrintedDocument.PrintedLine l, Collection<Integer> ticked) {
        return new OptionView(
                place, l.description(), l.quantity(), l.unit(), l.sums().net(), ticked.contains(place));
    }

    /**
     * A quote's page for its client.
     *
     * @param seal of exactly this, to be given back with the acceptance
     * @param lines that are in it whatever is chosen
     * @param changed what is otherwise than in the version before; none where there was none
     */
    public record QuotePage(
            PrintedDocument document,
            LocalDate today,
            String state,
            LocalDate validUntil,
            String conditions,
            List<PrintedDocument.PrintedLine> lines,
            List<OptionView> options,
            List<Measure.Part> measure,
            @Schema(nullable = true) AnswerView answer,
            String seal,
            List<String> changed,
            List<Attachments.Attachment> files) {}

    /** The page with these lines chosen; null for those that it begins with. */
    @OneSnapshot
    public QuotePage page(Document q, List<Integer> chosen) {
        QuoteRepository.Terms terms = quotes.terms(q);
        List<Integer> ticked = chosen == null || q.state() != DocumentState.OPEN
                ? tickedOf(q)
                : chosen.stream().sorted().distinct().toList();
        QuoteIssuing.Chosen now = issuing.choose(q, ticked);
        PrintedDocument printed = documents.printed(q.kind(), now.document()).forClient();
        List<Integer> optional = Choices.optional(terms.offered());
        List<Integer> places = now.reckoned().read().places();
        return new QuotePage(
                printed,
                around.today(),
                around.stateOf(q, terms.validUntil()),
                terms.validUntil(),
                terms.conditions(),
                IntStream.range(0, places.size())
                        .filter(i -> !optional.contains(places.get(i)))
                        .mapToObj(i -> printed.body().lines().get(i))
                        .toList(),
                options(q, ticked),
                QuotePapers.parts(now.schedule()),
                quotes.answer(q).map(around::answer).orElse(null),
                answering.sealOf(q, now.document()),
                changed(q),
                around.files(q).stream().filter(Attachments.Attachment::sent).toList());
    }

    private List<String> changed(Document q) {
        DocumentId before = around.supersedes(q);
        return before == null
                ? List.of()
                : QuoteChanges.of(documents.asFirstIssued(quotes.quote(before)), documents.asFirstIssued(q));
    }
}
