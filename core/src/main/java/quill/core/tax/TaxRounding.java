package quill.core.tax;

/** Where tax is rounded: a business chooses one and keeps it. */
public enum TaxRounding {
    /** Once per tax over the whole document (EN 16931, BR-CO-17 and BR-S-09). */
    PER_TAX,
    /** On each line; a tax of the document is the sum of its lines' taxes. */
    PER_LINE
}
