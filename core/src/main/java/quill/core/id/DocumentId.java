package quill.core.id;

/** Which document, of any kind. */
public record DocumentId(long value) implements Id<DocumentId> {
    /** Of one that is not kept yet. */
    public static final DocumentId NEW = new DocumentId(0);

    /** As in an address: a number, or null for an empty text. @throws NumberFormatException for anything else */
    public static DocumentId valueOf(String text) {
        return text.isEmpty() ? null : new DocumentId(Long.parseLong(text));
    }

    @Override
    public String toString() {
        return String.valueOf(value);
    }
}
