package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.Collections;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.invoices.InvoicesService;

public class JoinedPapersTest {
    @Test
    public void severalInvoicesAreOnePaperInTheirOrder() throws Exception {
        try (Server server = new Server()) {
            server.setUp(LocalDate.of(2027, 3, 15));
            ClientId client = server.client("Kestrel Theatre", true);
            DocumentId first = server.issue(client, "Tuning", "74.50", "rest@0", null);
            DocumentId second = server.issue(client, "Soundboard", "1858.40", "rest@30", null);
            JoinedPapers joined = server.bean(JoinedPapers.class);
            try (var paper = Loader.loadPDF(joined.of(List.of(second, first)))) {
                assertThat(paper.getNumberOfPages()).isEqualTo(2);
                String text = new PDFTextStripper().getText(paper);
                assertThat(text.indexOf("Soundboard")).isBetween(0, text.indexOf("Tuning"));
            }
            DocumentId draft = server.bean(InvoicesService.class).duplicate(first);
            assertThatThrownBy(() -> joined.of(List.of(first, draft))).isInstanceOf(RefusedException.class);
            assertThatThrownBy(() -> joined.of(List.of())).isInstanceOf(RefusedException.class);
            assertThatThrownBy(() -> joined.of(Collections.nCopies(101, first))).isInstanceOf(RefusedException.class);
        }
    }
}
