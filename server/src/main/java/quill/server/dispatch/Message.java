package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/**
 * A message to a client, or to the business itself.
 *
 * @param clientId null where it went to the business itself
 * @param documentId the document whose page it leads to; null where it is about none
 * @param leavesIn seconds in which it can be called back; null where it is not held for that
 */
public record Message(
        long id,
        MessageKind kind,
        @Schema(nullable = true) ClientId clientId,
        @Schema(nullable = true) DocumentId documentId,
        Addresses addresses,
        String subject,
        MessageState state,
        @Schema(nullable = true) String error,
        LocalDate madeOn,
        @Schema(nullable = true) LocalDate sentOn,
        boolean calledBack,
        @Schema(nullable = true) Integer leavesIn) {
    /** Where it goes. @param copies further addresses; may be none */
    public record Addresses(String to, List<String> copies) {
        /** In words. */
        String words() {
            return copies.isEmpty() ? to : to + ", copies to " + String.join(", ", copies);
        }
    }
}
