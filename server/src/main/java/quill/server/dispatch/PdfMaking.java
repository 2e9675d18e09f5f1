package quill.server.dispatch;

import com.openhtmltopdf.bidi.support.ICUBidiReorderer;
import com.openhtmltopdf.bidi.support.ICUBidiSplitter;
import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.TextDirection;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import com.openhtmltopdf.util.XRLog;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.text.Normalizer;
import java.time.LocalDate;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;
import quill.core.document.CreditorReference;
import quill.core.ledger.Standing;
import quill.server.business.DocumentSettings;
import quill.server.business.Logos;
import quill.server.common.Fonts;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.PrintedDocument;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;
import quill.server.letters.Phrases;

/** Prints an issued document: HTML to PDF/A-3, fonts embedded, the Measure as SVG. */
@Component
public class PdfMaking {
    /** Of the text on a page, in pixels of 1/96 inch: A4 less its margins. */
    private static final int PAPER_WIDTH = 672;

    private static final byte[] SRGB =
            ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData();

    static {
        XRLog.setLoggingEnabled(false);
    }

    private final ITemplateEngine templates;
    private final Papers papers;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final Attachments attachments;
    private final LetterBasics basics;
    private final DocumentSettings settings;
    private final Logos logos;

    PdfMaking(
            ITemplateEngine templates,
            Papers papers,
            InvoicesService invoices,
            CreditNotes notes,
            Attachments attachments,
            LetterBasics basics,
            DocumentSettings settings,
            Logos logos) {
        this.templates = templates;
        this.papers = papers;
        this.invoices = invoices;
        this.notes = notes;
        this.attachments = attachments;
        this.basics = basics;
        this.settings = settings;
        this.logos = logos;
    }

    /**
     * The invoice as issued, with its schedule as it stands today.
     *
     * @param reckoning whether the annex is printed that says how every figure was reached
     */
    public byte[] invoice(Document invoice, boolean reckoning) {
        return invoice(invoice, reckoning, Papers.Reader.BUSINESS);
    }

    /** The same for whoever has the link; strangers wait for one another, and nobody else waits for them. */
    public byte[] invoiceForClient(Document invoice) {
        return invoice(invoice, false, Papers.Reader.STRANGER);
    }

    /** A credit note for whoever has the link. */
    public byte[] creditNoteForClient(CreditNote note) {
        return creditNote(note, false, Papers.Reader.STRANGER);
    }

    private byte[] invoice(Document invoice, boolean reckoning, Papers.Reader reader) {
        LetterBasics.About about = basics.about(invoice);
        List<Measure.Part> parts = about.parts();
        PrintedDocument document = about.printed();
        LocalDate today = basics.today();
        Context context = context(document, reckoning);
        // On its day it says what it asks for; a later print says what has become of that.
        context.setVariable("asOf", today.equals(document.issuedOn()) ? null : today);
        context.setVariable(
                "open", parts.stream().anyMatch(p -> p.open().money().isPositive()));
        context.setVariable("paying", paying(about));
        context.setVariable("trial", basics.trial(about));
        context.setVariable("extent", "");
        context.setVariable("voided", invoice.voidedOn());
        context.setVariable("paidOn", paidOn(invoice, parts));
        context.setVariable("notes", notes.of(invoice.id()));
        context.setVariable("parts", parts);
        context.setVariable("count", parts.stream().filter(p -> !p.fee()).count());
        context.setVariable("measure", parts.isEmpty() ? "" : MeasureDrawing.svg(parts, PAPER_WIDTH, 16));
        context.setVariable(
                "files",
                attachments.of(invoice.id()).stream()
                        .filter(Attachments.Attachment::sent)
                        .map(Attachments.Attachment::name)
                        .toList());
        return papers.of(templates.process("document", context), reader, this::toPdf);
    }

    /** The day on which the last of it was paid; null where something is open, or was settled otherwise than by money. */
    private static LocalDate paidOn(Document invoice, List<Measure.Part> parts) {
        boolean paid = invoice.voidedOn() == null
                && parts.stream()
                        .allMatch(
                                p -> p.standing() == Standing.SETTLED || p.fee() && p.standing() == Standing.CREDITED);
        return paid
                ? parts.stream()
                        .map(Measure.Part::settledOn)
                        .filter(java.util.Objects::nonNull)
                        .max(LocalDate::compareTo)
                        .orElse(null)
                : null;
    }

    /** What a paper says of paying by its page. @param code as the address of an image @param sum that it asks for */
    record PaperPaying(String page, String code, boolean transfer, String sum) {}

    /** Of what is to be paid now; null where nothing is, or where the business wants none of it on paper. */
    private PaperPaying paying(LetterBasics.About about) {
        Money sum = basics.askedNow(about);
        if (sum == null || !settings.setting().pageOnPaper()) {
            return null;
        }
        // The account is the one that this paper names.
        PrintedDocument d = about.printed();
        String code = SquareCode.payload(
                d.from().name(),
                d.paying().iban(),
                d.paying().bic(),
                sum,
                d.paying().reference(),
                about.page());
        return new PaperPaying(
                about.page(), SquareCode.inline(code), code.startsWith(SquareCode.TRANSFER), Shown.money(sum));
    }

