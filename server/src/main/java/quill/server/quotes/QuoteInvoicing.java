package quill.server.quotes;

import io.swagger.v3.oas.annotations.media.Schema;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedJob;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;
import quill.core.quote.Agreed;
import quill.core.quote.Choices;
import quill.core.quote.StageTerms;
import quill.core.quote.Staging;
import quill.core.schedule.TypedTerm;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.TypedMark;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;
import quill.server.invoices.InvoicesService;

/** Makes invoices for what an accepted quote offered: of all at once, or in stages until all is billed. */
@Service
public class QuoteInvoicing {
    private static final int USUAL_DAYS = 14;

    private final QuotesService quotes;
    private final QuoteChoosing choosing;
    private final InvoicesService invoices;
    private final Documents documents;
    private final QuoteJobs jobs;
    private final Attachments attachments;
    private final BusinessClock clock;

    QuoteInvoicing(
            QuotesService quotes,
            QuoteChoosing choosing,
            InvoicesService invoices,
            Documents documents,
            QuoteJobs jobs,
            Attachments attachments,
            BusinessClock clock) {
        this.quotes = quotes;
        this.choosing = choosing;
        this.invoices = invoices;
        this.documents = documents;
        this.jobs = jobs;
        this.attachments = attachments;
        this.clock = clock;
    }

    /** A quantity of one of the quote's lines, as typed. @param line from 0 */
    public record TypedStage(int line, String quantity) {}

    /** What is to be billed, as typed. @param what rest, percent or lines */
    public record ToBill(String what, String percent, List<TypedStage> lines) {
        /** All that is left: the final invoice. */
        public static final ToBill REST = new ToBill("rest", "", List.of());
    }

    /**
     * A line of the quote, and what is left of it.
     *
     * @param quantityLeft null where only a sum is left
     */
    record LineLeft(
            int line,
            String description,
            String unit,
            @Schema(nullable = true) String quantityLeft,
            Amount left) {}

    /** What is left to bill. @param deposits that the final invoice deducts, tax included @param draft begun and not issued; null for none */
    record Left(
            Amount total,
            Amount left,
            Amount deposits,
            List<LineLeft> lines,
            @Schema(nullable = true) DocumentId draft) {}

    /** What is left of an accepted quote. @throws ConflictException for another */
    @Transactional(readOnly = true)
    Left left(DocumentId quoteId) {
        Document quote = accepted(quotes.quote(quoteId));
        Agreed agreed = agreed(quote);
        Jobs.SoFar job = jobs.soFar(quote, true);
        CurrencyUnit currency = agreed.currency();
        List<LineLeft> lines = new ArrayList<>();
        for (int i = 0; i < agreed.quote().lines().size(); i++) {
            BigDecimal quantity = Staging.quantityLeft(agreed, i);
            lines.add(new LineLeft(
                    i,
                    agreed.quote().lines().get(i).description(),
                    agreed.quote().lines().get(i).unit(),
                    quantity == null ? null : quantity.stripTrailingZeros().toPlainString(),
                    Amount.of(agreed.left(i))));
        }
        Money deposits = Amounts.sum(
                currency, job.deducted().stream().map(Jobs.Part::total).toList());
        return new Left(
                Amount.of(agreed.quote().sums().total().amount()),
                Amount.of(job.left().plus(deposits)),
                Amount.of(deposits),
                lines,
                jobs.draft(quoteId));
    }

