package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;

/**
 * A message to a client, or to the business itself.
 *
 * @param clientId null where it went to the business itself
 * @param documentId the document whose page it leads to; null where it is about none
 * @param leaves null where it waits for nothing
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
        @Schema(nullable = true) Leaves leaves) {
    /**
     * Where it goes.
     *
     * @param to an address of e-mail, or a telephone number
     * @param copies further addresses; may be none
     * @param cameBackFrom which of them it came back from; null where it did not
     */
    public record Addresses(
            Channel channel,
            String to,
            List<String> copies,
            @Schema(nullable = true) String cameBackFrom) {
        /** In words. */
        String words() {
            return copies.isEmpty() ? to : to + ", copies to " + String.join(", ", copies);
        }
    }

    /**
     * When one that waits leaves: until then it can be called back.
     *
     * @param in seconds; null where a person chose its moment
     * @param at the moment that was chosen, by the business's clock; null where it leaves at once
     */
    public record Leaves(
            @Schema(nullable = true) Integer in,
            @Schema(nullable = true) LocalDateTime at) {}
}