    /** A quote as it stands; once it is accepted, the record of that. */
    public byte[] quote(QuotePaper quote) {
        return quote(quote, Papers.Reader.BUSINESS);
    }

    /** The same for whoever has the link. */
    public byte[] quoteForClient(QuotePaper quote) {
        return quote(quote, Papers.Reader.STRANGER);
    }

    private byte[] quote(QuotePaper quote, Papers.Reader reader) {
        Context context = context(quote.document(), false);
        plain(context);
        context.setVariable("q", quote);
        context.setVariable("parts", quote.parts());
        context.setVariable("count", quote.parts().size());
        context.setVariable(
                "measure", quote.parts().isEmpty() ? "" : MeasureDrawing.svg(quote.parts(), PAPER_WIDTH, 16));
        context.setVariable("files", quote.files());
        return papers.of(templates.process("document", context), reader, this::toPdf);
    }

    /** Of what asks for nothing. */
    private static void plain(Context context) {
        context.setVariable("extent", "");
        context.setVariable("asOf", null);
        context.setVariable("paying", null);
        context.setVariable("trial", null);
        context.setVariable("open", false);
        context.setVariable("voided", null);
        context.setVariable("notes", List.of());
        context.setVariable("parts", List.of());
        context.setVariable("count", 0);
        context.setVariable("measure", "");
        context.setVariable("files", List.of());
    }

    /** A credit note as issued. */
    byte[] creditNote(CreditNote note, boolean reckoning) {
        return creditNote(note, reckoning, Papers.Reader.BUSINESS);
    }

    private byte[] creditNote(CreditNote note, boolean reckoning, Papers.Reader reader) {
        Context context = context(notes.document(note), reckoning);
        plain(context);
        Document invoice = invoices.invoice(note.invoiceId());
        context.setVariable(
                "extent", note.extent(invoices.document(invoice).sums().total().money()));
        return papers.of(templates.process("document", context), reader, this::toPdf);
    }

    private Context context(PrintedDocument document, boolean reckoning) {
        Context context = new Context(Locale.UK);
        context.setVariable("d", document);
        context.setVariable(
                "logo",
                logos.png(document.look().logo())
                        .map(png ->
                                "data:image/png;base64," + Base64.getEncoder().encodeToString(png))
                        .orElse(""));
        context.setVariable("logoSize", logos.sizeOnPaper(document.look().logo()));
        context.setVariable("reckoning", reckoning);
        context.setVariable("words", new Words());
        context.setVariable("iban", CreditorReference.grouped(document.paying().iban()));
        context.setVariable(
                "reference", CreditorReference.grouped(document.paying().reference()));
        return context;
    }

    /** A reminder, from what was written on its day. */
    byte[] reminder(ReminderLetter letter) {
        Context context = new Context(Locale.UK);
        context.setVariable("l", letter);
        context.setVariable(
                "measures",
                letter.measures().stream()
                        .map(m -> MeasureDrawing.svg(m.parts(), PAPER_WIDTH, 12))
                        .toList());
        context.setVariable("words", new Words());
        context.setVariable(
                "codes",
                letter.transfers().stream()
                        .map(t -> SquareCode.inline(t.code()))
                        .toList());
        return papers.of(templates.process("reminder-paper", context), Papers.Reader.BUSINESS, this::toPdf);
    }

    /** Formatting for the template. */
    public static final class Words extends Phrases.Words {
        /** A figure without its symbol, as in the columns. */
        public String plain(quill.server.common.Amount amount) {
            return quill.core.money.Amounts.grouped(amount.money());
        }

        /** A figure without its symbol, as in the columns. */
        public String plain(quill.server.common.Figure figure) {
            return quill.core.money.Amounts.grouped(figure.money());
        }

        /** Whether a figure is zero, so that its row is not printed. */
        public boolean zero(quill.server.common.Figure figure) {
            return figure.money().isZero();
        }

        /** A unit price, with the decimals it was given. */
        public String price(String plain) {
            return quill.core.money.Amounts.grouped(new java.math.BigDecimal(plain));
        }

        /** A figure with its symbol. */
        public String money(quill.server.common.Figure figure) {
            return Shown.money(figure.money());
        }
    }

    private byte[] toPdf(String html) {
        // Composed letters are in the fonts, single marks to be put over them are not placed.
        String text = Normalizer.normalize(Texts.printable(html), Normalizer.Form.NFC);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfRendererBuilder builder = new PdfRendererBuilder();
        builder.useSVGDrawer(new BatikSVGDrawer());
        for (Fonts.Font font : Fonts.neededFor(text)) {
            builder.useFont(() -> Fonts.open(font.regular()), font.family(), 400, FontStyle.NORMAL, true);
            builder.useFont(() -> Fonts.open(font.bold()), font.family(), 700, FontStyle.NORMAL, true);
        }
        // Hebrew and Arabic run from right to left, within lines that do not.
        builder.useUnicodeBidiSplitter(new ICUBidiSplitter.ICUBidiSplitterFactory());
        builder.useUnicodeBidiReorderer(new ICUBidiReorderer());
        builder.defaultTextDirection(TextDirection.LTR);
        builder.usePdfAConformance(PdfRendererBuilder.PdfAConformance.PDFA_3_B);
        builder.useColorProfile(SRGB);
        builder.withHtmlContent(text, null);
        builder.toStream(out);
        try {
            builder.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}
