package quill.core.document;

/**
 * A deposit invoice that a later invoice of the same job deducts.
 *
 * @param words what the line says that takes it off
 * @param of what it billed
 */
public record Deduction(String words, Billed of) {}
