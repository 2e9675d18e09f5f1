package quill.server.documents;

import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import quill.core.id.DocumentId;
import quill.server.common.BusinessClock;

/** A draft that was kept, under which version, and when. @param at the time of the business, as HH:MM */
public record Kept(DocumentId id, int version, String at) {
    private static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("HH:mm");

    /** One that is kept now. */
    public static Kept now(DocumentId id, int version, BusinessClock clock) {
        return new Kept(id, version, LocalTime.now(clock).format(AT));
    }
}
