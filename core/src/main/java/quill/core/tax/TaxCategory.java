package quill.core.tax;

/** The UNCL5305 codes that EN 16931 knows. Only {@link #S} bears a rate above zero. */
public enum TaxCategory {
    S("standard rate", false),
    Z("zero rated", false),
    E("exempt", true),
    AE("reverse charge", true),
    K("supply within the Union", true),
    G("export", true),
    O("outside the scope of tax", true);

    private final String words;
    private final boolean needsReason;

    TaxCategory(String words, boolean needsReason) {
        this.words = words;
        this.needsReason = needsReason;
    }

    /** What the code means, for people. */
    public String words() {
        return words;
    }

    /** Whether EN 16931 asks for a reason to be printed (BR-E-10 and its kin). */
    public boolean needsReason() {
        return needsReason;
    }
}
