package quill.server.dispatch;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.util.Date;
import java.util.List;
import java.util.function.Supplier;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;
import quill.server.business.BusinessService;
import quill.server.common.Downloads;
import quill.server.common.Json;
import quill.server.creditnotes.CreditNote;
import quill.server.creditnotes.CreditNotes;
import quill.server.dispatch.MessageRepository.Outgoing;
import quill.server.documents.Attachments;
import quill.server.documents.Document;

/** Writes a letter as mail. */
@Component
class MailWriting {
    private static final String PDF = "application/pdf";

    private final PdfMaking pdf;
    private final SentPapers sent;
    private final Json json;
    private final CreditNotes notes;
    private final Attachments attachments;
    private final BusinessService business;

    MailWriting(
            PdfMaking pdf,
            SentPapers sent,
            Json json,
            CreditNotes notes,
            Attachments attachments,
            BusinessService business) {
        this.pdf = pdf;
        this.sent = sent;
        this.json = json;
        this.notes = notes;
        this.attachments = attachments;
        this.business = business;
    }

    /** Its text, its papers and its files. @param papers where the papers are put, to be kept once it leaves */
    MimeMessage compose(Session session, Outgoing outgoing, Document invoice, List<SentPapers.Sent> papers) {
        try {
            var own = business.business();
            FixedIdMessage message = new FixedIdMessage(session, outgoing.messageId());
            MimeMessageHelper helper = new MimeMessageHelper(message, true, "UTF-8");
            helper.setFrom(own.email(), own.name());
            helper.setTo(outgoing.to());
            helper.setSubject(outgoing.written().subject());
            helper.setText(outgoing.written().text(), outgoing.written().html());
            helper.setSentDate(Date.from(outgoing.madeAt()));
            if (outgoing.written().code() != null) {
                helper.addInline(
                        "code",
                        new ByteArrayResource(SquareCode.png(outgoing.written().code())),
                        "image/png");
            }
            if (outgoing.reminder() != null) {
                ReminderLetter letter = json.read(outgoing.reminder(), ReminderLetter.class);
                attach(
                        helper,
                        paper(outgoing, SentPapers.ofReminder(letter.writtenOn()), () -> pdf.reminder(letter)),
                        papers);
            } else if (outgoing.enclosure() == Enclosure.INVOICE) {
                attach(
                        helper,
                        paper(outgoing, SentPapers.ofInvoice(invoice.number()), () -> pdf.invoice(invoice, false)),
                        papers);
                for (Attachments.Content a : attachments.sentWith(invoice.id())) {
                    helper.addAttachment(
                            a.file().name(), () -> stream(a.bytes()), a.file().type());
                }
            } else if (outgoing.enclosure() == Enclosure.CREDIT_NOTE) {
                CreditNote note = notes.find(outgoing.noteId());
                String name = "credit-note-" + Downloads.plain(note.number()) + ".pdf";
                attach(helper, paper(outgoing, name, () -> pdf.creditNote(note, false)), papers);
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
    void keep(Outgoing outgoing, SentPapers.Sent paper) {
        sent.keep(outgoing.id(), paper);
    }

    /** A letter that goes again takes the very paper that went before. */
    private SentPapers.Sent paper(Outgoing outgoing, String name, Supplier<byte[]> making) {
        return sent.find(outgoing.id()).orElseGet(() -> new SentPapers.Sent(name, making.get()));
    }

    private static void attach(MimeMessageHelper helper, SentPapers.Sent paper, List<SentPapers.Sent> papers)
            throws MessagingException {
        papers.add(paper);
        helper.addAttachment(paper.name(), () -> stream(paper.bytes()), PDF);
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
