package quill.server.documents;

import quill.core.RefusedException;
import quill.core.document.TypedDraft;

/** A draft as it is typed now, to be kept. @param version under which it was last read */
public record KeepDraft(int version, TypedDraft typed) {
    /** What is to be kept. @throws RefusedException if nothing of it was sent */
    public TypedDraft whole() {
        if (typed == null) {
            throw new RefusedException("typed", "", "send the whole draft as it is typed");
        }
        return typed;
    }
}
