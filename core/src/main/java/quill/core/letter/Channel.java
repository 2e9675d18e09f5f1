package quill.core.letter;

/** By which way a message goes. */
public enum Channel {
    /** E-mail, with papers and files. */
    MAIL("e-mail"),
    /** A text message to a telephone: words and an address of a page, nothing else. */
    TEXT("text message");

    private final String words;

    Channel(String words) {
        this.words = words;
    }

    /** For people. */
    public String words() {
        return words;
    }
}
