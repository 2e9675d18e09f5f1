package quill.server.notices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.common.News;

/** Something that the business hears of. */
public record Notice(
        long id,
        News.Kind kind,
        String text,
        @Schema(nullable = true) Amount amount,
        @Schema(nullable = true) ClientId clientId,
        @Schema(nullable = true) DocumentId documentId,
        LocalDate on) {}
