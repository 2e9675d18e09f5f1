package quill.core.id;

/** Which client. */
public record ClientId(long value) implements Id<ClientId> {
    /** Of one that is not kept yet. */
    public static final ClientId NEW = new ClientId(0);

    /** As in an address: a number, or null for an empty text. @throws NumberFormatException for anything else */
    public static ClientId valueOf(String text) {
        return text.isEmpty() ? null : new ClientId(Long.parseLong(text));
    }

    @Override
    public String toString() {
        return String.valueOf(value);
    }
}
