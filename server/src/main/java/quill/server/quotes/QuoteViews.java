package quill.server.quotes;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.quote.QuoteChanges;
import quill.server.audit.Happenings;
import quill.server.common.Amount;
import quill.server.common.OneSnapshot;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.DraftView;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.Measure;
import quill.server.requests.Requests;

/** What is shown of a quote: to the business, and to its client. */
@Component
public class QuoteViews {
    private final QuotesService quotes;
    private final QuoteChoosing choosing;
    private final Answering answering;
    private final QuoteRepository repository;
    private final Documents documents;
    private final QuoteAround around;
    private final QuotePaying paying;
    private final DraftView.Reading drafts;

    QuoteViews(
            QuotesService quotes,
            QuoteChoosing choosing,
            Answering answering,
            QuoteRepository repository,
            Documents documents,
            QuoteAround around,
            QuotePaying paying,
            DraftView.Reading drafts) {
        this.quotes = quotes;
        this.choosing = choosing;
        this.answering = answering;
        this.repository = repository;
        this.documents = documents;
        this.around = around;
        this.paying = paying;
        this.drafts = drafts;
    }

    /** The answer. @param at the time of the business */
    public record AnswerView(
            boolean accepted, boolean byHand, String name, LocalDate on, String at, String address, String reason) {}

    /** A question that was asked. */
    public record QuestionView(
            long id,
            LocalDate on,
            String text,
            @Schema(nullable = true) LocalDate seenToOn) {}

    /** An issued quote. @param state open, expired, accepted, declined or void */
    public record QuoteIssued(
            PrintedDocument document,
            String state,
            LocalDate validUntil,
            String conditions,
            List<QuoteChoosing.QuoteOption> options,
            List<Measure.Part> measure,
            @Schema(nullable = true) AnswerView answer,
            List<QuestionView> questions,
            List<Attachments.Attachment> files,
            String memo,
            LeadsTo leadsTo) {}

    /**
     * A document that a quote led to.
     *
     * @param title what it is
     * @param number null for a draft
     * @param deductedBy of a deposit invoice, the invoice that takes it off; null for none
     */
    public record Led(
            DocumentId id,
            String title,
            @Schema(nullable = true) String number,
            String state,
            @Schema(nullable = true) Amount total,
            @Schema(nullable = true) DocumentId deductedBy) {}

    /**
     * What a quote leads to.
     *
     * @param link its page for the client; empty where it leads nowhere any more
     * @param supersededBy the later version that took its place
     * @param invoices for what it offered, deposit invoices among them
     * @param missing what is asked for on it and did not come; null until it is accepted
     * @param askable what more can be asked for on it; null until it is accepted
     * @param left what of it is not billed yet; null until it is accepted
     */
    public record LeadsTo(
            String link,
            @Schema(nullable = true) DocumentId supersededBy,
            List<Led> invoices,
            @Schema(nullable = true) Amount missing,
            @Schema(nullable = true) Amount askable,
            @Schema(nullable = true) Amount left) {}

    /** A quote: {@code draft} is set while it is one, {@code issued} from then on. */
    public record QuoteView(
            DocumentId id,
            int version,
            @Schema(nullable = true) ClientId clientId,
            String clientName,
            @Schema(nullable = true) DocumentId supersedesId,
            @Schema(nullable = true) DraftView draft,
            @Schema(nullable = true) QuoteIssued issued,
            List<Happenings.Happening> past) {}

    /** A quote for the business. */
    @OneSnapshot
    public QuoteView of(Document q) {
        DraftView draft = null;
        QuoteIssued issued = null;
        if (q.isDraft()) {
            draft = drafts.of(q);
        } else {
            issued = issued(q);
        }
        return new QuoteView(
                q.id(), q.version(), q.clientId(), q.clientName(), around.supersedes(q), draft, issued, around.past(q));
    }

    private QuoteIssued issued(Document q) {
        QuoteChoosing.Chosen now = choosing.asItStands(q);
        Optional<Requests.OnQuote> asked = paying.asked(q);
        return new QuoteIssued(
                documents.document(q),
                around.stateOf(q, now.terms().validUntil()),
                now.terms().validUntil(),
                now.terms().conditions(),
                now.options(),
                QuotePapers.parts(now.schedule()),
                quotes.answer(q).map(around::answer).orElse(null),
                repository.questions(q.id()).stream()
                        .map(x -> new QuestionView(x.id(), x.askedOn(), x.text(), x.seenToOn()))
                        .toList(),
                around.files(q),
                around.memo(q),
                new LeadsTo(
                        around.link(q),
                        around.supersededBy(q),
                        paying.led(q),
                        asked.map(a -> Amount.of(a.missing())).orElse(null),
                        asked.map(a -> Amount.of(a.askable())).orElse(null),
                        paying.left(q)));
    }

    /**
     * A quote's page for its client.
     *
     * @param seal of exactly this, to be given back with the acceptance
     * @param lines that are in it whatever is chosen
     * @param ahead what is asked for on it once it is accepted; null where nothing is
     * @param changed what is otherwise than in the version before; none where there was none
     */
    public record QuotePage(
            PrintedDocument document,
            String state,
            LocalDate validUntil,
            String conditions,
            List<PrintedDocument.PrintedLine> lines,
            List<QuoteChoosing.QuoteOption> options,
            List<Measure.Part> measure,
            @Schema(nullable = true) AnswerView answer,
            String seal,
            List<String> changed,
            List<Attachments.Attachment> files,
            @Schema(nullable = true) QuotePaying.Ahead ahead) {}

    /** The page with these lines chosen; null for those that it begins with. */
    @OneSnapshot
    public QuotePage page(Document q, List<Integer> chosen) {
        QuoteChoosing.Chosen now =
                chosen == null || q.state() != DocumentState.OPEN ? choosing.asItStands(q) : choosing.choose(q, chosen);
        PrintedDocument printed = documents.printed(q.kind(), now.document()).forClient();
        Set<Integer> optional =
                now.options().stream().map(QuoteChoosing.QuoteOption::place).collect(Collectors.toSet());
        return new QuotePage(
                printed,
                around.stateOf(q, now.terms().validUntil()),
                now.terms().validUntil(),
                now.terms().conditions(),
                IntStream.range(0, now.places().size())
                        .filter(i -> !optional.contains(now.places().get(i)))
                        .mapToObj(i -> printed.body().lines().get(i))
                        .toList(),
                now.options(),
                QuotePapers.parts(now.schedule()),
                quotes.answer(q).map(around::answer).orElse(null),
                answering.sealOf(q, now),
                changed(q),
                around.files(q).stream().filter(Attachments.Attachment::sent).toList(),
                paying.ahead(q, printed));
    }

    private List<String> changed(Document q) {
        DocumentId before = around.supersedes(q);
        return before == null
                ? List.of()
                : QuoteChanges.of(documents.asFirstIssued(quotes.quote(before)), documents.asFirstIssued(q));
    }
}