    /**
     * Begins the draft of an invoice for an accepted quote: what is wanted of it, its files, its schedule.
     *
     * @return the invoice's id; where all that is left is wanted and a draft was begun before, that is it
     * @throws ConflictException unless the quote is accepted, or where a draft waits to be issued
     * @throws RefusedException naming {@code percent} or {@code lines[i].quantity}
     */
    @Transactional
    public DocumentId begin(DocumentId quoteId, ToBill wanted) {
        Document quote = accepted(quotes.lock(quoteId));
        DocumentId begun = jobs.draft(quoteId);
        if (begun != null && "rest".equals(wanted.what()) && jobs.isLast(begun)) {
            return begun;
        }
        if (begun != null) {
            throw new ConflictException(
                    "An invoice for this quote is begun already. Issue it, or delete the draft, before the next one.");
        }
        Agreed agreed = agreed(quote);
        boolean last = "rest".equals(wanted.what());
        TypedDraft typed = written(agreed, wanted)
                .changed()
                .job(new TypedJob(quoteId, last))
                .schedule(schedule(quote, agreed, last))
                .prepaid(last ? prepaid(quote) : "")
                .supplyDate(clock.today().toString())
                .supplyEnd("")
                .build();
        DocumentId invoice = invoices.begin(typed);
        jobs.begun(invoice, quoteId);
        attachments.copy(quoteId, invoice);
        return invoice;
    }

    private static Document accepted(Document quote) {
        if (quote.state() != DocumentState.ACCEPTED) {
            throw new ConflictException("Only an accepted quote becomes an invoice.");
        }
        return quote;
    }

    private Agreed agreed(Document quote) {
        QuoteAnswer answer = quotes.answer(quote).orElseThrow();
        TypedDraft chosen = Choices.chosen(Choices.choose(quotes.terms(quote).offered(), answer.ticked()));
        return new Agreed(
                documents.issued(quote),
                chosen.plain(),
                choosing.asItStands(quote).places(),
                jobs.billed(quote.id()).stream()
                        .filter(p -> !p.isDeposit() && !p.whole())
                        .map(p -> new Agreed.Invoice(
                                p.said(), documents.typed(p.document()).plain(), p.takenBack()))
                        .toList());
    }

    private static TypedDraft written(Agreed agreed, ToBill wanted) {
        List<Problem> problems = new ArrayList<>();
        String what = wanted.what() == null ? "" : wanted.what();
        switch (what) {
            case "rest":
                return Staging.ofRest(agreed);
            case "percent":
                Percent percent = TypedNumber.percent("percent", TypedMark.plain(wanted.percent()), problems);
                if (percent != null
                        && (percent.rate().signum() <= 0 || percent.rate().intValue() >= 100)) {
                    problems.add(new Problem(
                            "percent",
                            wanted.percent(),
                            "must be above zero and below 100; all that is left is the rest"));
                }
                refuse(problems);
                return Staging.ofPercent(agreed, percent);
            case "lines":
                Map<Integer, BigDecimal> lines = new TreeMap<>();
                for (TypedStage s : wanted.lines() == null ? List.<TypedStage>of() : wanted.lines()) {
                    if (s == null) {
                        throw new RefusedException("lines", "", "say of each line how much of it");
                    }
                    String typed = s.quantity() == null
                            ? ""
                            : TypedMark.plain(s.quantity().strip());
                    if (!typed.isEmpty()) {
                        lines.put(
                                s.line(),
                                TypedNumber.read("lines[" + s.line() + "].quantity", typed, 6, true, problems));
                    }
                }
                refuse(problems);
                return Staging.ofLines(agreed, lines);
            default:
                throw new RefusedException("what", what, "must be rest, percent or lines");
        }
    }

    private static void refuse(List<Problem> problems) {
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    private List<TypedTerm> schedule(Document quote, Agreed agreed, boolean last) {
        List<TypedTerm> typed = agreed.chosen().schedule();
        return last && agreed.invoices().isEmpty()
                ? StageTerms.ofAll(typed, choosing.asItStands(quote).schedule(), jobs.ahead(quote))
                : StageTerms.ofPart(typed, USUAL_DAYS);
    }

    /** Deposits held for the quote are deducted as prepaid by its final invoice. */
    private String prepaid(Document quote) {
        Money held = jobs.held(quote);
        return held.isPositive() ? Amounts.plain(held) : "";
    }
}
