package quill.core.document;

import quill.core.id.DocumentId;

/**
 * What an invoice bills of an accepted quote.
 *
 * @param quote the quote
 * @param last whether it is the final invoice, which deducts the deposit invoices
 */
public record TypedJob(DocumentId quote, boolean last) {}
