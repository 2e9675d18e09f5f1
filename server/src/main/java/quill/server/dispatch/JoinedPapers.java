package quill.server.dispatch;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.multipdf.PDFMergerUtility;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.server.common.ChosenIds;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** Several invoices as one PDF, to be printed in one go. */
@Component
class JoinedPapers {
    private static final int MOST = 100;
    private final InvoicesService invoices;
    private final PdfMaking pdf;

    JoinedPapers(InvoicesService invoices, PdfMaking pdf) {
        this.invoices = invoices;
        this.pdf = pdf;
    }

    /**
     * The papers one after another, in the order of the ids.
     *
     * @throws RefusedException naming {@code ids}: too many, none, a blank, or a draft among them
     */
    byte[] of(List<DocumentId> ids) {
        if (ids.isEmpty()) {
            throw new RefusedException("ids", "", "choose from 1 to " + MOST + " invoices");
        }
        PDFMergerUtility all = new PDFMergerUtility();
        for (DocumentId id : ChosenIds.of(ids, MOST)) {
            Document invoice = invoices.invoice(id);
            if (invoice.isDraft()) {
                throw new RefusedException("ids", String.valueOf(id), "a draft is printed once it is issued");
            }
            all.addSource(new RandomAccessReadBuffer(pdf.invoice(invoice, false)));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        all.setDestinationStream(out);
        try {
            all.mergeDocuments(IOUtils.createMemoryOnlyStreamCache());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}
