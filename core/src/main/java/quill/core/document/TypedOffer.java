package quill.core.document;

/**
 * What only a quote says, as typed.
 *
 * @param validUntil the last day on which it can be accepted; empty for 30 days after issue
 * @param conditions terms and conditions that are accepted with it, as HTML of a few kinds of marks; may be empty
 */
public record TypedOffer(String validUntil, String conditions) {}
