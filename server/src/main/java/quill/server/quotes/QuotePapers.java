package quill.server.quotes;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.ledger.DebtKind;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.core.schedule.Due;
import quill.core.schedule.Installment;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.dispatch.Enclosed;
import quill.server.dispatch.PaperOf;
import quill.server.dispatch.PdfMaking;
import quill.server.dispatch.QuotePaper;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.invoices.Measure;

/** What is printed of a quote, and of its acceptance. */
@Component
public class QuotePapers implements PaperOf {
    private static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("d MMMM yyyy, HH:mm:ss", Locale.UK);

    private final QuotesService quotes;
    private final QuoteChoosing choosing;
    private final Documents documents;
    private final Attachments attachments;
    private final BusinessService business;
    private final PdfMaking pdf;

    QuotePapers(
            QuotesService quotes,
            QuoteChoosing choosing,
            Documents documents,
            Attachments attachments,
            BusinessService business,
            PdfMaking pdf) {
        this.quotes = quotes;
        this.choosing = choosing;
        this.documents = documents;
        this.attachments = attachments;
        this.business = business;
        this.pdf = pdf;
    }

    @Override
    public boolean makes(Enclosed.Kind kind) {
        return kind == Enclosed.Kind.QUOTE || kind == Enclosed.Kind.ACCEPTANCE;
    }

    @Override
    public byte[] make(Enclosed.Kind kind, DocumentId id) {
        return pdf.quote(of(quotes.quote(id)));
    }

    /** A quote as it stands, for whoever has its link. */
    public byte[] forClient(Document quote) {
        return pdf.quoteForClient(of(quote));
    }

    /** The same for the business. */
    public byte[] forBusiness(Document quote) {
        return pdf.quote(of(quote));
    }

    @Transactional(readOnly = true)
    QuotePaper of(Document quote) {
        QuoteChoosing.Chosen now = choosing.asItStands(quote);
        Optional<QuoteAnswer> answer = quotes.answer(quote).filter(QuoteAnswer::accepted);
        return new QuotePaper(
                documents.document(quote),
                now.terms().validUntil(),
                now.terms().conditions(),
                // What was not chosen is no part of what was accepted.
                now.options().stream()
                        .filter(o -> answer.isEmpty() && !o.ticked())
                        .map(o -> new QuotePaper.Option(o.description(), o.net()))
                        .toList(),
                parts(now.schedule()),
                answer.map(this::accepted).orElse(null),
                attachments.of(quote.id()).stream()
                        .filter(Attachments.Attachment::sent)
                        .map(Attachments.Attachment::name)
                        .toList());
    }

    private QuotePaper.Accepted accepted(QuoteAnswer a) {
        ZoneId zone = ZoneId.of(business.business().zone());
        return new QuotePaper.Accepted(
                a.name(),
                "on " + AT.format(a.at().atZone(zone)) + " (" + zone + ")",
                a.address(),
                a.byHand(),
                a.seal());
    }

    /** How a quote is to be paid: its days begin with the invoice, so they are said in words. */
    static List<Measure.Part> parts(List<Installment> schedule) {
        if (schedule.isEmpty()) {
            return List.of();
        }
        Money whole = Amounts.sum(
                schedule.get(0).amount().getCurrencyUnit(),
                schedule.stream().map(Installment::amount).toList());
        List<Measure.Part> parts = new ArrayList<>();
        for (Installment i : schedule) {
            parts.add(new Measure.Part(
                    i.position(),
                    i.position(),
                    i.deposit() ? DebtKind.DEPOSIT : DebtKind.INSTALLMENT,
                    Amount.of(i.amount()),
                    Amount.of(i.amount()),
                    i.due() instanceof Due.On on ? on.day() : null,
                    null,
                    Standing.COMING,
                    words(i),
                    0,
                    Amount.thousandths(i.amount(), whole),
                    0));
        }
        return parts;
    }

    private static String words(Installment i) {
        if (i.deposit()) {
            return "when it is accepted";
        }
        if (i.due() instanceof Due.AfterIssue after) {
            return after.days() == 0 ? "with the invoice" : after.days() + " days after the invoice";
        }
        return i.due() instanceof Due.On ? "" : i.due().words();
    }
}
