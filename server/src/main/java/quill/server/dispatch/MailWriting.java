package quill.server.dispatch;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.util.Date;
import java.util.List;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;
import quill.server.business.BusinessService;
import quill.server.common.Json;
import quill.server.creditnotes.CreditNotes;
import quill.server.dispatch.MessageRepository.Outgoing;
import quill.server.documents.Attachments;
import quill.server.invoices.InvoicesService;

/** Writes a letter as mail. */
@Component
class MailWriting {
    private static final String PDF = "application/pdf";

    private final PdfMaking pdf;
    private final SentPapers sent;
    private final Json json;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final Attachments attachments;
    private final BusinessService business;
    private final List<PaperOf> others;

    MailWriting(
            PdfMaking pdf,
            SentPapers sent,
            Json json,
            InvoicesService invoices,
            CreditNotes notes,
            Attachments attachments,
            BusinessService business,
            List<PaperOf> others) {
        this.pdf = pdf;
        this.sent = sent;
        this.json = json;
        this.invoices = invoices;
        this.notes = notes;
        this.attachments = attachments;
        this.business = business;
        this.others = others;
    }

    /** A paper that goes along, to be kept once it leaves. */
    record Made(int place, SentPapers.Sent paper) {}

    /** Its text, its papers and its files. @param papers where the papers are put, to be kept once it leaves */
    MimeMessage compose(Session session, Outgoing outgoing, List<Made> papers) {
        try {
            var own = business.business();
            FixedIdMessage message = new FixedIdMessage(session, outgoing.messageId());
            MimeMessageHelper helper = new MimeMessageHelper(message, true, "UTF-8");
            helper.setFrom(own.email(), own.name());
            helper.setTo(outgoing.addresses().to());
            helper.setCc(outgoing.addresses().copies().toArray(String[]::new));
            helper.setSubject(outgoing.written().subject());
            helper.setText(outgoing.written().text(), outgoing.written().html());
            helper.setSentDate(Date.from(outgoing.madeAt()));
            if (outgoing.written().code() != null) {
                byte[] code = SquareCode.png(outgoing.written().code());
                helper.addInline("code", new ByteArrayResource(code), "image/png");
            }
            for (SentPapers.Placed p : sent.of(outgoing.id())) {
                attach(helper, outgoing, p, papers);
            }
            if (outgoing.madeBy().isProduct()) {
                message.setHeader("Auto-Submitted", "auto-generated"); // RFC 3834, 5
            }
            message.saveChanges();
            return message;
        } catch (MessagingException | java.io.UnsupportedEncodingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Keeps a paper that is about to leave. */
    void keep(Outgoing outgoing, Made made) {
        sent.keep(outgoing.id(), made.place(), made.paper());
    }

    private void attach(MimeMessageHelper helper, Outgoing outgoing, SentPapers.Placed placed, List<Made> papers)
            throws MessagingException {
        Enclosed what = placed.what();
        if (what.kind() == Enclosed.Kind.FILE) {
            Attachments.Content file = attachments.content(what.documentId(), what.fileId());
            helper.addAttachment(
                    what.name(), () -> stream(file.bytes()), file.file().type());
            return;
        }
        // A letter that goes again takes the very paper that went before.
        SentPapers.Sent paper = sent.find(outgoing.id(), placed.place())
                .orElseGet(() -> new SentPapers.Sent(what.name(), print(outgoing, what)));
        papers.add(new Made(placed.place(), paper));
        helper.addAttachment(paper.name(), () -> stream(paper.bytes()), PDF);
    }

    private byte[] print(Outgoing outgoing, Enclosed what) {
        return switch (what.kind()) {
            case INVOICE -> pdf.invoice(invoices.invoice(what.documentId()), false);
            case CREDIT_NOTE -> pdf.creditNote(notes.find(what.documentId()), false);
            case REMINDER -> pdf.reminder(json.read(outgoing.reminder(), ReminderLetter.class));
            case QUOTE, ACCEPTANCE ->
                others.stream()
                        .filter(o -> o.makes(what.kind()))
                        .findFirst()
                        .orElseThrow()
                        .make(what.kind(), what.documentId());
            case FILE -> throw new IllegalArgumentException("a file is not printed");
        };
    }

    private static java.io.InputStream stream(byte[] bytes) {
        return new java.io.ByteArrayInputStream(bytes);
    }

    /** Keeps the Message-ID of the row, so that a letter sent again by hand is known as the same one. */
    private static final class FixedIdMessage extends MimeMessage {
        private final String id;

        private FixedIdMessage(Session session, String id) {
            super(session);
            this.id = id;
        }

        @Override
        protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", id);
        }
    }
}
