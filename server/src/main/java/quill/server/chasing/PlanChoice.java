package quill.server.chasing;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * By which plan a client or a document is reminded.
 *
 * @param plan which one; only where it is one under a name
 */
public record PlanChoice(Use use, @Schema(nullable = true) Long plan) {
    /** Only one under a name names a plan. */
    public PlanChoice {
        plan = use == Use.NAMED ? plan : null;
    }

    /** Where the plan comes from. */
    public enum Use {
        /** From what it belongs to: a document's from its client, a client's from the business. */
        USUAL,
        /** It is one of those under a name. */
        NAMED,
        /** It is not reminded of at all. */
        NONE
    }

    /** As what it belongs to. */
    static final PlanChoice USUAL = new PlanChoice(Use.USUAL, null);
}
